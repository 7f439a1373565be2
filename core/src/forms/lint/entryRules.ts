import { all, first, parameter, type Component } from '../read/components';
import { ENTRIES, atMostOne, exactlyOne, methodOf, momentKind, quoted, word, type Rule } from './finding';

/** Properties that an entry has at most once (RFC 5545 sections 3.6.1 and 3.6.2, RFC 7986 section 4); UID and DTSTAMP exactly once. */
const ONCE = [
  'dtstart',
  'dtend',
  'due',
  'duration',
  'summary',
  'location',
  'description',
  'url',
  'status',
  'class',
  'transp',
  'sequence',
  'created',
  'last-modified',
  'recurrence-id',
  'organizer',
  'geo',
  'priority',
  'completed',
  'percent-complete',
  'color',
];

/** The same of free and busy times (RFC 5545 section 3.6.4). */
const ONCE_IN_FREE_BUSY = ['contact', 'dtstart', 'dtend', 'organizer', 'url'];

/** Properties that only one of the two kinds has (RFC 5545 section 3.8). */
const ONLY_IN: Readonly<Record<string, readonly string[]>> = {
  VEVENT: ['dtend', 'transp'],
  VTODO: ['due', 'completed', 'percent-complete'],
};

const STATUSES: Readonly<Record<string, readonly string[]>> = {
  VEVENT: ['TENTATIVE', 'CONFIRMED', 'CANCELLED'],
  VTODO: ['NEEDS-ACTION', 'COMPLETED', 'IN-PROCESS', 'CANCELLED'],
};

/** What is asked of each entry. */
export const ENTRY_RULES: readonly Rule[] = [
  {
    section: 'RFC 5545 section 3.8.4.7',
    of: [...ENTRIES, 'VFREEBUSY', 'VJOURNAL'],
    component: (component, report) => {
      const uid = exactlyOne(component, 'uid', report);
      if (uid?.text === '') report(uid.line, 'UID is empty.');
    },
  },
  {
    section: 'RFC 5545 section 3.8.7.2',
    of: [...ENTRIES, 'VFREEBUSY', 'VJOURNAL'],
    component: (component, report) => void exactlyOne(component, 'dtstamp', report),
  },
  {
    section: 'RFC 5545 section 3.6.1',
    of: ['VEVENT'],
    component: (component, report, { calendar }) => {
      if (!first(component, 'dtstart') && methodOf(calendar) === undefined)
        report(component.line, 'VEVENT has no DTSTART.');
      if (first(component, 'dtend') && first(component, 'duration'))
        report(component.line, 'VEVENT has both DTEND and DURATION.');
    },
  },
  {
    section: 'RFC 5545 section 3.6.2',
    of: ['VTODO'],
    component: (component, report) => {
      if (first(component, 'due') && first(component, 'duration'))
        report(component.line, 'VTODO has both DUE and DURATION.');
      if (first(component, 'duration') && !first(component, 'dtstart'))
        report(component.line, 'VTODO has a DURATION and no DTSTART.');
    },
  },
  {
    section: 'RFC 5545 section 3.6.1',
    of: ENTRIES,
    component: (component, report) => {
      for (const name of ONCE) atMostOne(component, name, report);
    },
  },
  {
    section: 'RFC 5545 section 3.6.4',
    of: ['VFREEBUSY'],
    component: (component, report) => {
      for (const name of ONCE_IN_FREE_BUSY) atMostOne(component, name, report);
    },
  },
  {
    section: 'RFC 5545 section 3.8',
    of: ENTRIES,
    component: (component, report) => {
      for (const [kind, names] of Object.entries(ONLY_IN))
        for (const name of kind === component.name ? [] : names) {
          const found = first(component, name);
          if (found) report(found.line, `${component.name} cannot have ${name.toUpperCase()}.`);
        }
    },
  },
  {
    section: 'RFC 5545 section 3.8.2.2',
    of: [...ENTRIES, 'VFREEBUSY'],
    component: (component, report) => {
      const start = first(component, 'dtstart');
      const end = first(component, component.name === 'VTODO' ? 'due' : 'dtend');
      if (!start || !end) return;
      const name = end.name.toUpperCase();
      const [from, to] = [momentKind(start), momentKind(end)];
      if ((from === 'date') !== (to === 'date')) report(end.line, `${name} is of another type than DTSTART.`);
      else if ((from === 'floating') !== (to === 'floating'))
        report(end.line, `Only one of DTSTART and ${name} is a floating time.`);
      const isComparable = from === to && parameter(start, 'tzid') === parameter(end, 'tzid');
      if (isComparable && end.text <= start.text) report(end.line, `${name} is not later than DTSTART.`);
    },
  },
  {
    section: 'RFC 5545 section 3.8.2.5',
    of: ENTRIES,
    component: (component, report) => {
      const [start, length] = [first(component, 'dtstart'), first(component, 'duration')];
      if (!length) return;
      if (length.text.startsWith('-')) report(length.line, `DURATION ${quoted(length.text)} is negative.`);
      if (start && momentKind(start) === 'date' && length.text.includes('T'))
        report(length.line, 'DURATION of whole days has a time.');
    },
  },
  {
    section: 'RFC 5545 section 3.8.1.11',
    of: ENTRIES,
    component: (component, report) => {
      const status = first(component, 'status');
      if (status && !STATUSES[component.name]!.includes(word(status)!))
        report(status.line, `STATUS ${status.text.slice(0, 40)} is not one of a ${component.name}.`);
    },
  },
  {
    section: 'RFC 5545 section 3.8.2.7',
    of: ['VEVENT'],
    component: (component, report) => {
      const transp = first(component, 'transp');
      if (transp && !['OPAQUE', 'TRANSPARENT'].includes(word(transp)!))
        report(transp.line, 'TRANSP is neither OPAQUE nor TRANSPARENT.');
    },
  },
  {
    section: 'RFC 5545 section 3.8.7.3',
    weight: 'should',
    of: ENTRIES,
    component: (component, report) => {
      const [created, modified] = [first(component, 'created'), first(component, 'last-modified')];
      if (created && modified && modified.text < created.text)
        report(modified.line, 'LAST-MODIFIED is before CREATED.');
    },
  },
  {
    section: 'RFC 5545 section 3.8.4.7',
    calendar: (calendar, report) => {
      for (const { others } of entriesByUid(calendar))
        for (const { line } of others) report(line, 'Two entries have the same UID.');
    },
  },
];

/** What has one UID: the entry or series, the dates of it that were changed, and whatever has no right to that UID. */
export interface SameUid {
  readonly master: Component | null;
  readonly dates: readonly Component[];
  readonly others: readonly Component[];
}

export function entriesByUid(calendar: Component): SameUid[] {
  const byUid = new Map<string, Component[]>();
  for (const component of calendar.children) {
    const uid = ENTRIES.includes(component.name) ? first(component, 'uid')?.text : undefined;
    if (uid === undefined) continue;
    const own = byUid.get(uid);
    if (own) own.push(component);
    else byUid.set(uid, [component]);
  }
  return [...byUid.values()].map((same) => {
    const [master = null, ...others] = same.filter((c) => !all(c, 'recurrence-id').length);
    return { master, dates: same.filter((c) => all(c, 'recurrence-id').length), others };
  });
}
