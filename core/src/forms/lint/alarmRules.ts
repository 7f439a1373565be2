import { all, first, parameter } from '../read/components';
import { atMostOne, exactlyOne, momentKind, quoted, valueTypeOf, word, type Rule } from './finding';

/** Properties that an alarm of each kind needs exactly once, besides ACTION and TRIGGER (RFC 5545 section 3.6.6). */
const NEEDED: Readonly<Record<string, readonly string[]>> = {
  AUDIO: [],
  DISPLAY: ['description'],
  EMAIL: ['description', 'summary'],
};

/** What is asked of alarms. */
export const ALARM_RULES: readonly Rule[] = [
  {
    section: 'RFC 5545 section 3.6.6',
    of: ['VALARM'],
    component: (alarm, report) => {
      const action = word(exactlyOne(alarm, 'action', report));
      exactlyOne(alarm, 'trigger', report);
      for (const name of ['duration', 'repeat']) atMostOne(alarm, name, report);
      if (!first(alarm, 'duration') !== !first(alarm, 'repeat'))
        report(alarm.line, 'VALARM has only one of DURATION and REPEAT.');
      for (const name of (action && NEEDED[action]) || []) exactlyOne(alarm, name, report);
      if (action === 'EMAIL' && !first(alarm, 'attendee'))
        report(alarm.line, 'VALARM that sends a mail has no ATTENDEE.');
      if (action === 'AUDIO') atMostOne(alarm, 'attach', report);
    },
  },
  {
    section: 'RFC 5545 section 3.8.6.3',
    of: ['VALARM'],
    component: (alarm, report, { parent }) => {
      for (const trigger of all(alarm, 'trigger')) {
        const isMoment = valueTypeOf(trigger) === 'DATE-TIME';
        const related = parameter(trigger, 'related')?.toUpperCase();
        if (isMoment && momentKind(trigger) !== 'utc')
          report(trigger.line, `TRIGGER ${quoted(trigger.text)} is not in UTC.`);
        if (isMoment && related) report(trigger.line, 'TRIGGER at a moment has RELATED.');
        if (isMoment) continue;
        const has = (...names: string[]) => names.some((name) => first(parent, name));
        if (related === 'END' && !has('dtend', 'due', 'duration'))
          report(trigger.line, `TRIGGER counts from the end, which ${parent.name} does not have.`);
        if (related !== 'END' && !has('dtstart') && !(parent.name === 'VTODO' && has('due')))
          report(trigger.line, `TRIGGER counts from the start, which ${parent.name} does not have.`);
      }
    },
  },
];
