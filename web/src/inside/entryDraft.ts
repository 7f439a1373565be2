import type { Entry, Scope, When } from '@zonal/core/entries';
import type { Calendar } from '@zonal/core/api';
import { carryOver, formFor, type DateOf } from './entryEdit';
import { blankForm, type EntryForm } from './entryForm';

/** An entry that is there with the date that was opened, or a new one with some of its form filled. */
export type Editing =
  | { readonly entry: Entry; readonly date: DateOf }
  | { readonly calendarId: string; readonly day: number; readonly form?: Partial<EntryForm> };

/** An entry as it is being edited. */
export interface EntryDraft {
  /** As it was opened, or as somebody else has left it since; null for a new one. */
  readonly before: Entry | null;
  readonly calendarId: string;
  /** The date of a series that was opened, and which of its dates are meant. */
  readonly slot: When | null;
  readonly scope: Scope;
  /** The form as it stood before anything was typed. */
  readonly blank: EntryForm;
  readonly form: EntryForm;
}

export type DraftAction =
  | { readonly type: 'typed'; readonly part: Partial<EntryForm> }
  | { readonly type: 'moved'; readonly calendarId: string }
  | { readonly type: 'meant'; readonly scope: Scope; readonly calendar: Calendar }
  /** Somebody else has saved the entry meanwhile: what was typed is merged with that. */
  | {
      readonly type: 'merged';
      readonly entry: Entry;
      /** The form of the entry as they saved it. */
      readonly blank: EntryForm;
      readonly form: EntryForm;
    };

/** Returns the draft that editing starts with. */
export function startDraft(editing: Editing, calendars: readonly Calendar[]): EntryDraft {
  const before = 'entry' in editing ? editing.entry : null;
  const calendarId = 'entry' in editing ? editing.entry.calendarId : editing.calendarId;
  const calendar = calendars.find((c) => c.id === calendarId)!;
  const slot = 'entry' in editing && editing.entry.recurrence ? editing.date.slot : null;
  const form =
    'entry' in editing
      ? formFor(editing.entry, slot, 'this', calendar)
      : { ...blankForm(calendar.zone, editing.day), ...editing.form };
  return { before, calendarId, slot, scope: 'this', blank: form, form };
}

export function entryDraft(draft: EntryDraft, action: DraftAction): EntryDraft {
  switch (action.type) {
    case 'typed':
      return { ...draft, form: { ...draft.form, ...action.part } };
    case 'moved':
      return { ...draft, calendarId: action.calendarId };
    case 'meant': {
      const { before, slot, form, blank } = draft;
      if (!before) return draft;
      const fresh = formFor(before, slot, action.scope, action.calendar);
      return { ...draft, scope: action.scope, form: carryOver(form, blank, fresh), blank: fresh };
    }
    case 'merged': {
      const slot = action.entry.recurrence ? draft.slot : null;
      return { ...draft, before: action.entry, slot, form: action.form, blank: action.blank };
    }
  }
}
