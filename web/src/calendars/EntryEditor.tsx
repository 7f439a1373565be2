import { checkRecurrence, checkSpan, type Entry, type Scope, type When } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import type { Day } from '@zonal/core/zones';
import { Trash2 } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import {
  problemOf,
  useAddEntryMutation,
  useDeleteEntryMutation,
  useSaveEntryMutation,
  useSplitEntryMutation,
} from '../api/zonalApi';
import type { Calendar, EntryInput } from '../api/types';
import { Button, MainButton } from '../ui/Button';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Faded, Pair, Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Sheet } from '../ui/Sheet';
import { useNow } from '../ui/useNow';
import { Conflict } from './Conflict';
import { carryOver, effectWords, formFor, resultOf, withoutDates, type DateOf } from './entryEdit';
import { blankForm, inputOf, type EntryForm } from './entryForm';
import { RecurrenceFields } from './RecurrenceFields';
import { TimeFields } from './TimeFields';

/** An entry that is there with the date that was opened, or a new one on a day. */
export type Editing =
  { readonly entry: Entry; readonly date: DateOf } | { readonly calendarId: string; readonly day: Day };

interface EntryEditorProps {
  calendars: readonly Calendar[];
  editing: Editing;
  onClose: () => void;
}

export function EntryEditor({ calendars, editing, onClose }: EntryEditorProps) {
  const opened = 'entry' in editing ? editing.entry : null;
  const [before, setBefore] = useState(opened);
  const [calendarId, setCalendarId] = useState(
    'entry' in editing ? editing.entry.calendarId : editing.calendarId,
  );
  const calendar = calendars.find((c) => c.id === calendarId)!;
  const slot = 'entry' in editing && before?.recurrence ? editing.date.slot : null;
  const [scope, setScope] = useState<Scope>('this');
  const [blank, setBlank] = useState<EntryForm>(() =>
    'entry' in editing
      ? formFor(editing.entry, slot, 'this', calendar)
      : blankForm(calendar.zone, editing.day),
  );
  const [form, setForm] = useState(blank);
  const now = useNow();
  const [add, adding] = useAddEntryMutation();
  const [save, saving] = useSaveEntryMutation();
  const [split, splitting] = useSplitEntryMutation();
  const [remove, removing] = useDeleteEntryMutation();
  const [wrong, setWrong] = useState<string | null>(null);
  const problem = problemOf(adding.error ?? saving.error ?? splitting.error ?? removing.error);
  const conflict = problem?.code === 'version-conflict' ? (problem.details['current'] as Entry) : null;
  const set = (part: Partial<EntryForm>) => setForm((f) => ({ ...f, ...part }));
  const many = !!slot && scope !== 'all';

  /** Runs a step that may be refused by the core; says why, and then returns null. */
  const attempt = <T,>(work: () => T): T | null => {
    try {
      const done = work();
      setWrong(null);
      return done;
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      setWrong(error.message);
      return null;
    }
  };

  const sendNew = async () => {
    const entry = attempt(() => checked(inputOf(form, null)));
    if (entry && !(await add({ calendarId, entry })).error) onClose();
  };

  /** Stores the form as a change of `base`: the entry as it was opened, or as somebody else has left it. */
  const sendChange = async (base: Entry) => {
    const result = attempt(() => {
      const made = resultOf(form, base, slot, scope);
      if (made.kind === 'entry') checked(made.entry);
      else [made.before, made.from].forEach(checked);
      return made;
    });
    if (!result) return;
    const answer =
      result.kind === 'entry'
        ? await save({ id: base.id, entry: { ...result.entry, version: base.version } })
        : await split({ version: base.version, before: result.before, from: result.from });
    if (!answer.error) onClose();
  };

  const submit = (event: FormEvent) => {
    event.preventDefault();
    void (before ? sendChange(before) : sendNew());
  };

  const sendRemoval = async (entry: Entry) => {
    const { id, version } = entry;
    if (!slot || scope === 'all') {
      if (!(await remove({ id, version })).error) onClose();
      return;
    }
    const rest = attempt(() => ({ entry: withoutDates(entry, slot, scope, calendar) }));
    if (!rest) return;
    const answer = rest.entry
      ? await save({ id, entry: { ...rest.entry, version } })
      : await remove({ id, version });
    if (!answer.error) onClose();
  };

  const startFrom = (entry: Entry | null, next: Scope, keep: boolean) => {
    if (!entry) return;
    const fresh = formFor(entry, slot, next, calendar);
    setForm(keep ? carryOver(form, blank, fresh) : fresh);
    setBlank(fresh);
  };

  const takeTheirs = (current: Entry) => {
    setBefore(current);
    startFrom(current, scope, false);
    [saving, splitting, removing].forEach((call) => call.reset());
  };

  return (
    <Sheet title={before ? before.title || 'Untitled entry' : 'New entry'} onClose={onClose}>
      <form onSubmit={submit}>
        <Stack>
          {wrong && <Notice>{wrong}</Notice>}
          {problem && !conflict && <Notice>{problem.message}</Notice>}
          {conflict && before && (
            <Conflict
              mine={mineOf(form, before, slot, scope)}
              theirs={conflict}
              onTheirs={() => takeTheirs(conflict)}
              onMine={() => void sendChange(conflict)}
            />
          )}
          {before && slot && (
            <div>
              <ChoiceStrip
                label="Dates meant"
                value={scope}
                options={[
                  { value: 'this', text: 'Only this date' },
                  { value: 'onward', text: 'From here on' },
                  { value: 'all', text: 'All dates' },
                ]}
                onChange={(next) => {
                  setScope(next);
                  startFrom(before, next, true);
                }}
              />
              <Faded role="status">{effectWords(before, slot, scope, calendar, now)}</Faded>
            </div>
          )}
          {!before && (
            <SelectOne
              label="Calendar"
              value={calendarId}
              options={calendars.map((c) => ({ value: c.id, text: `${c.plate} ${c.name}` }))}
              onChange={setCalendarId}
            />
          )}
          <Field
            label="Title"
            value={form.title}
            onChange={(title) => set({ title })}
            autoFocus
            maxLength={500}
          />
          <TimeFields form={form} set={set} />
          {!many && <RecurrenceFields form={form} before={before} set={set} />}
          <Field label="Place" value={form.place} onChange={(place) => set({ place })} maxLength={500} />
          <Field
            label="Description"
            value={form.description}
            onChange={(description) => set({ description })}
            lines
          />
          <Pair>
            <Field
              label="Labels, with commas between"
              value={form.labels}
              onChange={(labels) => set({ labels })}
            />
            <Field label="Contact" value={form.contact} onChange={(contact) => set({ contact })} />
            <Field
              label="Public link"
              type="url"
              value={form.publicLink}
              onChange={(publicLink) => set({ publicLink })}
            />
            <Field
              label="Joining link"
              type="url"
              value={form.joinLink}
              onChange={(joinLink) => set({ joinLink })}
            />
            <SelectOne
              label="Status"
              value={form.status}
              options={[
                { value: 'confirmed', text: 'Confirmed' },
                { value: 'tentative', text: 'Tentative' },
                { value: 'cancelled', text: 'Cancelled' },
              ]}
              onChange={(status) => set({ status })}
            />
            <SelectOne
              label="Time counts as"
              value={form.shows}
              options={[
                { value: 'busy', text: 'Busy' },
                { value: 'free', text: 'Free' },
              ]}
              onChange={(shows) => set({ shows })}
            />
          </Pair>
          <div>
            <ChoiceStrip
              label="Hold"
              value={form.hold}
              options={[
                { value: 'none', text: 'No hold' },
                { value: 'frost', text: 'Frost it' },
                { value: 'keep-in', text: 'Keep in' },
              ]}
              onChange={(hold) => set({ hold })}
            />
            <Faded>{HOLD_HELP[form.hold]}</Faded>
          </div>
          <Row>
            <MainButton
              type="submit"
              isDisabled={adding.isLoading || saving.isLoading || splitting.isLoading}
            >
              {before ? 'Save' : 'Write the entry'}
            </MainButton>
            <Button onPress={onClose}>Leave without saving</Button>
            {before && (
              <Button onPress={() => void sendRemoval(before)}>
                <Trash2 aria-hidden="true" /> {slot ? REMOVAL_WORDS[scope] : 'Delete'}
              </Button>
            )}
          </Row>
          {before && <Faded>{keptWords(before)}</Faded>}
        </Stack>
      </form>
    </Sheet>
  );
}

