import { checkedEntry, type Entry, type Scope, type When } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import type { ZoneName } from '@zonal/core/zones';
import { Trash2 } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import { useHouseQuery, useWindowsQuery } from '../api/zonalApi';
import type { ApiProblem, Calendar, EntryInput } from '../api/types';
import { adding, named, removing } from './changes';
import { OutsideEffect } from '../rehearsal/OutsideEffect';
import { useOutsideGate } from '../rehearsal/useOutsideGate';
import type { Edit, Edits } from './useEdits';
import { Button, MainButton } from '../ui/Button';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Faded, Pair, Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Sheet } from '../ui/Sheet';
import { useNow } from '../ui/useNow';
import { ClockNotes } from './ClockNotes';
import { Conflict } from './Conflict';
import { carryOver, changesOf, effectWords, formFor, resultOf, type DateOf } from './entryEdit';
import { blankForm, inputOf, spanOf, type EntryForm } from './entryForm';
import { AttachmentFields, PeopleFields, PropertyFields } from './PeopleFields';
import { RecurrenceFields } from './RecurrenceFields';
import { ScopeStrip } from './ScopeSheet';
import { TimeFields } from './TimeFields';

/** An entry that is there with the date that was opened, or a new one with some of its form filled. */
export type Editing =
  | { readonly entry: Entry; readonly date: DateOf }
  | { readonly calendarId: string; readonly day: number; readonly form?: Partial<EntryForm> };

interface EntryEditorProps {
  calendars: readonly Calendar[];
  editing: Editing;
  edits: Edits;
  /** Zones of readers besides those of windows. */
  readers: readonly ZoneName[];
  onClose: () => void;
}

export function EntryEditor({ calendars, editing, edits, readers, onClose }: EntryEditorProps) {
  const opened = 'entry' in editing ? editing.entry : null;
  const [before, setBefore] = useState(opened);
  const [calendarId, setCalendarId] = useState(
    opened?.calendarId ?? ('day' in editing ? editing.calendarId : ''),
  );
  const calendar = calendars.find((c) => c.id === calendarId)!;
  const slot = 'entry' in editing && before?.recurrence ? editing.date.slot : null;
  const [scope, setScope] = useState<Scope>('this');
  const [blank, setBlank] = useState<EntryForm>(() =>
    'entry' in editing
      ? formFor(editing.entry, slot, 'this', calendar)
      : { ...blankForm(calendar.zone, editing.day), ...editing.form },
  );
  const [form, setForm] = useState(blank);
  const now = useNow();
  const { data: house } = useHouseQuery();
  const { data: windows } = useWindowsQuery();
  const [wrong, setWrong] = useState<string | null>(null);
  const [problem, setProblem] = useState<ApiProblem | null>(null);
  const [effect, setEffect] = useState<(Pick<Edit, 'changes'> & { calendarIds: string[] }) | null>(null);
  const conflict = problem?.code === 'version-conflict' ? (problem.details['current'] as Entry) : null;
  const gate = useOutsideGate(calendar.name);
  const places = [...new Set([calendarId, before?.calendarId ?? calendarId])];
  const set = (part: Partial<EntryForm>) => {
    setForm((f) => ({ ...f, ...part }));
    setEffect(null);
    gate.forget();
  };
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

  const send = async (edit: Edit | null) => {
    if (!edit) return;
    const answer = await edits.edit(edit);
    if (!('code' in answer)) return onClose();
    edits.dismiss();
    setProblem(answer);
  };

  const writeNew = () =>
    attempt(() => {
      const entry = checkedEntry(inputOf(form, null), calendar.zone);
      return named('Wrote', entry as Entry, [adding(calendarId, entry)]);
    });

  /** The form as a change of `base`: the entry as it was opened, or as somebody else has left it. */
  const change = (base: Entry) =>
    attempt(() => {
      const made = resultOf(form, base, slot, scope);
      for (const e of made.kind === 'entry' ? [made.entry] : [made.before, made.from])
        checkedEntry(e, calendar.zone);
      return named('Changed', { title: form.title }, changesOf(made, base, slot, scope, calendar));
    });

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const edit = before ? change(before) : writeNew();
    if (edit && (await gate.pass(edit.changes, places))) await send(edit);
  };

  const rehearse = () => {
    const edit = before ? change(before) : writeNew();
    gate.forget();
    setEffect(edit && { changes: edit.changes, calendarIds: places });
  };

  const remove = (entry: Entry) =>
    attempt(() =>
      named(slot ? REMOVED_WORDS[scope] : 'Deleted', entry, removing({ entry, slot }, scope, calendar.zone)),
    );

  const startFrom = (entry: Entry | null, next: Scope, keep: boolean) => {
    if (!entry) return;
    const fresh = formFor(entry, slot, next, calendar);
    setForm(keep ? carryOver(form, blank, fresh) : fresh);
    setBlank(fresh);
  };

  const takeTheirs = (current: Entry) => {
    setBefore(current);
    startFrom(current, scope, false);
    setProblem(null);
  };

  const zones = [...new Set([...readers, ...(windows ?? []).map((w) => w.hostZone)])];

  return (
    <Sheet title={before ? before.title || 'Untitled entry' : 'New entry'} onClose={onClose}>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          {wrong && <Notice>{wrong}</Notice>}
          {problem && !conflict && <Notice>{problem.message}</Notice>}
          {conflict && before && (
            <Conflict
              mine={mineOf(form, before, slot, scope)}
              theirs={conflict}
              onTheirs={() => takeTheirs(conflict)}
              onMine={() => void send(change(conflict))}
            />
          )}
          {before && slot && (
            <div>
              <ScopeStrip
                value={scope}
                onChange={(next) => {
                  setScope(next);
                  startFrom(before, next, true);
                }}
              />
              <Faded role="status">{effectWords(before, slot, scope, calendar, now)}</Faded>
            </div>
          )}
          <Field
            label="Title"
            value={form.title}
            onChange={(title) => set({ title })}
            autoFocus
            maxLength={500}
          />
          <Pair>
            <SelectOne
              label="Calendar"
              value={calendarId}
              options={calendars.map((c) => ({ value: c.id, text: `${c.plate} ${c.name}` }))}
              onChange={setCalendarId}
            />
            <SelectOne
              label="Kind"
              value={form.kind}
              options={[
                { value: 'event', text: 'Event' },
                { value: 'milestone', text: 'Milestone: one day or moment, can slip' },
                { value: 'due', text: 'Due item: to be done by then' },
              ]}
              onChange={(kind) =>
                // Milestones and due items take no time unless somebody says so.
                set({
                  kind,
                  shows: kind === 'event' ? form.shows : 'free',
                  ...(before ? {} : FIRST_CLOCK[kind]),
                })
              }
              isDisabled={many}
            />
          </Pair>
          <TimeFields form={form} set={set} />
          <Clocks form={form} before={before} readers={zones} calendar={calendar} now={now} />
          {!many && form.kind !== 'milestone' && <RecurrenceFields form={form} before={before} set={set} />}
          <Field label="Place" value={form.place} onChange={(place) => set({ place })} maxLength={500} />
          <Field
            label="Description"
            value={form.description}
            onChange={(description) => set({ description })}
            help="Plain text. Web addresses become links; lines that start with a dash become a list."
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
                ...(form.kind === 'event' ? [] : [{ value: 'done' as const, text: DONE_WORDS[form.kind] }]),
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
          <PropertyFields
            definitions={house?.properties ?? []}
            value={form.properties}
            onChange={(properties) => set({ properties })}
          />
          <PeopleFields value={form.people} onChange={(people) => set({ people })} />
          <AttachmentFields value={form.attachments} onChange={(attachments) => set({ attachments })} />
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
            <MainButton type="submit" isDisabled={edits.busy || gate.looking || gate.waits}>
              {before ? 'Save' : 'Write the entry'}
            </MainButton>
            <Button onPress={rehearse}>What changes outside</Button>
            <Button onPress={onClose}>Leave without saving</Button>
            {before && (
              <Button onPress={() => void send(remove(before))}>
                <Trash2 aria-hidden="true" /> {slot ? REMOVAL_WORDS[scope] : 'Delete'}
              </Button>
            )}
          </Row>
          {gate.view}
          {effect && !gate.view && (
            <section aria-label="What changes outside">
              <OutsideEffect {...effect} />
            </section>
          )}
          {before && <Faded>{keptWords(before)}</Faded>}
        </Stack>
      </form>
    </Sheet>
  );
}

