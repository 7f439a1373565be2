import type { Watch } from '@zonal/core/glass';
import { useMemo, useState } from 'react';
import { useWatchQuery, useWindowsQuery } from '../api/zonalApi';
import type { EntryChange, OutwardWindow } from '@zonal/core/api';
import { Faded } from '../ui/layout';
import { Loading, Notice } from '../ui/Notice';
import { RehearsalView } from './RehearsalView';
import type { RehearsalQuestion } from '../workers/questions';
import { rehearsed } from './sighted';
import { useAnswer } from '../workers/useAnswer';

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
  const pairs = shown.map((w) => rehearsed(w, now)).map((w) => ({ before: w, after: w }));
  return { kind: 'rehearsal', pairs, changes, watch, now };
}

/** What readers outside would see differently if entries were changed so. */
export function OutsideEffect({ changes, calendarIds }: OutsideEffectProps) {
  const { data: windows } = useWindowsQuery();
  const { data: watch } = useWatchQuery();
  const [now] = useState(() => Date.now());
  const question = useMemo((): RehearsalQuestion | null => {
    if (!windows || !watch) return null;
    return effectQuestion(windows, watch, changes, calendarIds, now);
  }, [windows, watch, changes, calendarIds, now]);
  const { answer, problem, busy } = useAnswer(question);
  if (problem) return <Notice>{problem}</Notice>;
  if (!answer || busy) return <Loading what="Working out what readers would see" />;
  if (!question?.pairs.length) return <Faded role="status">No open window shows this calendar.</Faded>;
  return <RehearsalView rehearsals={answer} />;
}