const REMOVAL_WORDS: Record<Scope, string> = {
  this: 'Skip this date',
  onward: 'End the series before this date',
  all: 'Delete all dates',
};

/** Returns the entry when its times and its recurrence can be; throws what is wrong with them. */
function checked<T extends EntryInput>(entry: T): T {
  checkSpan(entry.start, entry.end);
  checkRecurrence(entry);
  return entry;
}

/** Returns this side of a conflict: what would have been stored. */
function mineOf(form: EntryForm, entry: Entry, slot: When | null, scope: Scope): EntryInput {
  const result = resultOf(form, entry, slot, scope);
  return result.kind === 'entry' ? result.entry : result.from;
}

const HOLD_HELP = {
  none: 'Windows decide how much of this entry is seen outside.',
  frost: 'Outside, never more than busy time is seen, whatever a window says.',
  'keep-in': 'This entry never leaves, whatever a window says.',
} as const;

/** Says what belongs to an entry and is not in the form. */
function keptWords(entry: Entry): string {
  const parts = [
    entry.people.length && `${entry.people.length} people`,
    entry.attachments.length && `${entry.attachments.length} attachments`,
    entry.overrides.length && `${entry.overrides.length} dates changed by themselves`,
    entry.recurrence?.exceptDates.length && `${entry.recurrence.exceptDates.length} dates left out`,
    entry.kept.length && `${entry.kept.length} further properties of its file`,
  ].filter(Boolean);
  return parts.length ? `Also kept with it: ${parts.join(', ')}.` : '';
}
