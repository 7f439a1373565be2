import type { Demand } from '@zonal/core/glass';
import { useState, type ReactNode } from 'react';
import { useCalendarsQuery, useWatchQuery, useWindowsQuery } from '../api/zonalApi';
import { NOTHING_WATCHED } from '@zonal/core/glass';
import type { EntryChange } from '@zonal/core/api';
import { useAppSelector } from '../store';
import { Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { askOutward } from '../workers/askOutward';
import { Confirmations, useConfirming } from './Confirmations';
import { inFull } from './inFull';
import { effectQuestion } from './OutsideEffect';
import type { RehearsalLines } from '../workers/questions';
import { RehearsalView } from './RehearsalView';
import { t } from '../texts/rehearsal';

/** What was found out about one change. */
interface Found {
  readonly of: string;
  readonly rehearsals: readonly RehearsalLines[];
  /** Why it could not be worked out, or empty. */
  readonly problem: string;
}

export interface OutsideGate {
  /** Returns whether changes may be made now: they have no large effect outside, or each one is confirmed. */
  readonly pass: (changes: readonly EntryChange[], calendarIds: readonly string[]) => Promise<boolean>;
  readonly looking: boolean;
  /** Whether something waits for being confirmed. */
  readonly waits: boolean;
  readonly forget: () => void;
  /** What has to be confirmed, with all that changes outside; null where nothing is asked. */
  readonly view: ReactNode;
}

/** Looks at what changes of entries would do outside before they are made, and asks where the effect is large. */
export function useOutsideGate(calendarName: string): OutsideGate {
  const { data: windows = [] } = useWindowsQuery();
  const { data: calendars = [] } = useCalendarsQuery();
  const { data: watch } = useWatchQuery();
  const stamp = useAppSelector((state) => state.changes);
  const [found, setFound] = useState<Found | null>(null);
  const [looking, setLooking] = useState(false);
  const demands = found?.rehearsals.flatMap((r): readonly Demand[] => r.demands) ?? [];
  const confirming = useConfirming(demands, calendarName, t('calendarsName'));

  const pass: OutsideGate['pass'] = async (changes, calendarIds) => {
    const of = JSON.stringify(changes);
    if (found?.of === of) return confirming.ready;
    const question = effectQuestion(
      inFull(windows, calendars),
      watch ?? NOTHING_WATCHED,
      changes,
      calendarIds,
      Date.now(),
    );
    if (!question.pairs.length) return true;
    setLooking(true);
    try {
      const rehearsals = (await askOutward(question, String(stamp))) ?? [];
      const large = rehearsals.some((r) => r.demands.length > 0);
      setFound(large ? { of, rehearsals, problem: '' } : null);
      return !large;
    } catch (error) {
      setFound({ of, rehearsals: [], problem: (error as Error).message });
      return false;
    } finally {
      setLooking(false);
    }
  };

  return {
    pass,
    looking,
    waits: found !== null && !confirming.ready,
    forget: () => setFound(null),
    view: found && (
      <Stack>
        {found.problem ? (
          <Notice>{t('effectUnknown', { problem: found.problem })}</Notice>
        ) : (
          <RehearsalView rehearsals={found.rehearsals} />
        )}
        <Confirmations {...confirming} />
      </Stack>
    ),
  };
}
