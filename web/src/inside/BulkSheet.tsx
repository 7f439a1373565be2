import type { Calendar } from '@zonal/core/api';
import { HOLD_WORDS, capital } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import { useMemo, useState, type FormEvent } from 'react';
import { OutsideEffect } from '../rehearsal/OutsideEffect';
import { useOutsideGate } from '../rehearsal/useOutsideGate';
import { Button, MainButton } from '../ui/Button';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Faded, Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Refusal } from '../ui/Refusal';
import { Sheet } from '../ui/Sheet';
import { bulkChanges, type BulkAction, type BulkScope } from './bulkChanges';
import type { DeskItem } from './deskDays';
import type { Edits } from './useEdits';

/** As many changes as the server takes in one edit. */
const MAX_CHANGES = 200;

const KINDS = ['shift', 'move', 'label', 'unlabel', 'hold', 'duplicate', 'delete'] as const;
type BulkKind = (typeof KINDS)[number];

/** Each action as it is chosen, and as it is named once it is done. */
const BULK_WORDS: Readonly<Record<BulkKind, { readonly verb: string; readonly done: string }>> = {
  shift: { verb: 'Shift by days', done: 'Shifted' },
  move: { verb: 'Move to another calendar', done: 'Moved' },
  label: { verb: 'Add a label', done: 'Labelled' },
  unlabel: { verb: 'Remove a label', done: 'Removed a label of' },
  hold: { verb: 'Set a hold', done: 'Held' },
  duplicate: { verb: 'Duplicate', done: 'Duplicated' },
  delete: { verb: 'Delete', done: 'Deleted' },
};

interface BulkSheetProps {
  readonly items: readonly DeskItem[];
  /** Calendars in which the person may write. */
  readonly calendars: readonly Calendar[];
  readonly edits: Edits;
  readonly onDone: () => void;
  readonly onClose: () => void;
}

const entriesWords = (count: number) => `${count} ${count === 1 ? 'entry' : 'entries'}`;

