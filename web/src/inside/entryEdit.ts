import {
  changeDate,
  changeOnward,
  contentOf,
  cutSeries,
  occurrencesOf,
  skipDate,
  usualAt,
  wallOf,
  type AtDate,
  type Entry,
  type Occurrence,
  type Scope,
  type When,
} from '@zonal/core/entries';
import { DAY, dayOfWall, instantOf, dayAt } from '@zonal/core/zones';
import type { Calendar, EntryChange } from '@zonal/core/api';
import { adding, atDate, replacing, splitting } from './changes';
import { formOf, inputOf, type EntryForm } from './entryForm';
import { t } from '../texts/inside';
import { dayText } from '../texts/formWords';

/** What is to be stored: an entry in place of itself, or a series cut in two. */
export type Result =
  | { readonly kind: 'entry'; readonly entry: Entry }
  | { readonly kind: 'split'; readonly before: Entry; readonly from: Entry };

/** Returns the form for the dates that are meant; without a slot it is that of the whole entry. */
export function formFor(entry: Entry, slot: When | null, scope: Scope, calendar: Calendar): EntryForm {
  if (!slot || scope === 'all') return formOf(entry, calendar.zone);
  const { start, end, content } = scope === 'this' ? atDate(entry, slot) : usualAt(entry, slot);
  return formOf({ ...entry, ...content, start, end }, calendar.zone);
}

/** Returns a form with what was changed in another one, so that nothing typed is lost when other dates are meant. */
export function carryOver(from: EntryForm, blank: EntryForm, to: EntryForm): EntryForm {
  const changed = Object.entries(from).filter(([key, value]) => value !== blank[key as keyof EntryForm]);
  return { ...to, ...(Object.fromEntries(changed) as Partial<EntryForm>) };
}

/** Returns what a form makes of an entry for the dates that are meant. Throws what is wrong with the form. */
export function resultOf(form: EntryForm, entry: Entry, slot: When | null, scope: Scope): Result {
  if (!slot || scope === 'all')
    return { kind: 'entry', entry: { ...entry, ...inputOf(form, entry) } as Entry };
  const base = { ...entry, ...atDate(entry, slot).content, recurrence: null, overrides: [] };
  const { start, end, ...rest } = inputOf({ ...form, recurs: 'once' }, base);
  const edited: AtDate = { start, end, content: contentOf(rest) };
  if (scope === 'this') return { kind: 'entry', entry: changeDate(entry, slot, edited) };
  const { before, from } = changeOnward(entry, slot, edited);
  return before ? { kind: 'split', before, from } : { kind: 'entry', entry: from };
}

/** Returns the changes that store a result, in its calendar or in another one. */
export function changesOf(
  result: Result,
  before: Entry,
  slot: When | null,
  scope: Scope,
  to: Calendar,
): EntryChange[] {
  const same = to.id === before.calendarId;
  if (result.kind === 'split') {
    const [first, second] = splitting(before, result);
    return [first!, { ...second!, calendarId: to.id }];
  }
  if (same || !slot || scope !== 'this') return [replacing(result.entry, to.id)];
  // One date goes to another calendar: it leaves the series and stands by itself.
  const at = atDate(result.entry, slot);
  const own = { ...contentOf(at.content), start: at.start, end: at.end, recurrence: null, overrides: [] };
  return [replacing(skipDate(before, slot, to.zone)), adding(to.id, own, before.id)];
}

/** Says which dates an edit is meant for, and how many of them lie in the next two years. */
export function effectWords(entry: Entry, slot: When, scope: Scope, calendar: Calendar, now: number): string {
  const from = dayAt(calendar.zone, now);
  const range = {
    from: instantOf(calendar.zone, (from - 731) * DAY),
    to: instantOf(calendar.zone, (from + 731) * DAY),
  };
  const count = (e: Entry | null) => (e ? occurrencesOf(e, range, calendar.zone).length : 0);
  const day = dayText(dayOfWall(wallOf(slot)));
  if (scope === 'this') return t('changesOne', { day });
  const { before, from: later } = cutSeries(entry, slot);
  if (scope === 'onward') {
    return t('changesOnward', { day, later: count(later), stay: count(before) });
  }
  return t('changesAll', { count: count(entry) });
}

export type DateOf = Pick<Occurrence, 'slot'>;