const FIRST_CLOCK = { event: {}, milestone: { clock: 'date' }, due: { clock: 'date' } } as const;
const DONE_WORDS = { milestone: 'Reached', due: 'Done' } as const;

const REMOVAL_WORDS: Record<Scope, string> = {
  this: 'Skip this date',
  onward: 'End the series before this date',
  all: 'Delete all dates',
};

const REMOVED_WORDS: Record<Scope, string> = {
  this: 'Skipped a date of',
  onward: 'Ended the series',
  all: 'Deleted',
};

interface ClocksProps {
  form: EntryForm;
  before: Entry | null;
  readers: readonly ZoneName[];
  calendar: Calendar;
  now: number;
}

/** What the clock changes do to the entry as it stands in the form. */
function Clocks({ form, before, readers, calendar, now }: ClocksProps) {
  const read = readForm(form, before);
  return read && <ClockNotes {...read} readers={readers} home={calendar.zone} now={now} />;
}

/** What a form says, or null; what is wrong with it is said when it is sent. */
function readForm(form: EntryForm, before: Entry | null): { entry: Entry; date: AtDates } | null {
  try {
    return { entry: { ...(before ?? NEW), ...inputOf(form, before) } as Entry, date: spanOf(form) };
  } catch (error) {
    if (error instanceof Problem) return null;
    throw error;
  }
}

type AtDates = ReturnType<typeof spanOf>;

const NEW = { id: '', calendarId: '', version: 0, uid: '' };

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
    entry.overrides.length && `${entry.overrides.length} dates changed by themselves`,
    entry.recurrence?.exceptDates.length && `${entry.recurrence.exceptDates.length} dates left out`,
    entry.kept.length && `${entry.kept.length} further properties of its file`,
  ].filter(Boolean);
  return parts.length ? `Also kept with it: ${parts.join(', ')}.` : '';
}
