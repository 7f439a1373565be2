import { ruleFromText } from '../../entries';
import { Problem } from '../../problems';
import { all, first, type Property } from '../read/components';
import { entriesByUid } from './entryRules';
import { ENTRIES, momentKind, valueTypeOf, type Rule } from './finding';

/** How UNTIL is written for each kind of start. */
const UNTIL = { date: /^\d{8}$/, floating: /^\d{8}T\d{6}$/, utc: /Z$/i, zoned: /Z$/i };

const isPeriod = (p: Property) => valueTypeOf(p) === 'PERIOD';

/** What is asked of rules, of dates that are added or left out, and of dates that were changed. */
export const RECURRENCE_RULES: readonly Rule[] = [
  {
    section: 'RFC 5545 section 3.3.10',
    of: [...ENTRIES, 'STANDARD', 'DAYLIGHT'],
    component: (component, report) => {
      const rules = all(component, 'rrule');
      if (rules.length > 1) report(rules[1]!.line, `${component.name} has more than one RRULE.`);
      const start = first(component, 'dtstart');
      for (const p of rules) {
        if (!start) report(p.line, `${component.name} recurs and has no DTSTART.`);
        if (/COUNT=/i.test(p.text) && /UNTIL=/i.test(p.text))
          report(p.line, 'RRULE has both COUNT and UNTIL.');
        const until = /UNTIL=([^;]+)/i.exec(p.text)?.[1];
        if (until && start && ENTRIES.includes(component.name) && !UNTIL[momentKind(start)].test(until))
          report(p.line, 'UNTIL is of another type than DTSTART asks for.');
        try {
          ruleFromText(p.text);
        } catch (error) {
          if (!(error instanceof Problem)) throw error;
          report(p.line, error.message);
        }
      }
    },
  },
  {
    section: 'RFC 5545 section 3.8.5.1',
    of: ENTRIES,
    component: (component, report) => {
      const start = first(component, 'dtstart');
      for (const name of ['exdate', 'rdate'])
        for (const p of all(component, name)) {
          if (!start) {
            report(p.line, `${component.name} has ${name.toUpperCase()} and no DTSTART.`);
            continue;
          }
          if (isPeriod(p)) continue;
          for (const text of p.text.split(','))
            if ((momentKind({ ...p, text }) === 'date') !== (momentKind(start) === 'date'))
              report(p.line, `${name.toUpperCase()} is of another type than DTSTART.`);
        }
    },
  },
  {
    section: 'RFC 5545 section 3.8.5.1',
    weight: 'should',
    of: ENTRIES,
    component: (component, report) => {
      const left = first(component, 'exdate');
      if (left && !first(component, 'rrule') && !first(component, 'rdate'))
        report(left.line, `${component.name} leaves out a date and does not recur.`);
    },
  },
  {
    section: 'RFC 5545 section 3.8.5.3',
    of: ENTRIES,
    component: (component, report) => {
      const rule = first(component, 'rrule');
      if (rule && first(component, 'recurrence-id')) report(rule.line, 'One date of a series has a rule.');
    },
  },
  {
    section: 'RFC 5545 section 3.8.4.4',
    calendar: (calendar, report) => {
      for (const { master, dates } of entriesByUid(calendar)) {
        const start = master && first(master, 'dtstart');
        const recurs = master && ['rrule', 'rdate'].some((name) => first(master, name));
        const seen = new Set<string>();
        for (const date of dates) {
          const id = first(date, 'recurrence-id')!;
          if (start && (momentKind(start) === 'date') !== (momentKind(id) === 'date'))
            report(id.line, 'RECURRENCE-ID is of another type than DTSTART of its series.');
          if (master && !recurs) report(id.line, 'RECURRENCE-ID is of an entry that does not recur.');
          if (seen.has(id.text)) report(id.line, 'Two components stand for the same date of a series.');
          seen.add(id.text);
        }
      }
    },
  },
];
