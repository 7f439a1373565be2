import fc from 'fast-check';
import type { Entry } from '../entries';
import { GLASSES, USUAL_LETTING_GO, outwardView, type Glass } from '../glass';
import { davAnswer, differenceParts, knowsSince, wholeOf, writeForm } from '../forms';
import {
  EMPTY_SHELF,
  KEEPING,
  NO_MEMORY,
  memoryOf,
  pick,
  randomFrom,
  remember,
  rememberDifference,
  shelved,
  shownBy,
  syncRequest,
  type Keeping,
  type Memory,
} from '../followers';
import { nextRevision, type Revision } from '../reach';
import { DAY, MINUTE, wallToText, type Instant } from '../zones';
import { RANGE, entryArbitrary } from './arbitraries';
import { STREET, rulesOf } from './samples';

/** How many histories there were, in how many of them a program ended with what is outside, and one in which it did not. */
export interface Convergence {
  readonly histories: number;
  readonly converged: number;
  readonly example: {
    readonly history: number;
    readonly missing: readonly string[];
    readonly more: readonly string[];
  } | null;
}

const HABITS = Object.keys(KEEPING) as Keeping[];

/** A habit of keeping, or that of asking only for what has changed: of the feed, or of the collection. */
export type Following = Keeping | 'difference' | 'dav';
const addressesOf = (key: string) => ({
  see: `https://w.example/see/${key}`,
  feed: `https://w.example/feed/${key}.ics`,
  dav: `https://w.example/dav/${key}/`,
});
const [OLD, NEW] = [addressesOf('k'), addressesOf('k2')];
/** In so many histories the key is turned in one of the last steps: the old address leads on for so long. */
const [TURNS, LAST_STEPS, GRACE] = [0.4, 3, 30 * DAY];
/** Longer than any window tells of what has left. */
const AT_LAST = 100 * DAY;
/** How likely a program looks between two changes. */
const LOOKS = 0.6;
const STEPS = 8;

interface Inside {
  readonly entries: readonly Entry[];
  readonly glass: Glass;
}

/** Returns an inside after something was done to it, taking from spare entries what is new. */
function changed({ entries, glass }: Inside, spare: readonly Entry[], random: () => number): Inside {
  const one = pick(random, entries);
  const other = pick(random, spare);
  const put = (next: Entry) => ({ glass, entries: entries.map((e) => (e === one ? next : e)) });
  const kind = random();
  if (!entries.length || kind < 0.15) {
    const fresh = spare.find((e) => !entries.some((known) => known.id === e.id));
    return fresh ? { glass, entries: [...entries, fresh] } : { glass, entries };
  }
  if (kind < 0.3) return { glass, entries: entries.filter((e) => e !== one) };
  if (kind < 0.45) return put({ ...one, title: other.title, place: other.place, status: other.status });
  if (kind < 0.6) return put({ ...other, id: one.id, uid: one.uid, calendarId: one.calendarId });
  if (kind < 0.7) return put({ ...one, hold: pick(random, ['none', 'frost', 'keep-in']) });
  if (kind < 0.8) return put({ ...one, overrides: random() < 0.5 ? [] : other.overrides });
  if (kind < 0.92 && one.recurrence) {
    const slots = one.overrides.map((o) => o.slot);
    // A date that was told apart is left out.
    return put({ ...one, overrides: [], recurrence: { ...one.recurrence, exceptDates: slots } });
  }
  return { entries, glass: random() < 0.5 ? 'clear' : pick(random, GLASSES) };
}

/**
 * Lets programs of every habit follow windows through random histories, looking now and then, and returns for each whether
 * it ended with what is outside. In some the key is turned: who sees the notice at the old address goes on at the new one; `lettingGo` is for how many days it is told what has left. What is over before the horizon begins does not count: some keep it, as they should.
 */
