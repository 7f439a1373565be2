import { all, first } from '../read/components';
import { methodOf, word, type Rule } from './finding';

/** What a METHOD asks of one kind of component (RFC 5546 section 3). */
interface Row {
  readonly method: string;
  readonly kind: string;
  readonly section: string;
  readonly needs: readonly string[];
  /** How many of ATTENDEE there are; any number if left out. */
  readonly attendees?: 'none' | 'one' | 'some';
  readonly alarms?: 'none';
}

const EVENT = ['organizer', 'dtstart', 'summary'];
const TASK = ['organizer', 'priority', 'summary'];
const JOURNAL = ['organizer', 'dtstart'];
const TIMES = ['organizer', 'dtstart', 'dtend'];
const ONE = { attendees: 'one', alarms: 'none' } as const;

const ROWS: readonly Row[] = [
  { method: 'PUBLISH', kind: 'VEVENT', section: '3.2.1', needs: EVENT, attendees: 'none' },
  { method: 'REQUEST', kind: 'VEVENT', section: '3.2.2', needs: EVENT, attendees: 'some' },
  { method: 'REPLY', kind: 'VEVENT', section: '3.2.3', needs: ['organizer'], ...ONE },
  { method: 'ADD', kind: 'VEVENT', section: '3.2.4', needs: [...EVENT, 'sequence'], attendees: 'some' },
  { method: 'CANCEL', kind: 'VEVENT', section: '3.2.5', needs: ['organizer', 'sequence'], alarms: 'none' },
  { method: 'REFRESH', kind: 'VEVENT', section: '3.2.6', needs: ['organizer'], ...ONE },
  { method: 'COUNTER', kind: 'VEVENT', section: '3.2.7', needs: [...EVENT, 'sequence'] },
  { method: 'DECLINECOUNTER', kind: 'VEVENT', section: '3.2.8', needs: ['organizer'], alarms: 'none' },
  { method: 'PUBLISH', kind: 'VFREEBUSY', section: '3.3.1', needs: TIMES, attendees: 'none' },
  { method: 'REQUEST', kind: 'VFREEBUSY', section: '3.3.2', needs: TIMES, attendees: 'some' },
  { method: 'REPLY', kind: 'VFREEBUSY', section: '3.3.3', needs: TIMES, attendees: 'one' },
  { method: 'PUBLISH', kind: 'VTODO', section: '3.4.1', needs: [...TASK, 'dtstart'], attendees: 'none' },
  { method: 'REQUEST', kind: 'VTODO', section: '3.4.2', needs: [...TASK, 'dtstart'], attendees: 'some' },
  { method: 'REPLY', kind: 'VTODO', section: '3.4.3', needs: ['organizer'], alarms: 'none' },
  { method: 'ADD', kind: 'VTODO', section: '3.4.4', needs: [...TASK, 'sequence'] },
  { method: 'CANCEL', kind: 'VTODO', section: '3.4.5', needs: ['organizer', 'sequence'], alarms: 'none' },
  { method: 'REFRESH', kind: 'VTODO', section: '3.4.6', needs: [], ...ONE },
  { method: 'COUNTER', kind: 'VTODO', section: '3.4.7', needs: TASK, attendees: 'some' },
  { method: 'DECLINECOUNTER', kind: 'VTODO', section: '3.4.8', needs: ['organizer'], alarms: 'none' },
  { method: 'PUBLISH', kind: 'VJOURNAL', section: '3.5.1', needs: JOURNAL, attendees: 'none' },
  { method: 'ADD', kind: 'VJOURNAL', section: '3.5.2', needs: [...JOURNAL, 'sequence'] },
  { method: 'CANCEL', kind: 'VJOURNAL', section: '3.5.3', needs: ['organizer', 'sequence'], alarms: 'none' },
];

function ruleOf({ method, kind, section, needs, attendees, alarms }: Row): Rule {
  return {
    section: `RFC 5546 section ${section}`,
    of: [kind],
    component: (component, report, { calendar }) => {
      if (methodOf(calendar) !== method) return;
      for (const name of needs)
        if (!first(component, name))
          report(component.line, `${kind} has no ${name.toUpperCase()}, which METHOD ${method} needs.`);
      const invited = all(component, 'attendee');
      if (attendees === 'none' && invited[0])
        report(invited[0].line, `${kind} has an ATTENDEE, which does not go with METHOD ${method}.`);
      if (attendees === 'one' && invited.length !== 1)
        report(component.line, `${kind} does not have exactly one ATTENDEE, which METHOD ${method} needs.`);
      if (attendees === 'some' && !invited.length)
        report(component.line, `${kind} has no ATTENDEE, which METHOD ${method} needs.`);
      const alarm = component.children.find(({ name }) => name === 'VALARM');
      if (alarms === 'none' && alarm) report(alarm.line, `VALARM does not go with METHOD ${method}.`);
      const status = first(component, 'status');
      if (method === 'CANCEL' && status && word(status) !== 'CANCELLED')
        report(status.line, `STATUS of a cancelled ${kind} is not CANCELLED.`);
    },
  };
}

/** What is asked where a calendar says what programs are to do with it. */
export const METHOD_RULES: readonly Rule[] = [
  {
    section: 'RFC 5546 section 1.4',
    calendar: (calendar, report) => {
      const method = methodOf(calendar);
      if (method === undefined) return;
      const kinds = ROWS.filter((row) => row.method === method).map(({ kind }) => kind);
      if (!kinds.length)
        return report(first(calendar, 'method')!.line, `There is no METHOD ${method.slice(0, 40)}.`);
      for (const { name, line } of calendar.children)
        if (name !== 'VTIMEZONE' && !kinds.includes(name))
          report(line, `${name} does not go with METHOD ${method}.`);
    },
  },
  {
    section: 'RFC 5546 section 3.1',
    calendar: (calendar, report) => {
      if (methodOf(calendar) === undefined) return;
      const [leading, ...others] = calendar.children.filter(({ name }) => name !== 'VTIMEZONE');
      for (const { name, line } of others)
        if (name !== leading!.name) report(line, `METHOD is for ${leading!.name} and ${name} at once.`);
    },
  },
  ...ROWS.map(ruleOf),
];
