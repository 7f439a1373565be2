import { ruleFromText } from '../../entries';
import { Problem } from '../../problems';
import { COLOURS } from '../../glass';
import { all, componentsOf, first, parameter, type Component, type Property } from '../read/components';

/** One thing that is not as a standard asks. */
export interface Finding {
  /** Line of the document, from 1. */
  readonly line: number;
  /** What is wrong, as a sentence. */
  readonly say: string;
  /** The standard and its section. */
  readonly section: string;
  /** `must`: programs may refuse it; `should`: programs may show it otherwise than it is meant. */
  readonly weight: 'must' | 'should';
}

type Say = (line: number, say: string) => void;

interface Rule {
  readonly section: string;
  readonly weight?: 'should';
  /** Looks at the document as text, at the calendar, or at each component of some kinds. */
  readonly text?: (text: string, say: Say) => void;
  readonly calendar?: (calendar: Component, say: Say) => void;
  readonly of?: readonly string[];
  readonly component?: (component: Component, say: Say, calendar: Component) => void;
}

const ENTRIES = ['VEVENT', 'VTODO'];
const DATE = /^\d{8}$/;
const TIME = /^\d{8}T\d{6}Z?$/;
const MOMENTS = [
  'dtstart',
  'dtend',
  'due',
  'recurrence-id',
  'rdate',
  'exdate',
  'dtstamp',
  'created',
  'last-modified',
];

/** Properties that a component has at most once (RFC 5545 sections 3.6.1 and 3.6.2). */
const ONCE = [
  'uid',
  'dtstamp',
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
];

const STATUSES: Readonly<Record<string, readonly string[]>> = {
  VEVENT: ['TENTATIVE', 'CONFIRMED', 'CANCELLED'],
  VTODO: ['NEEDS-ACTION', 'COMPLETED', 'IN-PROCESS', 'CANCELLED'],
};

const typeOf = (p: Property) => (DATE.test(p.text) ? 'date' : 'time');
const valueKind = (p: Property) =>
  typeOf(p) === 'date' ? 'date' : p.text.endsWith('Z') ? 'utc' : parameter(p, 'tzid') ? 'zoned' : 'floating';

function exactly(component: Component, name: string, say: Say): Property | undefined {
  const found = all(component, name);
  if (!found.length) say(component.line, `${component.name} has no ${name.toUpperCase()}.`);
  if (found.length > 1) say(found[1]!.line, `${component.name} has more than one ${name.toUpperCase()}.`);
  return found[0];
}

