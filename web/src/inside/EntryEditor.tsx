import { checkedEntry, type Entry, type Scope, type When } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import type { ZoneName } from '@zonal/core/zones';
import { Copy, Trash2 } from 'lucide-react';
import { useReducer, useState, type FormEvent } from 'react';
import { useHouseQuery, useWindowsQuery } from '../api/zonalApi';
import type { ApiProblem, Calendar, EntryInput } from '@zonal/core/api';
import { adding, named, removing, replacing, type EditLabel } from './changes';
import { OutsideEffect } from '../rehearsal/OutsideEffect';
import { useOutsideGate } from '../rehearsal/useOutsideGate';
import type { Edit, Edits } from './useEdits';
import { useAppDispatch } from '../store';
import { Button, MainButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Faded, Pair, Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Refusal } from '../ui/Refusal';
import { Sheet } from '../ui/Sheet';
import { useChanged } from '../ui/Unsaved';
import { useNow } from '../ui/useNow';
import { ClockNotes } from './ClockNotes';
import { Conflict } from './Conflict';
import { entryDraft, startDraft, type Editing } from './entryDraft';
import { changesOf, effectWords, formFor, resultOf } from './entryEdit';
import { EntryFields, KindField } from './EntryFields';
import { EntryHistory } from './EntryHistory';
import { inputOf, spanOf, type EntryForm } from './entryForm';
import { deskSet } from './deskSlice';
import { fieldErrors } from './fieldErrors';
import { changedFieldWords, mergeForms, withFields, type MergedForm } from './mergeForms';
import { RecurrenceFields } from './RecurrenceFields';
import { ScopeStrip } from './ScopeSheet';
import { TimeFields } from './TimeFields';
import type { Written } from './writtenItem';
import { t } from '../texts/inside';
import { problemText } from '../texts/problemText';

/** What comes of two people's changes, with what the other one saved, as an entry and as a form. */
type Merge = MergedForm & { readonly theirs: Entry; readonly blank: EntryForm };

interface EntryEditorProps {
  calendars: readonly Calendar[];
  editing: Editing;
  edits: Edits;
  /** Zones of readers besides those of windows. */
  readers: readonly ZoneName[];
  /** The entry as it is saved now; null for a new one, or if it is not known. */
  current: Entry | null;
  /** Called with what was saved; null if it was deleted. */
  onWritten: (written: Written | null) => void;
  /** Called to go on with a new entry that is the same. */
  onDuplicate: (calendarId: string, form: EntryForm) => void;
  onClose: () => void;
}