export function convergenceTrial(
  histories: number,
  seed: number,
  lettingGo = USUAL_LETTING_GO,
): Record<Following, Convergence> {
  const random = randomFrom(seed);
  const pool = fc.sample(entryArbitrary, { numRuns: 600, seed });
  const out = Object.fromEntries(
    [...HABITS, 'difference', 'dav'].map((habit) => [habit, { histories, converged: 0, example: null }]),
  ) as unknown as Record<Following, { -readonly [K in keyof Convergence]: Convergence[K] }>;
  for (let history = 0; history < histories; history++) {
    const spare = Array.from({ length: 12 }, () => pick(random, pool)).map((e) => ({
      ...e,
      calendarId: 'a',
    }));
    let inside: Inside = { entries: spare.slice(0, 4), glass: pick(random, ['tinted', 'clear', 'clear']) };
    let now: Instant = Date.UTC(2026, 3, 1, 12);
    let revision: Revision | null = null;
    const memories = new Map<Keeping, Memory>(HABITS.map((habit) => [habit, NO_MEMORY]));
    const began = now;
    /** Of the program that asks for what has changed, and the revision that it holds. */
    let differing = { memory: NO_MEMORY, since: 0 };
    let shelf = EMPTY_SHELF;
    const turnsAt = random() < TURNS ? STEPS - 1 - Math.floor(random() * LAST_STEPS) : null;
    let turn: { readonly at: Instant; readonly until: Instant } | null = null;
    /** Programs whose reader saw that the address was turned. */
    const moved = new Set<Following>();
    /** At which address a program looks, and what it is told there besides. */
    const placeOf = (following: Following) => {
      const notice = turn && !moved.has(following) ? { to: NEW, ...turn } : null;
      return { addresses: moved.has(following) ? NEW : OLD, notice };
    };
    const looked = (following: Following) => {
      if (turn) moved.add(following);
    };
    const feedNow = () => {
      const gone = Math.floor((now - began) / DAY) * DAY;
      const range = { from: RANGE.from + gone, to: RANGE.to + gone };
      const plain = rulesOf(inside.glass);
      const rules = { ...plain, wording: { ...plain.wording, lettingGo } };
      const view = outwardView(inside.entries, rules, range, STREET);
      revision = nextRevision(revision, view, now);
      const last = revision;
      const textFor = (following: Following) => writeForm('feed', view, last, { ...placeOf(following), now });
      return { view, revision, textFor, from: range.from };
    };
    const look = (chance: number) => {
      const { view, revision: last, textFor } = feedNow();
      for (const habit of HABITS)
        if (random() < chance) {
          memories.set(habit, remember(habit, memories.get(habit)!, textFor(habit)));
          looked(habit);
        }
      if (random() < chance) {
        const ask = (from: typeof shelf) => {
          const body = syncRequest(from);
          const asked = { method: 'REPORT', name: '', deep: false, body, minimal: false } as const;
          const { status, text: answer } = davAnswer(view, last, { ...placeOf('dav'), of: 'view' }, asked);
          return status === 207 ? shelved(from, answer)! : null;
        };
        shelf = ask(shelf) ?? ask(EMPTY_SHELF)!;
        // Another address is another collection.
        if (turn && !moved.has('dav')) shelf = EMPTY_SHELF;
        looked('dav');
      }
      if (random() >= chance) return;
      const { memory, since } = differing;
      const { addresses, notice } = placeOf('difference');
      const options = { source: addresses.feed, page: addresses.see, notice };
      const next = knowsSince(last, since)
        ? rememberDifference(memory, wholeOf(differenceParts(view, last, since, options)))
        : remember('replace-all', NO_MEMORY, textFor('difference'));
      looked('difference');
      differing = { memory: next, since: last.number };
    };
    look(1);
    for (let step = 0; step < STEPS; step++) {
      inside = changed(inside, spare, random);
      if (step === turnsAt) turn = { at: now, until: now + GRACE };
      // Several changes within a second, or days apart.
      now += random() < 0.3 ? 200 : random() < 0.5 ? 40 * MINUTE : Math.floor(random() * 9) * DAY;
      look(LOOKS);
    }
    now += MINUTE;
    look(1);
    now += AT_LAST;
    look(1);
    const { textFor, from } = feedNow();
    const text = textFor('replace-all');
    const since = `${wallToText(from)}Z`;
    const still = (lines: readonly string[]) => lines.filter((line) => line.split(' ')[2]! > since);
    const ended = (following: Following, habit: Keeping, memory: Memory) => {
      const wanted = still(shownBy(habit, remember('replace-all', NO_MEMORY, text)));
      const held = still(shownBy(habit, memory));
      const own = out[following];
      const missing = wanted.filter((line) => !held.includes(line));
      const more = held.filter((line) => !wanted.includes(line));
      if (!missing.length && !more.length && held.length === wanted.length) own.converged++;
      else own.example ??= { history, missing, more };
    };
    for (const habit of HABITS) ended(habit, habit, memories.get(habit)!);
    ended('difference', 'replace-all', differing.memory);
    ended('dav', 'replace-all', memoryOf(shelf));
  }
  return out;
}