/** Looks whether each line of a property says of which type its value is, which these properties must. */
function typed(text: string, name: string, type: string, say: Say): void {
  const lines = text.split('\r\n');
  lines.forEach((start, i) => {
    if (!start.toUpperCase().startsWith(name) || !/^[;:]/.test(start.slice(name.length))) return;
    let whole = start;
    for (let next = i + 1; /^[ \t]/.test(lines[next] ?? ''); next++) whole += lines[next]!.slice(1);
    const parameters = whole.slice(name.length).split(/:(?=(?:[^"]*"[^"]*")*[^"]*$)/)[0]!;
    if (!new RegExp(`;VALUE=${type}(;|$)`, 'i').test(parameters))
      say(i + 1, `${name} does not say VALUE=${type}.`);
  });
}

/** Every rule with its section; the order is that in which findings of one line are told. */
const RULES: readonly Rule[] = [
  {
    section: 'RFC 5545 section 3.1',
    text: (text, say) => {
      text.split('\r\n').forEach((line, i) => {
        if (/[\r\n]/.test(line)) say(i + 1, 'A line does not end with CR LF.');
        if (new TextEncoder().encode(line).length > 75) say(i + 1, 'A line has more than 75 octets.');
      });
      if (!text.endsWith('\r\n')) say(text.split('\r\n').length, 'The last line does not end with CR LF.');
    },
  },
  {
    section: 'RFC 5545 section 3.3.11',
    text: (text, say) => {
      text.split('\r\n').forEach((line, i) => {
        if (/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/.test(line))
          say(i + 1, 'A line holds a control character.');
      });
    },
  },
  {
    section: 'RFC 5545 section 3.6',
    calendar: (calendar, say) => {
      if (!calendar.children.length) say(calendar.line, 'The calendar has no component.');
    },
  },
  {
    section: 'RFC 5545 section 3.7.4',
    calendar: (calendar, say) => {
      const version = exactly(calendar, 'version', say);
      if (version && version.text !== '2.0') say(version.line, 'VERSION is not 2.0.');
    },
  },
  { section: 'RFC 5545 section 3.7.3', calendar: (calendar, say) => void exactly(calendar, 'prodid', say) },
  {
    section: 'RFC 7986 section 4',
    calendar: (calendar, say) => {
      for (const name of [
        'uid',
        'last-modified',
        'url',
        'refresh-interval',
        'source',
        'color',
        'method',
        'calscale',
      ])
        if (all(calendar, name).length > 1)
          say(all(calendar, name)[1]!.line, `The calendar has more than one ${name.toUpperCase()}.`);
    },
  },
  {
    section: 'RFC 7986 section 5.7',
    text: (text, say) => typed(text, 'REFRESH-INTERVAL', 'DURATION', say),
  },
  { section: 'RFC 7986 section 5.8', text: (text, say) => typed(text, 'SOURCE', 'URI', say) },
  { section: 'RFC 7986 section 5.11', text: (text, say) => typed(text, 'CONFERENCE', 'URI', say) },
  {
    section: 'RFC 7986 section 5.9',
    weight: 'should',
    calendar: (calendar, say) => {
      const color = first(calendar, 'color');
      if (color && !/^[a-z]+$/.test(color.text) && !(COLOURS as readonly string[]).includes(color.text))
        say(color.line, 'COLOR is not a name of CSS3.');
    },
  },
  {
    section: 'RFC 5545 section 3.8.4.7',
    of: [...ENTRIES, 'VFREEBUSY'],
    component: (component, say) => void exactly(component, 'uid', say),
  },
  {
    section: 'RFC 5545 section 3.8.7.2',
    of: [...ENTRIES, 'VFREEBUSY'],
    component: (component, say) => {
      const stamp = exactly(component, 'dtstamp', say);
      if (stamp && valueKind(stamp) !== 'utc') say(stamp.line, 'DTSTAMP is not in UTC.');
    },
  },
  {
    section: 'RFC 5545 section 3.6.1',
    of: ['VEVENT'],
    component: (component, say) => {
      if (!first(component, 'dtstart')) say(component.line, 'VEVENT has no DTSTART.');
      if (first(component, 'dtend') && first(component, 'duration'))
        say(component.line, 'VEVENT has both DTEND and DURATION.');
    },
  },
  {
    section: 'RFC 5545 section 3.6.2',
    of: ['VTODO'],
    component: (component, say) => {
      if (first(component, 'due') && first(component, 'duration'))
        say(component.line, 'VTODO has both DUE and DURATION.');
      if (first(component, 'duration') && !first(component, 'dtstart'))
        say(component.line, 'VTODO has a DURATION and no DTSTART.');
    },
  },
  {
    section: 'RFC 5545 section 3.6.1',
    of: ENTRIES,
    component: (component, say) => {
      for (const name of ONCE) {
        const [, second] = all(component, name);
        if (second && name !== 'uid' && name !== 'dtstamp')
          say(second.line, `${component.name} has more than one ${name.toUpperCase()}.`);
      }
    },
  },
  {
    section: 'RFC 5545 sections 3.3.4 and 3.3.5',
    of: [...ENTRIES, 'VFREEBUSY'],
    component: (component, say) => {
      for (const name of MOMENTS)
        for (const p of all(component, name))
          for (const text of p.text.split(',')) {
            const date = parameter(p, 'value')?.toUpperCase() === 'DATE';
            if (!(date ? DATE : TIME).test(text))
              say(
                p.line,
                `${name.toUpperCase()} “${text.slice(0, 40)}” is no ${date ? 'date' : 'date-time'}.`,
              );
          }
    },
  },
  {
    section: 'RFC 5545 section 3.8.2.2',
    of: ENTRIES,
    component: (component, say) => {
      const start = first(component, 'dtstart');
      const end = first(component, component.name === 'VEVENT' ? 'dtend' : 'due');
      if (!start || !end) return;
      const name = end.name.toUpperCase();
      if (typeOf(start) !== typeOf(end)) say(end.line, `${name} is of another type than DTSTART.`);
      const alike =
        valueKind(start) === valueKind(end) && parameter(start, 'tzid') === parameter(end, 'tzid');
      if (alike && end.text <= start.text) say(end.line, `${name} is not later than DTSTART.`);
    },
  },
  {
    section: 'RFC 5545 section 3.8.1.11',
    of: ENTRIES,
    component: (component, say) => {
      const status = first(component, 'status');
      if (status && !STATUSES[component.name]!.includes(status.text))
        say(status.line, `STATUS ${status.text.slice(0, 40)} is not one of a ${component.name}.`);
    },
  },
  {
    section: 'RFC 5545 section 3.8.2.7',
    of: ['VEVENT'],
    component: (component, say) => {
      const transp = first(component, 'transp');
      if (transp && !['OPAQUE', 'TRANSPARENT'].includes(transp.text))
        say(transp.line, 'TRANSP is neither OPAQUE nor TRANSPARENT.');
    },
  },
  {
    section: 'RFC 5545 section 3.8.7.4',
    of: ENTRIES,
    component: (component, say) => {
      const sequence = first(component, 'sequence');
      if (sequence && !/^\d+$/.test(sequence.text)) say(sequence.line, 'SEQUENCE is no whole number.');
    },
  },
  {
    section: 'RFC 5545 section 3.3.10',
    of: ENTRIES,
    component: (component, say) => {
      const rules = all(component, 'rrule');
      if (rules.length > 1) say(rules[1]!.line, `${component.name} has more than one RRULE.`);
      const start = first(component, 'dtstart');
      for (const p of rules) {
        if (!start) say(p.line, 'An entry that recurs has no DTSTART.');
        if (/COUNT=/i.test(p.text) && /UNTIL=/i.test(p.text)) say(p.line, 'RRULE has both COUNT and UNTIL.');
        const until = /UNTIL=([^;]+)/i.exec(p.text)?.[1];
        if (until && start) {
          const wanted = { date: DATE, floating: /^\d{8}T\d{6}$/, utc: /Z$/, zoned: /Z$/ }[valueKind(start)];
          if (!wanted.test(until)) say(p.line, 'UNTIL is of another type than DTSTART asks for.');
        }
        try {
          ruleFromText(p.text);
        } catch (error) {
          if (!(error instanceof Problem)) throw error;
          say(p.line, error.message);
        }
      }
    },
  },
  {
    section: 'RFC 5545 section 3.8.4.4',
    calendar: (calendar, say) => {
      for (const { master, dates } of seriesOf(calendar)) {
        const start = master && first(master, 'dtstart');
        const seen = new Set<string>();
        for (const date of dates) {
          const id = first(date, 'recurrence-id')!;
          if (start && typeOf(start) !== typeOf(id))
            say(id.line, 'RECURRENCE-ID is of another type than DTSTART of its series.');
          if (seen.has(id.text)) say(id.line, 'Two components stand for the same date of a series.');
          seen.add(id.text);
        }
      }
    },
  },
  {
    section: 'RFC 5545 section 3.8.4.7',
    calendar: (calendar, say) => {
      for (const { others } of seriesOf(calendar))
        for (const { line } of others) say(line, 'Two entries have the same UID.');
    },
  },
  {
    section: 'RFC 5546 section 3.2.1',
    of: ENTRIES,
    component: (component, say, calendar) => {
      const published = first(calendar, 'method')?.text.toUpperCase() === 'PUBLISH';
      const attendee = first(component, 'attendee');
      if (published && attendee) say(attendee.line, 'A published entry has an ATTENDEE.');
    },
  },
  {
    section: 'RFC 5545 section 3.2.19',
    calendar: (calendar, say) => {
      const defined = new Set(zonesOf(calendar).map((z) => first(z, 'tzid')?.text));
      for (const { properties } of calendar.children)
        for (const p of properties) {
          const zone = parameter(p, 'tzid');
          if (zone === undefined) continue;
          if (!defined.has(zone)) say(p.line, `The time zone ${zone.slice(0, 60)} is not defined.`);
          if (p.text.endsWith('Z')) say(p.line, 'A time in UTC has a TZID.');
        }
    },
  },
  {
    section: 'RFC 5545 section 3.6.5',
    of: ['VTIMEZONE'],
    component: (component, say) => {
      exactly(component, 'tzid', say);
      const parts = component.children;
      if (!parts.length) say(component.line, 'VTIMEZONE has neither STANDARD nor DAYLIGHT.');
      for (const part of parts)
        for (const name of ['dtstart', 'tzoffsetfrom', 'tzoffsetto']) exactly(part, name, say);
    },
  },
  {
    section: 'RFC 5545 section 3.6.5',
    weight: 'should',
    calendar: (calendar, say) => {
      const used = new Set(
        calendar.children.flatMap((c) => c.properties.flatMap((p) => parameter(p, 'tzid') ?? [])),
      );
      for (const zone of zonesOf(calendar)) {
        const name = first(zone, 'tzid')?.text;
        // An empty calendar has to have some component: a definition of UTC says nothing that could be wrong.
        if (name !== undefined && name !== 'UTC' && !used.has(name))
          say(zone.line, `The time zone ${name.slice(0, 60)} is defined and not used.`);
      }
    },
  },
  {
    section: 'RFC 5545 section 3.8.2.6',
    of: ['VFREEBUSY'],
    component: (component, say) => {
      for (const p of all(component, 'freebusy'))
        for (const period of p.text.split(','))
          if (!/^\d{8}T\d{6}Z\/(\d{8}T\d{6}Z|P[\dWDTHMS]+)$/.test(period))
            say(p.line, 'A period of FREEBUSY is not in UTC.');
    },
  },
];

/** What has one UID: its series or entry, the dates of it that were changed, and whatever has no right to that UID. */
interface Series {
  readonly master: Component | null;
  readonly dates: readonly Component[];
  readonly others: readonly Component[];
}

function seriesOf(calendar: Component): Series[] {
  const byUid = new Map<string, Component[]>();
  for (const component of calendar.children) {
    const uid = ENTRIES.includes(component.name) ? first(component, 'uid')?.text : undefined;
    if (uid === undefined) continue;
    const own = byUid.get(uid);
    if (own) own.push(component);
    else byUid.set(uid, [component]);
  }
  return [...byUid.values()].map((all) => {
    const [master = null, ...others] = all.filter((c) => !first(c, 'recurrence-id'));
    return { master, dates: all.filter((c) => first(c, 'recurrence-id')), others };
  });
}

function zonesOf(calendar: Component): Component[] {
  return calendar.children.filter((c) => c.name === 'VTIMEZONE');
}

/** So many findings are told; a document with more is bad enough. */
const MOST = 200;

/**
 * Returns what in an iCalendar document is not as RFC 5545, 5546 and 7986 ask, by line; nothing where all is well. Throws
 * `file-not-calendar` or `file-malformed` where it cannot be read at all.
 */
export function lintCalendar(text: string): Finding[] {
  const found: Finding[] = [];
  const sayer =
    ({ section, weight = 'must' as const }: { section: string; weight?: 'must' | 'should' }): Say =>
    (line, say) => {
      if (found.length < MOST) found.push({ line, say, section, weight });
    };
  for (const rule of RULES) rule.text?.(text, sayer(rule));
  for (const calendar of componentsOf(text)) {
    for (const component of [calendar, ...calendar.children])
      for (const note of component.notes) sayer({ section: 'RFC 5545 section 3.1' })(component.line, note);
    for (const rule of RULES) {
      rule.calendar?.(calendar, sayer(rule));
      for (const component of calendar.children)
        if (rule.of?.includes(component.name)) rule.component?.(component, sayer(rule), calendar);
    }
  }
  return found.sort((a, b) => a.line - b.line);
}
