import {
  ENTRY_FIELDS,
  ruleWords,
  type Content,
  type Override,
  type Recurrence,
  type SaidField,
  type Shape,
  type ShapeValues,
  type When,
} from '../entries';
import type { OutwardField } from '../glass';
import { whenWords, zoneText } from './page/words';

const same = (value: string) => value;

const TEXTS: { readonly [S in Exclude<Shape, 'choice'>]: (value: ShapeValues[S]) => string } = {
  line: same,
  text: same,
  link: same,
  labels: (v) => v.join('; '),
  people: (v) => v.map((p) => withDetail(p.name, p.address)).join('; '),
  attachments: (v) => v.map((a) => withDetail(a.name, a.href)).join('; '),
  properties: (v) => v.map((p) => withDetail(p.name, p.value)).join('; '),
  moment: (v) => (v ? momentText(v) : ''),
  kept: (v) => v.map((k) => JSON.stringify(k)).join('; '),
};

function withDetail(name: string, detail: string): string {
  return detail ? `${name} (${detail})` : name;
}

function momentText(when: When): string {
  return whenWords(when) + (when.kind === 'zoned' ? ` ${zoneText(when.zone)}` : '');
}

function recurrenceText({ rule, dates, exceptDates }: Recurrence): string {
  return [
    rule && ruleWords(rule),
    ...dates.map((d) => whenWords(d)),
    exceptDates.length && `not on ${exceptDates.map((d) => whenWords(d)).join(', ')}`,
  ]
    .filter(Boolean)
    .join(', ');
}

function overrideText({ slot, start, content }: Override): string {
  return `${whenWords(slot)} → ${whenWords(start)} ${content.title}`;
}

/** Returns what an entry says in a field as people read it; nothing said is an empty text. */
export function fieldText(field: SaidField | OutwardField, value: unknown): string {
  if (value === null || value === undefined) return '';
  if (field === 'calendar') return String(value);
  if (field === 'start' || field === 'end') return momentText(value as When);
  if (field === 'recurrence') return recurrenceText(value as Recurrence);
  if (field === 'overrides') return (value as readonly Override[]).map(overrideText).join('; ');
  return contentText(field, value);
}

function contentText(field: keyof Content, value: unknown): string {
  const home = ENTRY_FIELDS[field];
  if (home.shape === 'choice') return (home.of as Readonly<Record<string, string>>)[value as string] ?? '';
  return (TEXTS[home.shape] as (v: unknown) => string)(value);
}
