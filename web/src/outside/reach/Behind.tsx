import { useMemo, useState } from 'react';
import { problemOf, usePastViewQuery } from '../../api/zonalApi';
import { View } from '../../rehearsal/RehearsalView';
import { Faded, Stack } from '../../ui/layout';
import { Loading, Notice } from '../../ui/Notice';
import type { PastQuestion } from '../../workers/questions';
import { useAnswer } from '../../workers/useAnswer';
import { t } from '../../texts/outside';

interface BehindProps {
  keyId: string;
  /** The revision that is held, and the one that is outside now. */
  held: number;
  newest: number;
}

/** What a program that holds an earlier revision still shows, and what it does not have yet. */
export function Behind({ keyId, held, newest }: BehindProps) {
  const before = usePastViewQuery({ keyId, number: held });
  const after = usePastViewQuery({ keyId, number: newest });
  const [now] = useState(() => Date.now());
  const question = useMemo((): PastQuestion | null => {
    if (!before.data || !after.data) return null;
    return { kind: 'past', before: before.data, after: after.data, number: newest, show: 'list', now };
  }, [before.data, after.data, newest, now]);
  const { answer, problem } = useAnswer(question);
  const failed = problemOf(before.error ?? after.error)?.message ?? problem;
  if (failed) return <Notice>{failed}</Notice>;
  if (!answer) return <Loading what={t('comparing')} />;
  return (
    <Stack>
      <Faded>{t('behindHint', { held, newest })}</Faded>
      <View view={answer.lines} plain />
    </Stack>
  );
}
