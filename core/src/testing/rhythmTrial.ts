import { looksOf, randomFrom, someProgram, truthOf, type Follower, type Truth } from '../followers';
import { habitAfter, stateOf, type SubscriberState } from '../reach';
import { DAY, type Instant } from '../zones';

/** How often each state was told of followers of whom each is true. */
export type Confusion = Readonly<Record<Told, Readonly<Record<Told, number>>>>;
type Told = SubscriberState;

export interface Trial {
  readonly cases: number;
  readonly right: number;
  readonly confusion: Confusion;
  /** Right ones of each program, and how many there were. */
  readonly byProgram: Readonly<Record<string, readonly [right: number, of: number]>>;
}

const STATES: readonly Told[] = ['in-step', 'due', 'late', 'silent', 'once'];
const FROM = Date.UTC(2026, 0, 1);
const YEAR = 366 * DAY;
/** Shares of followers that have stopped, and that came only once. */
const STOPPED = 0.2;
const ONCE = 0.1;

/** One follower of whom so many polls are known, at an instant after them. */
function someCase(polls: number, random: () => number): { follower: Follower; now: Instant } | null {
  const from = FROM + random() * YEAR;
  const program = someProgram(random);
  const kind = random();
  if (kind < ONCE) {
    const once = { ...program, name: 'once', once: true };
    const follower = { program: once, looks: looksOf(once, from, from + DAY, random) };
    return { follower, now: from + (2.1 + random() * 26) * DAY };
  }
  const span = (polls + 20) * program.every * 2 + 10 * DAY;
  const looks = looksOf(program, from, from + span, random);
  if (looks.length <= polls) return null;
  // Any moment is as likely as any other, so that most of them are in long pauses.
  const [first, end] = [looks[polls - 1]!, looks.at(-1)!];
  const now = first + random() * (end - first);
  const seen = looks.filter((at) => at <= now).slice(-polls);
  const follower = { program, looks: seen };
  if (kind >= ONCE + STOPPED) return { follower, now };
  // It has stopped at its last look.
  return { follower, now: seen.at(-1)! + random() * 28 * DAY };
}

function stateIn(truth: Truth, holds: boolean): Told {
  if (truth !== 'following') return truth;
  return holds ? 'in-step' : 'due';
}

/** Tells the states of generated followers of whom so many polls are known, and compares them with what is true. */
export function rhythmTrial(polls: number, cases: number, seed: number): Trial {
  const random = randomFrom(seed);
  const confusion = Object.fromEntries(
    STATES.map((truth) => [truth, Object.fromEntries(STATES.map((told) => [told, 0]))]),
  ) as Record<Told, Record<Told, number>>;
  const byProgram: Record<string, [number, number]> = {};
  let [done, right] = [0, 0];
  while (done < cases) {
    const one = someCase(polls, random);
    if (!one) continue;
    const { follower, now } = one;
    const holds = random() < 0.5;
    const told = stateOf(habitAfter(null, follower.looks)!, holds, now);
    const truth = stateIn(truthOf(follower, now), holds);
    confusion[truth][told]++;
    done++;
    const own = (byProgram[follower.program.name] ??= [0, 0]);
    own[1]++;
    if (told === truth) {
      right++;
      own[0]++;
    }
  }
  return { cases: done, right, confusion, byProgram };
}
