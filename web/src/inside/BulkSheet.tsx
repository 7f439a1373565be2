import type { Calendar } from '@zonal/core/api';
import { capital } from '@zonal/core/entries';
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
import { t } from '../texts/inside';
import { HOLD_WORDS } from '../texts/entryWords';
import { problemText } from '../texts/problemText';

/** As many changes as the server takes in one edit. */
const MAX_CHANGES = 200;

const KINDS = ['shift', 'move', 'label', 'unlabel', 'hold', 'duplicate', 'delete'] as const;
type BulkKind = (typeof KINDS)[number];

/** The name of each action, and the message that describes it once it is done. */
const BULK_WORDS = {
  shift: { verb: t('bulkShift'), done: 'bulkShifted' },
  move: { verb: t('bulkMove'), done: 'bulkMoved' },
  label: { verb: t('bulkLabel'), done: 'bulkLabelled' },
  unlabel: { verb: t('bulkUnlabel'), done: 'bulkUnlabelled' },
  hold: { verb: t('bulkHold'), done: 'bulkHeld' },
  duplicate: { verb: t('duplicate'), done: 'bulkDuplicated' },
  delete: { verb: t('delete'), done: 'bulkDeleted' },
} as const satisfies Readonly<Record<BulkKind, { readonly verb: string; readonly done: string }>>;

interface BulkSheetProps {
  readonly items: readonly DeskItem[];
  /** Calendars in which the person may write. */
  readonly calendars: readonly Calendar[];
  readonly edits: Edits;
  readonly onDone: () => void;
  readonly onClose: () => void;
}

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
        refusal: isTooMany ? t('bulkTooMany', { most: MAX_CHANGES, count: all.length }) : '',
      };
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      return { changes: [], refusal: problemText(error) };
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
      label: t(BULK_WORDS[kind].done, { count: items.length }),
      changes,
    });
    if (!('code' in answer)) onDone();
  };
  return (
    <Sheet title={t('bulkTitle', { count: items.length })} onClose={onClose} wide>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          <SelectOne
            label={t('bulkAction')}
            value={kind}
            options={KINDS.map((one) => ({ value: one, text: BULK_WORDS[one].verb }))}
            onChange={(next) => changeForm(() => setKind(next))}
          />
          {(kind === 'shift' || kind === 'duplicate') && (
            <Field
              label={kind === 'shift' ? t('daysLater') : t('daysToCopy')}
              type="number"
              value={days}
              onChange={(next) => changeForm(() => setDays(next))}
              isRequired
            />
          )}
          {kind === 'move' && (
            <SelectOne
              label={t('toCalendar')}
              value={calendarId}
              options={calendars.map((c) => ({ value: c.id, text: `${c.plate} ${c.name}` }))}
              onChange={(next) => changeForm(() => setCalendarId(next))}
            />
          )}
          {kind === 'label' && (
            <Field
              label={t('label')}
              value={label}
              onChange={(next) => changeForm(() => setLabel(next))}
              isRequired
              maxLength={120}
            />
          )}
          {kind === 'unlabel' &&
            (labels.length ? (
              <SelectOne
                label={t('label')}
                value={label}
                options={[
                  { value: '', text: t('choose') },
                  ...labels.map((one) => ({ value: one, text: one })),
                ]}
                onChange={(next) => changeForm(() => setLabel(next))}
              />
            ) : (
              <Faded>{t('noLabelHere')}</Faded>
            ))}
          {kind === 'hold' && (
            <ChoiceStrip
              label={t('hold')}
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
              label={t('ofRecurring')}
              value={scope}
              options={[
                { value: 'dates' as const, text: t('selectedDates') },
                { value: 'series' as const, text: t('allDates') },
              ]}
              onChange={(next) => changeForm(() => setScope(next))}
            />
          )}
          {refusal && <Notice>{refusal}</Notice>}
          {gate.view}
          {isRehearsing && !gate.view && changes.length > 0 && (
            <section aria-label={t('outsideChanges')}>
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
              {t('outsideChanges')}
            </Button>
            <Button onPress={onClose}>{t('cancel')}</Button>
          </Row>
          <Faded>{t('oneUndo')}</Faded>
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
