import { looksOf, randomFrom, someProgram } from '../followers';
import {
  forecastOf,
  habitAfter,
  nextLookOf,
  priorOf,
  shareAfter,
  stateOf,
  type Habit,
  type Prior,
} from '../reach';
import { DAY, HOUR } from '../zones';

/** How forecasts of followers compare with what happened. */
export interface ForecastTrial {
  readonly followers: number;
  /** The share of them that looked within the time that was told as nine in ten. */
  readonly nineInTen: number;
  /** The same by how many days of them were known. */
  readonly byKnown: Readonly<Record<string, readonly [held: number, of: number]>>;
  readonly byProgram: Readonly<Record<string, readonly [held: number, of: number]>>;
  /** Mean squared errors of the chances told for some lengths of time, and of one constant guess for each length. */
  readonly brier: number;
  readonly constant: number;
  /** Chances told in steps of a tenth, and how often it happened. */
  readonly calibration: readonly { readonly told: number; readonly happened: number; readonly of: number }[];
}

const FROM = Date.UTC(2026, 0, 1);
const LENGTHS = [0.5, 1, 2, 4, 8, 16, 24, 48].map((h) => h * HOUR);
/** The share of those who stop shortly before. */
const STOPPED = 0.02;

/** Somebody of whom some days are known by an instant, and when they look next. */
function someone(now: number, days: number, random: () => number) {
  const program = someProgram(random);
  const looks = looksOf(program, now - days * DAY, now + 60 * DAY, random);
  const habit = habitAfter(
    null,
    looks.filter((at) => at <= now),
  );
  return { program, habit, next: looks.find((at) => at > now) };
}

function somePrior(random: () => number): Prior {
  const others = Array.from({ length: 200 }, () => someone(FROM, 14, random).habit);
  return priorOf(others.filter((habit) => habit !== null));
}

function follows(habit: Habit, now: number, prior: Prior): boolean {
  return ['in-step', 'due', 'late'].includes(stateOf(habit, true, now, prior));
}

/** One length of time after a change, and the share that holds it by then, as a mean over windows. */
export interface CrowdPoint {
  readonly hours: number;
  readonly told: number;
  readonly happened: number;
  /** How far what was told of a window is from what happened to it, as a mean. */
  readonly apart: number;
}

/** Makes forecasts for windows with generated followers, and compares their curves with what happened. */
export function crowdTrial(windows: number, seed: number): CrowdPoint[] {
  const random = randomFrom(seed);
  const prior = somePrior(random);
  const points = LENGTHS.map((length) => ({ hours: length / HOUR, told: 0, happened: 0, apart: 0 }));
  for (let i = 0; i < windows; i++) {
    const now = FROM + random() * 366 * DAY;
    const crowd = Array.from({ length: 60 }, () => someone(now, 14, random)).flatMap(({ habit, next }) =>
      habit && follows(habit, now, prior) ? [{ habit, next: next ?? Infinity }] : [],
    );
    const awaited = crowd.map(({ habit }) => ({ habit, readers: 1, holds: false }));
    const { curve } = forecastOf(awaited, now, prior);
    for (const [at, length] of LENGTHS.entries()) {
      const told = shareAfter(curve, length);
      const happened = crowd.filter(({ next }) => next - now <= length).length / crowd.length;
      const point = points[at]!;
      point.told += told / windows;
      point.happened += happened / windows;
      point.apart += Math.abs(told - happened) / windows;
    }
  }
  return points;
}

/** Makes forecasts for generated followers at any moments, and compares them with when they looked next. */
export function forecastTrial(followers: number, seed: number): ForecastTrial {
  const random = randomFrom(seed);
  const prior = somePrior(random);
  const byKnown: Record<string, [number, number]> = {};
  const byProgram: Record<string, [number, number]> = {};
  const chances: { told: number[]; happened: boolean[] }[] = [];
  let [held, done] = [0, 0];
  while (done < followers) {
    const days = [1, 2, 4, 7, 14, 28][Math.floor(random() * 6)]!;
    const now = FROM + random() * 366 * DAY;
    const { program, habit, next } = someone(now, days, random);
    if (!habit || !follows(habit, now, prior)) continue;
    const wait = random() < STOPPED || next === undefined ? Infinity : next - now;
    const look = nextLookOf(habit, now, prior);
    const by = look.by(0.9) ?? Infinity;
    done++;
    for (const [table, name] of [
      [byKnown, `${days} d`],
      [byProgram, program.name],
    ] as const) {
      const own = (table[name] ??= [0, 0]);
      own[1]++;
      if (wait <= by) own[0]++;
    }
    if (wait <= by) held++;
    chances.push({ told: LENGTHS.map((l) => look.within(l)), happened: LENGTHS.map((l) => wait <= l) });
  }
  const base = LENGTHS.map((_, i) => chances.filter((c) => c.happened[i]).length / done);
  let [brier, constant] = [0, 0];
  const steps = Array.from({ length: 10 }, () => [0, 0, 0] as [number, number, number]);
  for (const { told, happened } of chances)
    for (const [i, chance] of told.entries()) {
      const outcome = happened[i] ? 1 : 0;
      brier += (chance - outcome) ** 2;
      constant += (base[i]! - outcome) ** 2;
      const step = steps[Math.min(9, Math.floor(chance * 10))]!;
      step[0] += chance;
      step[1] += outcome;
      step[2]++;
    }
  const count = done * LENGTHS.length;
  return {
    followers: done,
    nineInTen: held / done,
    byKnown,
    byProgram,
    brier: brier / count,
    constant: constant / count,
    calibration: steps.map(([told, happened, of]) => ({ told: told / of, happened: happened / of, of })),
  };
}
