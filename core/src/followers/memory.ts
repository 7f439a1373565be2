import ICAL from 'ical.js';
import { wallToText } from '../zones';

/*
 * What programs outside keep of a feed that they read again and again, each in its own way. Read with ical.js alone, and not
 * with what writes feeds.
 */

/** One component as a program keeps it: an entry, or one date of it. */
interface Kept {
  readonly uid: string;
  /** Of the date that it is, or empty. */
  readonly slot: string;
  readonly sequence: number;
  /** DTSTAMP. */
  readonly stamp: string;
  readonly deleted: boolean;
  readonly jCal: readonly unknown[];
}

/** What a program holds: components by identifier and date, and the zones that they name. */
export interface Memory {
  readonly kept: ReadonlyMap<string, Kept>;
  readonly zones: ReadonlyMap<string, readonly unknown[]>;
}

export const NO_MEMORY: Memory = { kept: new Map(), zones: new Map() };

interface KeepingHabit {
  /** What it does, in a sentence. */
  readonly say: string;
  /** Returns what is kept after a feed was read. */
  readonly keep: (kept: Memory['kept'], read: readonly Kept[]) => ReadonlyMap<string, Kept>;
  /** Whether it shows what is cancelled as if it were not. */
  readonly blind?: true;
}

const keyOf = ({ uid, slot }: Pick<Kept, 'uid' | 'slot'>) => `${uid}|${slot}`;
const keyed = (list: readonly Kept[]) => new Map(list.map((one) => [keyOf(one), one]));

/** Takes an entry with all its dates in place of what was kept of it, where it is newer. */
function merge(
  kept: Memory['kept'],
  read: readonly Kept[],
  isNewer: (next: Kept, known: Kept) => boolean,
): Map<string, Kept> {
  const out = new Map(kept);
  const known = new Map<string, Kept>();
  for (const one of kept.values()) if (!known.has(one.uid) || !one.slot) known.set(one.uid, one);
  const fresh = new Set(
    read.filter((one) => !known.has(one.uid) || isNewer(one, known.get(one.uid)!)).map(({ uid }) => uid),
  );
  for (const [key, one] of kept) if (fresh.has(one.uid)) out.delete(key);
  for (const one of read) if (fresh.has(one.uid)) out.set(keyOf(one), one);
  return out;
}

/** The ways in which programs keep what they read. */
export const KEEPING = {
  'replace-all': {
    say: 'puts each reading in place of the one before',
    keep: (_kept, read) => keyed(read),
  },
  'merge-uid': {
    say: 'takes each entry that it reads in place of its own by UID, and keeps what is missing',
    keep: (kept, read) => merge(kept, read, () => true),
  },
  'merge-sequence': {
    say: 'does so only where SEQUENCE is higher',
    keep: (kept, read) => merge(kept, read, (next, known) => next.sequence > known.sequence),
  },
  'drop-missing': {
    say: 'takes entries by UID where SEQUENCE is higher, and drops what is missing',
    keep: (kept, read) => {
      const there = new Set(read.map(({ uid }) => uid));
      const merged = merge(kept, read, (next, known) => next.sequence > known.sequence);
      return new Map([...merged].filter(([, { uid }]) => there.has(uid)));
    },
  },
  'ignore-cancelled': {
    say: 'puts each reading in place of the one before, and shows what is cancelled as if it were not',
    keep: (_kept, read) => keyed(read),
    blind: true,
  },
  'instance-only': {
    say: 'takes each component by UID and RECURRENCE-ID for itself where SEQUENCE is higher, and keeps what is missing',
    keep: (kept, read) => {
      const out = new Map(kept);
      for (const one of read) {
        const known = out.get(keyOf(one));
        if (!known || one.sequence > known.sequence) out.set(keyOf(one), one);
      }
      return out;
    },
  },
  'cache-dtstamp': {
    say: 'drops what is missing, and reads a component anew only where DTSTAMP is another',
    keep: (kept, read) =>
      keyed(read.map((one) => (kept.get(keyOf(one))?.stamp === one.stamp ? kept.get(keyOf(one))! : one))),
  },
  'merge-blind': {
    say: 'merges by UID, keeps what is missing, and shows what is cancelled as if it were not',
    keep: (kept, read) => merge(kept, read, () => true),
    blind: true,
  },
} as const satisfies Record<string, KeepingHabit>;

export type Keeping = keyof typeof KEEPING;

