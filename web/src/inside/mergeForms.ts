import { canonical, fieldsApart, type Entry } from '@zonal/core/entries';
import type { EntryInput } from '@zonal/core/api';
import type { EntryForm } from './entryForm';
import { fieldWord } from '../texts/entryWords';
import { fieldText } from '../texts/formWords';

type FormField = keyof EntryForm;
type EntryField = ReturnType<typeof fieldsApart>[number];

/** Form fields that only make sense together, by the entry's fields that they make. All others stand for themselves. */
const TOGETHER: readonly { readonly form: readonly FormField[]; readonly entry: readonly EntryField[] }[] = [
  { form: ['clock', 'zone', 'startDate', 'startTime', 'endDate', 'endTime'], entry: ['start', 'end'] },
  { form: ['recurs', 'interval', 'weekdays', 'end', 'until', 'count'], entry: ['recurrence'] },
  { form: ['plannedDate', 'plannedTime'], entry: ['planned'] },
];

/** Something that two people changed differently: its fields in the form, and in the entry that the form makes. */
export interface Dispute {
  readonly form: readonly FormField[];
  readonly entry: readonly EntryField[];
}

export interface MergedForm {
  /** What either of the two changed; where both changed the same, what is mine. */
  readonly form: EntryForm;
  readonly disputes: readonly Dispute[];
}

/** Merges two forms that were both made from `base`, field by field. */
export function mergeForms(base: EntryForm, mine: EntryForm, theirs: EntryForm): MergedForm {
  const grouped = new Set(TOGETHER.flatMap(({ form }) => form));
  const alone = (Object.keys(base) as FormField[])
    .filter((field) => !grouped.has(field))
    .map((field): Dispute => ({ form: [field], entry: [field as EntryField] }));
  const merged = { ...theirs };
  const disputes: Dispute[] = [];
  for (const group of [...TOGETHER, ...alone]) {
    if (isSame(group, base, mine)) continue;
    takeFields(merged, mine, group);
    if (!isSame(group, base, theirs) && !isSame(group, mine, theirs)) disputes.push(group);
  }
  return { form: merged, disputes };
}

/** Returns a form with some disputed fields as they are in another one. */
export function withFields(form: EntryForm, from: EntryForm, disputes: readonly Dispute[]): EntryForm {
  const next = { ...form };
  for (const dispute of disputes) takeFields(next, from, dispute);
  return next;
}

function isSame({ form }: Dispute, a: EntryForm, b: EntryForm): boolean {
  return form.every((field) => canonical(a[field]) === canonical(b[field]));
}

function takeFields(to: EntryForm, from: EntryForm, { form }: Dispute): void {
  for (const field of form) Object.assign(to, { [field]: from[field] });
}

/** Returns the names of the fields in which two versions of an entry differ. */
export function changedFieldWords(before: Entry, after: Entry): string[] {
  return fieldsApart(before, after).map(fieldWord);
}

/** Returns a dispute in words: what it is about, and both versions as text. */
export function disputeWords({ entry }: Dispute, mine: EntryInput, theirs: Entry) {
  const text = (version: EntryInput) =>
    entry
      .map((field) => fieldText(field, version[field]))
      .filter(Boolean)
      .join(' – ') || 'nothing';
  return { about: entry.map(fieldWord).join(' and '), mine: text(mine), theirs: text(theirs) };
}