/** Changes several entries at once, in one edit that one Undo takes back, with one rehearsal for all of them. */
export function BulkSheet({ items, calendars, edits, onDone, onClose }: BulkSheetProps) {
  const [kind, setKind] = useState<BulkKind>('shift');
  const [days, setDays] = useState('7');
  const [calendarId, setCalendarId] = useState(calendars[0]!.id);
  const [label, setLabel] = useState('');
  const [hold, setHold] = useState<'none' | 'frost' | 'keep-in'>('frost');
  const [scope, setScope] = useState<BulkScope>('dates');
  const [isRehearsing, setRehearsing] = useState(false);
  const gate = useOutsideGate(calendars.find((c) => c.id === items[0]?.entry.calendarId)?.name ?? '');
  const recurs = items.some((item) => item.one.slot !== null);
  const labels = [...new Set(items.flatMap((item) => item.one.content.labels))].sort();
  const { changes, refusal } = useMemo(() => {
    const action = actionOf({ kind, days, calendarId, label, hold });
    if (!action) return { changes: [], refusal: '' };
    const homeOf = (id: string) => calendars.find((c) => c.id === id)!.zone;
    try {
      const all = bulkChanges(items, action, scope, homeOf);
      const isTooMany = all.length > MAX_CHANGES;
      return {
        changes: isTooMany ? [] : all,
        refusal: isTooMany
          ? `At most ${MAX_CHANGES} entries can be changed at once, and these are ${all.length}. Select fewer.`
          : '',
      };
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      return { changes: [], refusal: error.message };
    }
  }, [items, calendars, kind, days, calendarId, label, hold, scope]);
  const places = useMemo(() => [...new Set(changes.map((change) => change.calendarId))], [changes]);
  const from = useMemo(() => [...new Set(items.map((item) => item.entry.calendarId))], [items]);
  const concerned = useMemo(() => [...new Set([...places, ...from])], [places, from]);
  const changeForm = (change: () => void) => {
    change();
    setRehearsing(false);
    gate.forget();
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!changes.length || !(await gate.pass(changes, concerned))) return;
    const answer = await edits.edit({
      label: `${BULK_WORDS[kind].done} ${entriesWords(items.length)}`,
      changes,
    });
    if (!('code' in answer)) onDone();
  };
  return (
    <Sheet title={`Change ${entriesWords(items.length)}`} onClose={onClose} wide>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          <SelectOne
            label="What to do"
            value={kind}
            options={KINDS.map((one) => ({ value: one, text: BULK_WORDS[one].verb }))}
            onChange={(next) => changeForm(() => setKind(next))}
          />
          {(kind === 'shift' || kind === 'duplicate') && (
            <Field
              label={kind === 'shift' ? 'Days later (negative: earlier)' : 'Days from an entry to its copy'}
              type="number"
              value={days}
              onChange={(next) => changeForm(() => setDays(next))}
              isRequired
            />
          )}
          {kind === 'move' && (
            <SelectOne
              label="To calendar"
              value={calendarId}
              options={calendars.map((c) => ({ value: c.id, text: `${c.plate} ${c.name}` }))}
              onChange={(next) => changeForm(() => setCalendarId(next))}
            />
          )}
          {kind === 'label' && (
            <Field
              label="Label"
              value={label}
              onChange={(next) => changeForm(() => setLabel(next))}
              isRequired
              maxLength={120}
            />
          )}
          {kind === 'unlabel' &&
            (labels.length ? (
              <SelectOne
                label="Label"
                value={label}
                options={[
                  { value: '', text: 'Choose …' },
                  ...labels.map((one) => ({ value: one, text: one })),
                ]}
                onChange={(next) => changeForm(() => setLabel(next))}
              />
            ) : (
              <Faded>None of these entries has a label.</Faded>
            ))}
          {kind === 'hold' && (
            <ChoiceStrip
              label="Hold"
              value={hold}
              options={(['none', 'frost', 'keep-in'] as const).map((one) => ({
                value: one,
                text: capital(HOLD_WORDS[one].word),
              }))}
              onChange={(next) => changeForm(() => setHold(next))}
            />
          )}
          {recurs && (
            <ChoiceStrip
              label="Of recurring entries"
              value={scope}
              options={[
                { value: 'dates' as const, text: 'The selected dates' },
                { value: 'series' as const, text: 'All dates' },
              ]}
              onChange={(next) => changeForm(() => setScope(next))}
            />
          )}
          {refusal && <Notice>{refusal}</Notice>}
          {gate.view}
          {isRehearsing && !gate.view && changes.length > 0 && (
            <section aria-label="What changes outside">
              <OutsideEffect changes={changes} calendarIds={concerned} />
            </section>
          )}
          <Refusal problem={edits.problem} />
          <Row>
            <MainButton
              type="submit"
              isDisabled={!changes.length || edits.busy || gate.looking || gate.waits}
            >
              {BULK_WORDS[kind].verb}
            </MainButton>
            <Button isDisabled={!changes.length} onPress={() => setRehearsing(true)}>
              What changes outside
            </Button>
            <Button onPress={onClose}>Cancel</Button>
          </Row>
          <Faded>One Undo takes all of it back.</Faded>
        </Stack>
      </form>
    </Sheet>
  );
}

interface BulkForm {
  readonly kind: BulkKind;
  readonly days: string;
  readonly calendarId: string;
  readonly label: string;
  readonly hold: 'none' | 'frost' | 'keep-in';
}

/** Returns the action that the form says, or null while something is missing. */
function actionOf({ kind, days, calendarId, label, hold }: BulkForm): BulkAction | null {
  if (kind === 'move') return { kind, calendarId };
  if (kind === 'hold') return { kind, hold };
  if (kind === 'delete') return { kind };
  if (kind === 'label' || kind === 'unlabel') return label.trim() ? { kind, label: label.trim() } : null;
  const count = Number(days);
  const isPointless = kind === 'shift' && count === 0;
  return days.trim() !== '' && Number.isInteger(count) && !isPointless ? { kind, days: count } : null;
}
