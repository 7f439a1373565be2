import { expandRule, ruleFromText } from '@zonal/core/entries';
import ICAL from 'ical.js';
import rrulePackage from 'rrule';
import type { Figure } from './figure';
import { medianTime } from './timing';

const { RRule } = rrulePackage;
const START = Date.UTC(2020, 0, 6, 9);
const FROM = Date.UTC(2026, 0, 1);
const TO = Date.UTC(2027, 0, 1);

const RULES = [
  'FREQ=DAILY',
  'FREQ=DAILY;INTERVAL=3',
  'FREQ=WEEKLY;BYDAY=MO,WE,FR',
  'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO',
  'FREQ=MONTHLY;BYMONTHDAY=6',
  'FREQ=MONTHLY;BYDAY=1MO',
  'FREQ=YEARLY;BYMONTH=1;BYDAY=1MO',
];

/** Expands one year of rules that began six years before, as a window does. */
export function expansionFigures(): Figure[] {
  const rounds = 40;
  const ours = medianTime(() => {
    for (let i = 0; i < rounds; i++)
      for (const text of RULES) expandRule(ruleFromText(text), START, FROM, TO);
  });
  const parsed = RULES.map(
    (text) => new RRule({ ...RRule.parseString(text), dtstart: new Date(START) }, true),
  );
  const rrule = medianTime(() => {
    for (let i = 0; i < rounds; i++)
      for (const rule of parsed) rule.between(new Date(FROM), new Date(TO - 1), true);
  });
  const recurs = RULES.map((text) => ICAL.Recur.fromString(text));
  const start = ICAL.Time.fromDateTimeString('2020-01-06T09:00:00');
  const end = ICAL.Time.fromDateTimeString('2027-01-01T00:00:00');
  const ical = medianTime(() => {
    for (let i = 0; i < rounds; i++) {
      for (const recur of recurs) {
        const iterator = recur.iterator(start);
        for (let t = iterator.next(); t && t.compare(end) < 0; t = iterator.next());
      }
    }
  });
  const best = Math.min(rrule, ical);
  return [
    {
      what: 'expanding recurrences, speed against the faster of rrule and ical.js',
      measured: `ours ${ours.toFixed(1)} ms, rrule ${rrule.toFixed(1)} ms, ical.js ${ical.toFixed(1)} ms`,
      ratio: best / ours,
      budget: '≥ 1',
      kept: best / ours >= 1,
    },
  ];
}