export function EntryEditor(props: EntryEditorProps) {
  const { calendars, editing, edits, readers, current, onWritten, onDuplicate, onClose } = props;
  const [draft, act] = useReducer(entryDraft, null, () => startDraft(editing, calendars));
  const { before, calendarId, slot, scope, form } = draft;
  const calendar = calendars.find((c) => c.id === calendarId)!;
  const now = useNow();
  const dispatch = useAppDispatch();
  const { data: house } = useHouseQuery();
  const { data: windows } = useWindowsQuery();
  const isMoved = useChanged(calendarId);
  const [problem, setProblem] = useState<ApiProblem | null>(null);
  const [effect, setEffect] = useState<(Pick<Edit, 'changes'> & { calendarIds: string[] }) | null>(null);
  const [conflict, setConflict] = useState<Merge | null>(null);
  const gate = useOutsideGate(calendar.name);
  const places = [...new Set([calendarId, before?.calendarId ?? calendarId])];
  const set = (part: Partial<EntryForm>) => {
    act({ type: 'typed', part });
    setProblem(null);
    setConflict(null);
    setEffect(null);
    gate.forget();
  };
  const many = !!slot && scope !== 'all';

  /** Runs a step that may be refused by the core; says why, and then returns null. */
  const attempt = <T,>(work: () => T): T | null => {
    try {
      const done = work();
      setProblem(null);
      return done;
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      setProblem({ code: error.code, message: problemText(error), details: error.details });
      return null;
    }
  };

  const send = async (edit: Edit | null, isRemoval = false) => {
    if (!edit) return;
    const answer = await edits.edit(edit);
    if (!('code' in answer)) {
      dispatch(deskSet({ lastCalendarId: calendarId }));
      const entry = answer.entries.at(-1);
      onWritten(entry && !isRemoval ? { entry, slot: scope === 'this' ? slotIn(entry) : null } : null);
      return onClose();
    }
    edits.dismiss();
    if (answer.code !== 'version-conflict' || !before) return setProblem(answer);
    const merged = mergedWith(answer.details['current'] as Entry);
    if (isRemoval) {
      // What is deleted has to be seen first as it is now.
      act({ type: 'merged', entry: merged.theirs, blank: merged.blank, form: merged.form });
      setProblem(answer);
    } else if (merged.disputes.length) setConflict(merged);
    else await saveMerged(merged);
  };

  /** Returns what was typed together with what somebody else has saved meanwhile. */
  const mergedWith = (theirs: Entry): Merge => {
    const blank = formFor(theirs, slotIn(theirs), scope, calendar);
    return { ...mergeForms(draft.blank, form, blank), theirs, blank };
  };

  /** The date that was opened, unless the entry has become a single one. */
  const slotIn = (entry: Entry) => (entry.recurrence ? slot : null);

  const saveMerged = async ({ theirs, blank, form: next }: Merge) => {
    setConflict(null);
    act({ type: 'merged', entry: theirs, blank, form: next });
    await send(change(theirs, next));
  };

  const writeNew = () =>
    attempt(() => {
      const entry = checkedEntry(inputOf(form, null), calendar.zone);
      return named('labelWrote', entry as Entry, [adding(calendarId, entry)]);
    });

  /** The form as a change of `base`: the entry as it was opened, or as somebody else has left it. */
  const change = (base: Entry, said = form) =>
    attempt(() => {
      const at = slotIn(base);
      const made = resultOf(said, base, at, scope);
      for (const e of made.kind === 'entry' ? [made.entry] : [made.before, made.from])
        checkedEntry(e, calendar.zone);
      return named('labelChanged', { title: said.title }, changesOf(made, base, at, scope, calendar));
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

  /** Stores all of the entry as it was in an earlier version, in the calendar where it is now. */
  const restore = async (version: Entry) => {
    if (!before) return;
    const restored = { ...version, version: before.version };
    const edit = named('labelRestored', version, [replacing(restored, before.calendarId)]);
    if (!(await gate.pass(edit.changes, places))) return;
    const answer = await edits.edit(edit);
    if (!('code' in answer)) return onClose();
    edits.dismiss();
    setProblem(answer);
  };

  const remove = (entry: Entry) =>
    attempt(() =>
      named(
        slot ? REMOVAL_LABELS[scope] : 'labelDeleted',
        entry,
        removing({ entry, slot }, scope, calendar.zone),
      ),
    );

  const zones = [...new Set([...readers, ...(windows ?? []).map((w) => w.hostZone)])];

  const errors = fieldErrors(problem, form);
  const fields = {
    ...{ form, set, errors, properties: house?.properties ?? [], isNew: !before },
    calendarId: before?.calendarId ?? calendarId,
  };
  const isOvertaken = !!before && !!current && current.version > before.version && !conflict;

  const isChanged = isMoved || JSON.stringify(form) !== JSON.stringify(draft.blank);

  return (
    <Sheet
      title={before ? before.title || t('untitledEntry') : t('newEntry')}
      onClose={onClose}
      isChanged={isChanged}
    >
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          {isOvertaken && (
            <Notice>
              {t('changedMeanwhile', { fields: changedFieldWords(before, current).join(', ') })}
            </Notice>
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
              label={t('calendar')}
              value={calendarId}
              options={calendars.map((c) => ({ value: c.id, text: `${c.plate} ${c.name}` }))}
              onChange={(id) => act({ type: 'moved', calendarId: id })}
            />
            <KindField form={form} set={set} isNew={!before} isDisabled={many} />
          </Pair>
          <TimeFields form={form} set={set} errors={errors} />
          <Clocks form={form} before={before} readers={zones} calendar={calendar} now={now} />
          {!many && form.kind !== 'milestone' && (
            <RecurrenceFields form={form} before={before} set={set} errors={errors} />
          )}
          <EntryFields part="after-times" {...fields} />
          <Pair>
            <EntryFields part="pair" {...fields} />
          </Pair>
          <EntryFields part="last" {...fields} />
          <Refusal problem={problem} />
          {conflict && before && (
            <Conflict
              disputes={conflict.disputes}
              mine={mineOf(conflict.form, before, slot, scope)}
              theirs={conflict.theirs}
              onChoose={(theirs) =>
                void saveMerged({ ...conflict, form: withFields(conflict.form, conflict.blank, theirs) })
              }
            />
          )}
          <Row>
            <MainButton type="submit" isDisabled={edits.busy || gate.looking || gate.waits}>
              {t('save')}
            </MainButton>
            <Button onPress={rehearse}>{t('outsideChanges')}</Button>
            <Button onPress={onClose}>{t('discardChanges')}</Button>
            {before && (
              <Button
                isDisabled={isChanged}
                onPress={() =>
                  onDuplicate(calendarId, many && scope === 'this' ? { ...form, recurs: 'once' } : form)
                }
              >
                <Copy aria-hidden="true" /> {t('duplicate')}
              </Button>
            )}
            {before && (
              <Button onPress={() => void send(remove(before), true)}>
                <Trash2 aria-hidden="true" /> {slot ? REMOVAL_WORDS[scope] : t('delete')}
              </Button>
            )}
          </Row>
          {gate.view}
          {effect && !gate.view && (
            <section aria-label={t('outsideChanges')}>
              <OutsideEffect {...effect} />
            </section>
          )}
          {before && <Faded>{keptWords(before)}</Faded>}
          {before && (
            <EntryHistory
              entry={before}
              canRestore={!isChanged && !edits.busy && !gate.looking}
              onRestore={(version) => void restore(version)}
            />
          )}
        </Stack>
      </form>
    </Sheet>
  );
}

const REMOVAL_WORDS: Record<Scope, string> = {
  this: t('skipDate'),
  onward: t('endSeries'),
  all: t('deleteAllDates'),
};

const REMOVAL_LABELS = {
  this: 'labelSkipped',
  onward: 'labelEnded',
  all: 'labelDeleted',
} as const satisfies Record<Scope, EditLabel>;

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
    entry.overrides.length && t('keptOverrides', { count: entry.overrides.length }),
    entry.recurrence?.exceptDates.length &&
      t('keptExceptions', { count: entry.recurrence.exceptDates.length }),
    entry.kept.length && t('keptProperties', { count: entry.kept.length }),
  ].filter(Boolean);
  return parts.length ? t('alsoKept', { parts: parts.join(', ') }) : '';
}
