import { LOCKED_DOWN } from '@zonal/core/glass';
import { Lock, LockOpen } from 'lucide-react';
import { useMemo, useState } from 'react';
import {
  problemOf,
  useLockDownMutation,
  useWatchQuery,
  useCalendarsQuery,
  useWindowsQuery,
} from '../api/zonalApi';
import type { Calendar } from '@zonal/core/api';
import type { RehearsalQuestion } from '../workers/questions';
import { RehearsalView } from '../rehearsal/RehearsalView';
import { inFull } from '../rehearsal/inFull';
import { rehearsedWindow } from '@zonal/core/glass';
import { useAnswer } from '../workers/useAnswer';
import { Button, OutsideButton, QuietButton } from '../ui/Button';
import { Faded, Row, Stack } from '../ui/layout';
import { Loading, Notice } from '../ui/Notice';
import { Sheet } from '../ui/Sheet';
import { LOCALE } from '../texts/language';
import { t } from '../texts/glass';

/** Withdraws everything of a calendar from outside in one step, after showing what that cuts; undoable for a day. */
export function LockDown({ calendar }: { calendar: Calendar }) {
  const [open, setOpen] = useState(false);
  const [lock, locking] = useLockDownMutation();
  const { lockedAt, id, name } = calendar;
  if (lockedAt)
    return (
      <Stack style={{ gap: '0.2rem' }}>
        <Faded>{t('lockedSince', { time: new Date(lockedAt).toLocaleString(LOCALE) })}</Faded>
        <QuietButton isDisabled={locking.isLoading} onPress={() => void lock({ id, locked: false })}>
          <LockOpen aria-hidden="true" /> {t('undoLockDown')}
        </QuietButton>
        {locking.error && <Notice>{problemOf(locking.error)?.message}</Notice>}
      </Stack>
    );
  return (
    <>
      <QuietButton aria-label={t('lockDownNamed', { name })} onPress={() => setOpen(true)}>
        <Lock aria-hidden="true" /> {t('lockDown')}
      </QuietButton>
      {open && <LockSheet calendar={calendar} onClose={() => setOpen(false)} />}
    </>
  );
}

function LockSheet({ calendar: { id, name }, onClose }: { calendar: Calendar; onClose: () => void }) {
  const { data: windows } = useWindowsQuery();
  const { data: calendars } = useCalendarsQuery();
  const { data: watch } = useWatchQuery();
  const [lock, locking] = useLockDownMutation();
  const [now] = useState(() => Date.now());
  const question = useMemo((): RehearsalQuestion | null => {
    if (!windows || !calendars || !watch) return null;
    const shown = inFull(windows, calendars).filter(
      (w) => !w.closedAt && w.sources.some((s) => s.calendarId === id),
    );
    const pairs = shown.map((w) => {
      const calendars = { ...w.ceilings.calendars, [id]: LOCKED_DOWN };
      const before = rehearsedWindow(w, w, now);
      return { before, after: { ...before, rules: { ...w, ceilings: { ...w.ceilings, calendars } } } };
    });
    return { kind: 'rehearsal', pairs, changes: [], watch, now };
  }, [windows, calendars, watch, id, now]);
  const { answer, problem } = useAnswer(question);
  const go = async () => {
    const { error } = await lock({ id, locked: true });
    if (!error) onClose();
  };
  return (
    <Sheet title={t('lockDownNamed', { name })} onClose={onClose} wide>
      <Stack>
        <p>{t('lockDownHint', { name })}</p>
        {problem && <Notice>{problem}</Notice>}
        {answer ? <RehearsalView rehearsals={answer} /> : !problem && <Loading what={t('computingCut')} />}
        {locking.error && <Notice>{problemOf(locking.error)?.message}</Notice>}
        <Row>
          <OutsideButton isDisabled={(!answer && !problem) || locking.isLoading} onPress={() => void go()}>
            {t('lockDownNow')}
          </OutsideButton>
          <Button onPress={onClose}>{t('cancel')}</Button>
        </Row>
      </Stack>
    </Sheet>
  );
}