/** Returns what a program with a habit holds once it has read a feed as iCalendar text. Throws where that is malformed. */
export function remember(habit: Keeping, memory: Memory, text: string): Memory {
  const calendar = new ICAL.Component(ICAL.parse(text) as never);
  const zones = new Map(memory.zones);
  for (const zone of calendar.getAllSubcomponents('vtimezone'))
    zones.set(String(zone.getFirstPropertyValue('tzid')), zone.jCal as unknown[]);
  const read = ['vevent', 'vtodo'].flatMap((name) => calendar.getAllSubcomponents(name)).map(keptOf);
  return { kept: KEEPING[habit].keep(memory.kept, read), zones };
}

function keptOf(component: InstanceType<typeof ICAL.Component>): Kept {
  const text = (name: string) => String(component.getFirstPropertyValue(name) ?? '');
  return {
    uid: text('uid'),
    slot: text('recurrence-id'),
    sequence: Number(text('sequence')),
    stamp: text('dtstamp'),
    deleted: text('status') === 'DELETED',
    jCal: component.jCal as unknown[],
  };
}

/** Returns what a program holds once it has read what changed since it read last: entries by UID, without those deleted. */
export function rememberDifference(memory: Memory, text: string): Memory {
  const { kept, zones } = remember('merge-uid', memory, text);
  return { kept: new Map([...kept].filter(([, one]) => !one.deleted)), zones };
}

/** Tasks have words of their own for their state; events cannot be done. */
const TASK_STATUS: Readonly<Record<string, string>> = { 'NEEDS-ACTION': 'confirmed', COMPLETED: 'confirmed' };

/** Returns `uid start end status title` of every time that a memory holds, those that are cancelled too. */
export function timesIn({ kept, zones }: Memory): string[] {
  ICAL.TimezoneService.reset();
  // In a calendar of their own, by which components find them.
  const calendar = new ICAL.Component(['vcalendar', [], [...zones.values()]] as never);
  for (const zone of calendar.getAllSubcomponents('vtimezone'))
    ICAL.TimezoneService.register(new ICAL.Timezone(zone));
  const events = [...kept.values()].map(({ jCal }) => {
    const component = new ICAL.Component(jCal as never, calendar);
    return new ICAL.Event(component, { exceptions: [] });
  });
  const out: string[] = [];
  const tell = (event: InstanceType<typeof ICAL.Event>, start: ICAL.Time, end: ICAL.Time) => {
    const word = String(event.component.getFirstPropertyValue('status'));
    const status = TASK_STATUS[word] ?? word.toLowerCase();
    out.push(timeLine(event.uid, momentOf(start), momentOf(end), event.summary ?? '', status));
  };
  const masters = events.filter((e) => !e.isRecurrenceException());
  for (const master of masters) {
    for (const other of events)
      if (other.isRecurrenceException() && other.uid === master.uid) master.relateException(other);
    const due = master.component.getFirstPropertyValue('due') as ICAL.Time | null;
    if (due) tell(master, due, due);
    else if (!master.isRecurring()) tell(master, master.startDate, master.endDate ?? master.startDate);
    else {
      const iterator = master.iterator();
      for (let slot = iterator.next(); slot; slot = iterator.next()) {
        const { item, startDate, endDate } = master.getOccurrenceDetails(slot);
        const task = item.component.name === 'vtodo';
        tell(item, startDate, task ? startDate : (endDate ?? startDate));
      }
    }
  }
  // Dates whose series is gone, or is none any more, stand by themselves.
  const series = new Set(masters.filter((m) => m.isRecurring()).map((m) => m.uid));
  for (const lone of events)
    if (lone.isRecurrenceException() && !series.has(lone.uid)) {
      const due = lone.component.getFirstPropertyValue('due') as ICAL.Time | null;
      tell(lone, due ?? lone.startDate, due ?? lone.endDate ?? lone.startDate);
    }
  return out.sort();
}

function momentOf(time: ICAL.Time): string {
  if (time.isDate) return time.toString();
  const floating = time.zone === ICAL.Timezone.localTimezone;
  return floating ? time.toString() : `${wallToText(time.toUnixTime() * 1000)}Z`;
}

/** Returns one time in words; control characters cannot stand in a TEXT value, and line ends are one kind. */
export function timeLine(uid: string, start: string, end: string, title: string, status: string): string {
  const plain = title.replace(/\r\n?/g, '\n').replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/g, '');
  return `${uid} ${start} ${end} ${status} ${JSON.stringify(plain)}`;
}

/** Returns what a program with a habit shows: each time that is not cancelled, or each as if it were not. */
export function shownBy(habit: Keeping, memory: Memory): string[] {
  const words = timesIn(memory).map((line) => line.split(' '));
  const blind = 'blind' in KEEPING[habit];
  return words
    .filter((parts) => blind || parts[3] !== 'cancelled')
    .map((parts) => (blind ? [...parts.slice(0, 3), ...parts.slice(4)] : parts).join(' '))
    .sort();
}
