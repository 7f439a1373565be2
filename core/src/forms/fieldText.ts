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
import type { InsideLanguage } from '../texts/languages';
import { HOLD_DE, KIND_DE, SHOWS_DE, STATUS_DE } from '../words/german';
import { insideTexts } from '../words/texts';

const same = (value: string) => value;

const TEXTS: {
  readonly [S in Exclude<Shape, 'choice'>]: (value: ShapeValues[S], language: InsideLanguage) => string;
} = {
  line: same,
  text: same,
  link: same,
  labels: (v) => v.join('; '),
  people: (v) => v.map((p) => withDetail(p.name, p.address)).join('; '),
  attachments: (v) => v.map((a) => withDetail(a.name, a.href)).join('; '),
  properties: (v) => v.map((p) => withDetail(p.name, p.value)).join('; '),
  image: (v) => v?.alt ?? '',
  moment: (v, language) => (v ? momentText(v, language) : ''),
  kept: (v) => v.map((k) => JSON.stringify(k)).join('; '),
};

function withDetail(name: string, detail: string): string {
  return detail ? `${name} (${detail})` : name;
}

function momentText(when: When, language: InsideLanguage): string {
  return whenWords(when, undefined, language) + (when.kind === 'zoned' ? ` ${zoneText(when.zone)}` : '');
}

function recurrenceText({ rule, dates, exceptDates }: Recurrence, language: InsideLanguage): string {
  const days = (list: readonly When[]) => list.map((d) => whenWords(d, undefined, language));
  return [
    rule && ruleWords(rule, language),
    ...days(dates),
    exceptDates.length && insideTexts(language)('notOn', { days: days(exceptDates).join(', ') }),
  ]
    .filter(Boolean)
    .join(', ');
}

function overrideText({ slot, start, content }: Override, language: InsideLanguage): string {
  const [from, to] = [slot, start].map((when) => whenWords(when, undefined, language));
  return `${from} → ${to} ${content.title}`;
}

/** Returns what an entry says in a field as people read it; nothing said is an empty text. */
export function fieldText(
  field: SaidField | OutwardField,
  value: unknown,
  language: InsideLanguage = 'en',
): string {
  if (value === null || value === undefined) return '';
  if (field === 'calendar') return String(value);
  if (field === 'start' || field === 'end') return momentText(value as When, language);
  if (field === 'recurrence') return recurrenceText(value as Recurrence, language);
  if (field === 'overrides')
    return (value as readonly Override[]).map((o) => overrideText(o, language)).join('; ');
  const home = ENTRY_FIELDS[field];
  if (home.shape === 'choice') return choiceText(field, value as string, language);
  return (TEXTS[home.shape] as (v: unknown, language: InsideLanguage) => string)(value, language);
}

/** What can be chosen in a field, in German. */
const CHOICES_DE: Readonly<Record<string, Readonly<Record<string, string | { readonly word: string }>>>> = {
  kind: KIND_DE,
  status: STATUS_DE,
  shows: SHOWS_DE,
  hold: HOLD_DE,
};

function choiceText(field: keyof Content, value: string, language: InsideLanguage): string {
  const home = ENTRY_FIELDS[field];
  const english = home.shape === 'choice' ? (home.of as Readonly<Record<string, string>>)[value] : undefined;
  const word = (language === 'de' && CHOICES_DE[field]?.[value]) || english || '';
  return typeof word === 'string' ? word : word.word;
}
