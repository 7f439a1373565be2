import { rehearsedWindow, withCeiling, type Audience, type Demand, type Glass } from '@zonal/core/glass';
import { useMemo, useState } from 'react';
import {
  problemOf,
  useAnswerRequestMutation,
  useHouseQuery,
  useSetCeilingMutation,
  useWatchQuery,
  useWindowsQuery,
} from '../api/zonalApi';
import type { Calendar, CeilingRequest } from '@zonal/core/api';
import type { RehearsalQuestion } from '../workers/questions';
import { Confirmations, useConfirming } from '../rehearsal/Confirmations';
import { RehearsalView } from '../rehearsal/RehearsalView';
import { useAnswer } from '../workers/useAnswer';
import { Button, OutsideButton } from '../ui/Button';
import { Row, Stack } from '../ui/layout';
import { Loading, Notice } from '../ui/Notice';
import { Refusal } from '../ui/Refusal';
import { Sheet } from '../ui/Sheet';
import { t } from '../texts/house';
import { AUDIENCE_WORDS, GLASS_WORDS } from '../texts/glassWords';

/** A ceiling that is about to be set. */
export interface WantedCeiling {
  readonly calendarId: string | null;
  readonly audience: Audience;
  readonly glass: Glass | null;
  /** The request that it would grant. */
  readonly request?: Pick<CeilingRequest, 'id' | 'by' | 'reason'>;
}

interface CeilingSheetProps {
  readonly wanted: WantedCeiling;
  readonly calendars: readonly Calendar[];
  readonly onClose: () => void;
}

/** Shows what a ceiling hides or discloses, before it is set or a request for it is answered. */
export function CeilingSheet({ wanted, calendars, onClose }: CeilingSheetProps) {
  const { calendarId, audience, glass, request } = wanted;
  const calendar = calendars.find((c) => c.id === calendarId);
  const { data: windows } = useWindowsQuery();
  const { data: house } = useHouseQuery();
  const { data: watch } = useWatchQuery();
  const [setCeiling, setting] = useSetCeilingMutation();
  const [reply, replying] = useAnswerRequestMutation();
  const [now] = useState(() => Date.now());
  const question = useMemo((): RehearsalQuestion | null => {
    if (!windows || !watch) return null;
    const hit = windows.filter(
      (w) => !w.closedAt && (!calendarId || w.sources.some((s) => s.calendarId === calendarId)),
    );
    const pairs = hit.map((w) => {
      // Of what is locked down nothing is seen, whatever its ceilings.
      const ceilings = calendar?.lockedAt ? w.ceilings : withCeiling(w.ceilings, wanted);
      return { before: rehearsedWindow(w, w, now), after: rehearsedWindow(w, { ...w, ceilings }, now) };
    });
    return { kind: 'rehearsal', pairs, changes: [], watch, now };
  }, [windows, watch, calendarId, calendar, wanted, now]);
  const { answer, problem } = useAnswer(question);
  const refusal = problemOf(setting.error ?? replying.error);
  const demands = [
    ...(answer?.flatMap((r) => r.demands) ?? []),
    ...((refusal?.details['demands'] as Demand[] | undefined) ?? []),
  ];
  const confirming = useConfirming(
    demands,
    calendar?.name ?? house?.name ?? '',
    calendar ? t('calendarsName') : t('housesName'),
  );
  const working = setting.isLoading || replying.isLoading;
  const setNow = async () => {
    const confirmed = confirming.accepted;
    const { error } = request
      ? await reply({ id: request.id, grant: true, confirmed })
      : await setCeiling({ calendarId, audience, glass, confirmed });
    if (!error) onClose();
  };
  const decline = async (id: string) => {
    const { error } = await reply({ id, grant: false });
    if (!error) onClose();
  };
  const place = calendarId ? (calendar?.name ?? t('aCalendar')) : t('wholeHouse');
  return (
    <Sheet
      title={request ? t('asksForCeiling', { by: request.by }) : t('ceilingEffect')}
      onClose={onClose}
      wide
    >
      <Stack>
        {request?.reason && <p>“{request.reason}”</p>}
        <p>
          {glass
            ? t('ceilingMost', {
                audience: AUDIENCE_WORDS[audience].word,
                glass: GLASS_WORDS[glass].word,
                place,
              })
            : t('ceilingNone', { audience: AUDIENCE_WORDS[audience].word, place })}{' '}
          {t('atOnceEverywhere')}
        </p>
        {problem && <Notice>{problem}</Notice>}
        {answer ? <RehearsalView rehearsals={answer} /> : <Loading what={t('computingEffect')} />}
        <Confirmations {...confirming} />
        <Refusal problem={refusal} />
        <Row>
          <OutsideButton isDisabled={!answer || working || !confirming.ready} onPress={() => void setNow()}>
            {t('setCeiling')}
          </OutsideButton>
          {request && (
            <Button isDisabled={working} onPress={() => void decline(request.id)}>
              {t('decline')}
            </Button>
          )}
          <Button onPress={onClose}>{t('cancel')}</Button>
        </Row>
      </Stack>
    </Sheet>
  );
}
