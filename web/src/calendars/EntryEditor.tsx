import { checkRecurrence, checkSpan, type Entry } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import type { Day } from '@zonal/core/zones';
import { Trash2 } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import {
  problemOf,
  useAddEntryMutation,
  useDeleteEntryMutation,
  useSaveEntryMutation,
} from '../api/zonalApi';
import type { Calendar, EntryInput } from '../api/types';
import { Button, MainButton } from '../ui/Button';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Faded, Pair, Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Sheet } from '../ui/Sheet';
import { Conflict } from './Conflict';
import { blankForm, formOf, inputOf, type EntryForm } from './entryForm';
import { RecurrenceFields } from './RecurrenceFields';
import { TimeFields } from './TimeFields';

/** An entry that is there, or a new one on a day. */
export type Editing = { readonly entry: Entry } | { readonly calendarId: string; readonly day: Day };

interface EntryEditorProps {
  calendars: readonly Calendar[];
  editing: Editing;
  onClose: () => void;
}

export function EntryEditor({ calendars, editing, onClose }: EntryEditorProps) {
  const [before, setBefore] = useState('entry' in editing ? editing.entry : null);
  const [calendarId, setCalendarId] = useState(
    'entry' in editing ? editing.entry.calendarId : editing.calendarId,
  );
  const calendar = calendars.find((c) => c.id === calendarId)!;
  const [form, setForm] = useState<EntryForm>(() =>
    'entry' in editing ? formOf(editing.entry, calendar) : blankForm(calendar, editing.day),
  );
  const [add, adding] = useAddEntryMutation();
  const [save, saving] = useSaveEntryMutation();
  const [remove, removing] = useDeleteEntryMutation();
  const [wrong, setWrong] = useState<string | null>(null);
  const problem = problemOf(adding.error ?? saving.error ?? removing.error);
  const conflict = problem?.code === 'version-conflict' ? (problem.details['current'] as Entry) : null;
  const set = (part: Partial<EntryForm>) => setForm((f) => ({ ...f, ...part }));

  const send = async (version: number | undefined) => {
    let entry: EntryInput;
    try {
      entry = inputOf(form, before);
      checkSpan(entry.start, entry.end);
      checkRecurrence(entry);
      setWrong(null);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      setWrong(error.message);
      return;
    }
    const result =
      before && version !== undefined
        ? await save({ id: before.id, entry: { ...entry, version } })
        : await add({ calendarId, entry });
    if (!result.error) onClose();
  };

  const submit = (event: FormEvent) => {
    event.preventDefault();
    void send(before?.version);
  };

  const takeTheirs = (current: Entry) => {
    setBefore(current);
    setForm(formOf(current, calendar));
    saving.reset();
    removing.reset();
  };

  return (
    <Sheet title={before ? before.title || 'Untitled entry' : 'New entry'} onClose={onClose}>
      <form onSubmit={submit}>
        <Stack>
          {wrong && <Notice>{wrong}</Notice>}
          {problem && !conflict && <Notice>{problem.message}</Notice>}
          {conflict && (
            <Conflict
              mine={inputOf(form, before)}
              theirs={conflict}
              onTheirs={() => takeTheirs(conflict)}
              onMine={() => void send(conflict.version)}
            />
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
          {before?.recurrence && (
            <Faded>You are changing all dates of this entry; the times are those of its first one.</Faded>
          )}
          <TimeFields form={form} set={set} />
          <RecurrenceFields form={form} before={before} set={set} />
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
            <MainButton type="submit" isDisabled={adding.isLoading || saving.isLoading}>
              {before ? 'Save' : 'Write the entry'}
            </MainButton>
            <Button onPress={onClose}>Leave without saving</Button>
            {before && (
              <Button
                onPress={() =>
                  void remove({ id: before.id, version: before.version }).then((result) => {
                    if (!result.error) onClose();
                  })
                }
              >
                <Trash2 aria-hidden="true" /> Delete{before.recurrence ? ' all dates' : ''}
              </Button>
            )}
          </Row>
          {before && <Faded>{keptWords(before)}</Faded>}
        </Stack>
      </form>
    </Sheet>
  );
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
