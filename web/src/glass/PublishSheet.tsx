import { skipToken } from '@reduxjs/toolkit/query';
import type { Demand, WindowInput } from '@zonal/core/glass';
import { useMemo, useState } from 'react';
import {
  problemOf,
  useWatchQuery,
  useWindowReachQuery,
  useOpenWindowMutation,
  useSaveWindowMutation,
  useScheduleDraftMutation,
} from '../api/zonalApi';
import { NOTHING_WATCHED, listingAfter, publicAddressEnd, rehearsedWindow } from '@zonal/core/glass';
import type { OutwardWindow, WindowDraft, WindowReach } from '@zonal/core/api';
import type { Instant } from '@zonal/core/zones';
import { Confirmations, useConfirming } from '../rehearsal/Confirmations';
import { RehearsalView } from '../rehearsal/RehearsalView';
import { useAnswer } from '../workers/useAnswer';
import type { RehearsalQuestion } from '../workers/questions';
import { Button, OutsideButton } from '../ui/Button';
import { LazyDateField } from '../ui/LazyDateField';
import { Faded, Row, Stack } from '../ui/layout';
import { Term } from '../ui/Term';
import { Loading, Notice } from '../ui/Notice';
import { Refusal } from '../ui/Refusal';
import { Sheet } from '../ui/Sheet';
import { momentWords, readersWords } from '../ui/timeWords';
import { rulesOfDraft, type DraftSetting } from './draft';
import { t } from '../texts/glass';

interface PublishSheetProps {
  draft: WindowInput;
  setting: DraftSetting;
  onPublished: (window: OutwardWindow) => void;
  onScheduled: (draft: WindowDraft | null) => void;
  /** Goes on from a version that a colleague has published meanwhile. */
  onTake: (window: OutwardWindow, whose: 'theirs' | 'mine') => void;
  onClose: () => void;
}

function publicEndOfDraft(window: OutwardWindow, draft: WindowInput, now: number): Instant {
  return publicAddressEnd({ listed: draft.listed, ...listingAfter(window, draft, now) });
}

/** Says how many readers lose a window's public address by a draft, and when; without a number while `reach` is not known. */
function publicEndWords(
  window: OutwardWindow,
  draft: WindowInput,
  reach: WindowReach | undefined,
  now: number,
): string {
  const until = publicEndOfDraft(window, draft, now);
  const end =
    until > now && until < Infinity
      ? t('addressWorksUntil', { time: momentWords(new Date(until).toISOString(), now) })
      : t('addressStops');
  if (!reach) return end;
  const { subscribers = [] } = reach.keys.find((k) => k.id === window.id) ?? {};
  const readers = subscribers.reduce((sum, s) => sum + s.readers, 0);
  return `${readers ? t('willLose', { readers: readersWords(readers) }) : t('nobodyFollows')} ${end}`;
}

/** The rehearsal of a draft: what readers would see differently, what must be confirmed, and then the step itself. */
export function PublishSheet({
  draft,
  setting,
  onPublished,
  onScheduled,
  onTake,
  onClose,
}: PublishSheetProps) {
  const { window } = setting;
  const [now] = useState(() => Date.now());
  const { data: watch } = useWatchQuery();
  const endsEarlier = window && publicEndOfDraft(window, draft, now) < publicAddressEnd(window);
  const { data: reach } = useWindowReachQuery(endsEarlier ? window.id : skipToken);
  const [at, setAt] = useState('');
  const [open, opening] = useOpenWindowMutation();
  const [save, saving] = useSaveWindowMutation();
  const [schedule, scheduling] = useScheduleDraftMutation();

  const question = useMemo((): RehearsalQuestion => {
    const rules = rulesOfDraft(draft, setting);
    const first = {
      id: 'first',
      madeOutTo: t('firstKey'),
      audience: draft.audience ?? 'street',
      cap: null,
      expiresAt: null,
    } as const;
    const before = window && rehearsedWindow(window, window, now);
    const after = rehearsedWindow(
      {
        ...{ id: window?.id ?? 'new', listed: draft.listed, closedAt: null, keys: window?.keys ?? [first] },
        ...listingAfter(window, draft, now),
      },
      rules,
      now,
    );
    return {
      kind: 'rehearsal',
      pairs: [{ before, after }],
      changes: [],
      watch: watch ?? NOTHING_WATCHED,
      now,
    };
  }, [draft, setting, window, watch, now]);
  const { answer, problem: failed, busy } = useAnswer(watch ? question : null);
  const told = answer?.[0];
  const problem = problemOf(opening.error ?? saving.error ?? scheduling.error);
  const refused = (problem?.details['demands'] as Demand[] | undefined) ?? [];
  const name = draft.name.trim();
  const notes = window ? { 'public-address-ends': publicEndWords(window, draft, reach, now) } : {};
  const confirming = useConfirming([...(told?.demands ?? []), ...refused], name, t('windowsName'), notes);
  const { accepted } = confirming;
  const ready = !!told && confirming.ready;

  const publish = async () => {
    const body = { ...draft, name, confirmed: accepted };
    const { data } = window ? await save({ id: window.id, body }) : await open(body);
    if (data) onPublished(data);
  };
  const setTime = async (time: string | null) => {
    if (!window) return;
    const { data } = await schedule({ id: window.id, at: time, confirmed: accepted });
    if (data) onScheduled(data.draft);
  };
  const working = opening.isLoading || saving.isLoading || scheduling.isLoading;
  const current = problem?.code === 'version-conflict' ? (problem.details['current'] as OutwardWindow) : null;

  return (
    <Sheet title={t('rehearsalTitle')} onClose={onClose} wide>
      <Stack>
        <p>{t.rich('rehearsalHint', { term: (text) => <Term word="rehearsal">{text}</Term> })}</p>
        {(busy || !told) && !failed && <Loading what={t('computingDifference')} />}
        {failed && <Notice>{failed}</Notice>}
        {told && <RehearsalView rehearsals={[{ ...told, quiet: false }]} />}
        <Confirmations {...confirming} />
        <Refusal problem={problem} />
        {current && (
          <Row>
            <Button onPress={() => onTake(current, 'theirs')}>{t('useTheirs')}</Button>
            <Button onPress={() => onTake(current, 'mine')}>{t('keepMineAgain')}</Button>
          </Row>
        )}
        <Row>
          <OutsideButton isDisabled={!ready || working} onPress={() => void publish()}>
            {window ? t('showNow') : t('openWindowNow')}
          </OutsideButton>
          <Button onPress={onClose}>{t('notYet')}</Button>
        </Row>
        {window && (
          <Row style={{ alignItems: 'end' }}>
            <LazyDateField label={t('orAtTime')} withTime value={at} onChange={setAt} />
            <Button
              isDisabled={!ready || !at || working}
              onPress={() => void setTime(new Date(at).toISOString())}
            >
              {t('showThen')}
            </Button>
            <Faded>{t('scheduleHint')}</Faded>
          </Row>
        )}
      </Stack>
    </Sheet>
  );
}
