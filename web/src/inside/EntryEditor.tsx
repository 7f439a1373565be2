import { checkedEntry, type Entry, type Scope, type When } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import type { ZoneName } from '@zonal/core/zones';
import { Trash2 } from 'lucide-react';
import { useReducer, useState, type FormEvent } from 'react';
import { useHouseQuery, useWindowsQuery } from '../api/zonalApi';
import type { ApiProblem, Calendar, EntryInput } from '@zonal/core/api';
import { adding, named, removing } from './changes';
import { OutsideEffect } from '../rehearsal/OutsideEffect';
import { useOutsideGate } from '../rehearsal/useOutsideGate';
import type { Edit, Edits } from './useEdits';
import { Button, MainButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Faded, Pair, Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Sheet } from '../ui/Sheet';
import { useNow } from '../ui/useNow';
import { ClockNotes } from './ClockNotes';
import { Conflict } from './Conflict';
import { entryDraft, startDraft, type Editing } from './entryDraft';
import { changesOf, effectWords, resultOf } from './entryEdit';
import { EntryFields, KindField } from './EntryFields';
import { inputOf, spanOf, type EntryForm } from './entryForm';
import { RecurrenceFields } from './RecurrenceFields';
import { ScopeStrip } from './ScopeSheet';
import { TimeFields } from './TimeFields';

interface EntryEditorProps {
  calendars: readonly Calendar[];
  editing: Editing;
  edits: Edits;
  /** Zones of readers besides those of windows. */
  readers: readonly ZoneName[];
  onClose: () => void;
}

export function EntryEditor({ calendars, editing, edits, readers, onClose }: EntryEditorProps) {
  const [draft, act] = useReducer(entryDraft, null, () => startDraft(editing, calendars));
  const { before, calendarId, slot, scope, form } = draft;
  const calendar = calendars.find((c) => c.id === calendarId)!;
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
    act({ type: 'typed', part });
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

  const zones = [...new Set([...readers, ...(windows ?? []).map((w) => w.hostZone)])];

  const fields = { form, set, properties: house?.properties ?? [] };

  return (
    <Sheet title={before ? before.title || 'Untitled entry' : 'New entry'} onClose={onClose}>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          {wrong && <Notice>{wrong}</Notice>}
          {problem && !conflict && <ProblemNotice problem={problem} />}
          {conflict && before && (
            <Conflict
              mine={mineOf(form, before, slot, scope)}
              theirs={conflict}
              onTheirs={() => {
                act({ type: 'taken', entry: conflict, calendar });
                setProblem(null);
              }}
              onMine={() => void send(change(conflict))}
            />
          )}
          {before && slot && (
            <div>
              <ScopeStrip value={scope} onChange={(next) => act({ type: 'meant', scope: next, calendar })} />
              <Faded role="status">{effectWords(before, slot, scope, calendar, now)}</Faded>
            </div>
          )}
          <EntryFields part="first" {...fields} />
          <Pair>
            <SelectOne
              label="Calendar"
              value={calendarId}
              options={calendars.map((c) => ({ value: c.id, text: `${c.plate} ${c.name}` }))}
              onChange={(id) => act({ type: 'moved', calendarId: id })}
            />
            <KindField form={form} set={set} isNew={!before} isDisabled={many} />
          </Pair>
          <TimeFields form={form} set={set} />
          <Clocks form={form} before={before} readers={zones} calendar={calendar} now={now} />
          {!many && form.kind !== 'milestone' && <RecurrenceFields form={form} before={before} set={set} />}
          <EntryFields part="after-times" {...fields} />
          <Pair>
            <EntryFields part="pair" {...fields} />
          </Pair>
          <EntryFields part="last" {...fields} />
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

/** Says what belongs to an entry and is not in the form. */
function keptWords(entry: Entry): string {
  const parts = [
    entry.overrides.length && `${entry.overrides.length} dates changed by themselves`,
    entry.recurrence?.exceptDates.length && `${entry.recurrence.exceptDates.length} dates left out`,
    entry.kept.length && `${entry.kept.length} further properties of its file`,
  ].filter(Boolean);
  return parts.length ? `Also kept with it: ${parts.join(', ')}.` : '';
}
