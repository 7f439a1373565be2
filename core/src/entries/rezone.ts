import { wallAt, wallToText, type Instant, type ZoneName } from '../zones';
import type { Entry, Override } from './entry';
import { extentOf, localRule, occurrencesOf } from './occurrences';
import { untilText } from './until';
import { instantOfWhen, whenLike, wallOf, type When } from './when';

export const REZONES = ['clock-times', 'moments'] as const;
/** What an entry keeps when its calendar moves to another zone: what clocks show, or the moment itself. */
export type Rezone = (typeof REZONES)[number];

/** What a change of zone does to one entry. */
export interface Rezoned {
  readonly before: Entry;
  readonly after: Entry;
  /** Whether it takes place at other moments than before. */
  readonly moved: boolean;
  /** Set where a series keeps its old zone: on the clocks of the new one its moments would shift with a clock change. */
  readonly stays: boolean;
}

/** How far a series is compared on the clocks of both zones. */
const YEARS = 3 * 366 * 86_400_000;

/**
 * Returns what becomes of an entry when its calendar moves from one zone to another. Times in a zone of their own
 * stay in both cases, and whole days and floating times stay as they are written.
 */
export function rezone(entry: Entry, from: ZoneName, to: ZoneName, keep: Rezone, now: Instant): Rezoned {
  const moment = (when: When): When =>
    isIn(when, from)
      ? { kind: 'zoned', at: wallToText(wallAt(to, instantOfWhen(when, from))), zone: to }
      : when;
  const reading = (when: When): When => (isIn(when, from) ? { ...when, zone: to } : when);
  if (keep === 'clock-times') {
    const after = changed(entry, from, to, reading);
    return {
      before: entry,
      after,
      moved: after !== entry && !sameMoments(entry, after, from, to, now),
      stays: false,
    };
  }
  const after = changed(entry, from, to, moment);
  if (after === entry || !entry.recurrence || sameMoments(entry, after, from, to, now)) {
    return { before: entry, after, moved: false, stays: false };
  }
  return { before: entry, after: entry, moved: false, stays: true };
}

type ZonedWhen = Extract<When, { kind: 'zoned' }>;

function isIn(when: When, zone: ZoneName): when is ZonedWhen {
  return when.kind === 'zoned' && when.zone === zone;
}

function changed(entry: Entry, from: ZoneName, to: ZoneName, turn: (when: When) => When): Entry {
  const override = (o: Override): Override => ({
    slot: turn(o.slot),
    start: turn(o.start),
    end: turn(o.end),
    content: content(o.content, turn),
  });
  const { recurrence } = entry;
  const after: Entry = {
    ...entry,
    ...content(entry, turn),
    start: turn(entry.start),
    end: turn(entry.end),
    recurrence: recurrence && {
      rule: recurrence.rule && ruleIn(recurrence.rule, entry.start, from, to, turn),
      dates: recurrence.dates.map(turn),
      exceptDates: recurrence.exceptDates.map(turn),
    },
    overrides: entry.overrides.map(override),
  };
  return JSON.stringify(after) === JSON.stringify(entry) ? entry : after;
}

function content<T extends { planned: When | null }>(of: T, turn: (when: When) => When): T {
  return of.planned ? { ...of, planned: turn(of.planned) } : of;
}

/** UNTIL is an instant for times in a zone: it moves along with the clock times that it ends. */
function ruleIn(rule: string, start: When, from: ZoneName, to: ZoneName, turn: (when: When) => When): string {
  if (!isIn(start, from)) return rule;
  const { until } = localRule(rule, start);
  if (until === null) return rule;
  const last = turn(whenLike(start, until));
  return rule.replace(
    /UNTIL=[^;]+/i,
    `UNTIL=${untilText({ kind: 'zoned', at: '', zone: to }, wallOf(last))}`,
  );
}

function sameMoments(a: Entry, b: Entry, from: ZoneName, to: ZoneName, now: Instant): boolean {
  const first = Math.min(extentOf(a, from).from, extentOf(b, to).from);
  // The first dates and those around now, over the clock changes of both zones.
  return [first, now - YEARS / 3].every((at) => {
    const range = { from: at - 86_400_000, to: at + YEARS };
    return momentsOf(a, range, from) === momentsOf(b, range, to);
  });
}

function momentsOf(entry: Entry, range: { from: Instant; to: Instant }, zone: ZoneName): string {
  return occurrencesOf(entry, range, zone)
    .map((o) => (o.start.kind === 'zoned' ? `${o.from}/${o.to}` : `${wallOf(o.start)}/${wallOf(o.end)}`))
    .join(' ');
}
