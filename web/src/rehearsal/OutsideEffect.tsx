import type { Watch } from '@zonal/core/glass';
import { useMemo, useState } from 'react';
import { useCalendarsQuery, useWatchQuery, useWindowsQuery } from '../api/zonalApi';
import type { EntryChange, OutwardWindow } from '@zonal/core/api';
import { Faded, Stack } from '../ui/layout';
import { Loading, Notice } from '../ui/Notice';
import { RehearsalView } from './RehearsalView';
import type { RehearsalQuestion } from '../workers/questions';
import { beyond, inFull } from './inFull';
import { rehearsedWindow } from '@zonal/core/glass';
import { useAnswer } from '../workers/useAnswer';
import { WhenKnown, beginningOf } from './WhenKnown';
import { t } from '../texts/rehearsal';

interface OutsideEffectProps {
  changes: readonly EntryChange[];
  /** Calendars that the entries are in now, or will be. */
  calendarIds: readonly string[];
}

/** Returns the question what changes of entries would do to the open windows that show some calendars. */
export function effectQuestion(
  windows: readonly OutwardWindow[],
  watch: Watch,
  changes: readonly EntryChange[],
  calendarIds: readonly string[],
  now: number,
): RehearsalQuestion {
  const shown = windows.filter(
    (w) => !w.closedAt && w.sources.some((s) => calendarIds.includes(s.calendarId)),
  );
  const pairs = shown.map((w) => rehearsedWindow(w, w, now)).map((w) => ({ before: w, after: w }));
  return { kind: 'rehearsal', pairs, changes, watch, now };
}

/** What readers outside would see differently if entries were changed so. */
export function OutsideEffect({ changes, calendarIds }: OutsideEffectProps) {
  const { data: windows } = useWindowsQuery();
  const { data: calendars } = useCalendarsQuery();
  const { data: watch } = useWatchQuery();
  const [now] = useState(() => Date.now());
  const question = useMemo((): RehearsalQuestion | null => {
    if (!windows || !watch || !calendars) return null;
    return effectQuestion(inFull(windows, calendars), watch, changes, calendarIds, now);
  }, [windows, calendars, watch, changes, calendarIds, now]);
  const { answer, problem, busy } = useAnswer(question);
  if (problem) return <Notice>{problem}</Notice>;
  if (!answer || busy) return <Loading what={t('computingOutside')} />;
  const others = beyond(windows ?? [], calendars ?? [], calendarIds);
  const loud = answer.filter((r) => !r.quiet).map((r) => r.windowId);
  const shown = question?.pairs.length ? <RehearsalView rehearsals={answer} /> : null;
  return (
    <Stack>
      {shown}
      {loud.length > 0 && <WhenKnown windowIds={loud} begins={beginningOf(changes, now)} />}
      {others.length > 0 && (
        <Faded role="status">{t('othersShow', { windows: others.join(', '), count: others.length })}</Faded>
      )}
      {!shown && !others.length && <Faded role="status">{t('noWindowShows')}</Faded>}
    </Stack>
  );
}
