import { useEffect, useRef, useState } from 'react';
import { useAppSelector } from '../store';
import { askOutward, leaveOutward } from './askOutward';
import type { AnswerOf, Question } from './questions';

interface Kept<Q extends Question> {
  readonly question: string;
  readonly answer: AnswerOf<Q> | null;
  readonly problem: string;
}

/**
 * Returns the answer to the newest question; while it is worked out, the answer before stays. A question is asked again
 * when entries have changed; null asks nothing.
 */
export function useAnswer<Q extends Question>(
  question: Q | null,
): { answer: AnswerOf<Q> | null; problem: string; busy: boolean } {
  const changes = String(useAppSelector((state) => state.changes));
  const asker = useRef({});
  const [kept, setKept] = useState<Kept<Q> | null>(null);
  const asked = question && JSON.stringify(question);
  const text = asked && `${changes} ${asked}`;
  useEffect(() => {
    const own = asker.current;
    return () => leaveOutward(own);
  }, []);
  useEffect(() => {
    if (!text) return;
    askOutward(JSON.parse(asked!) as Q, changes, asker.current).then(
      (answer) => answer && setKept({ question: text, answer, problem: '' }),
      (error: unknown) => setKept({ question: text, answer: null, problem: (error as Error).message }),
    );
  }, [text, asked, changes]);
  return {
    answer: kept?.answer ?? null,
    problem: kept?.problem ?? '',
    busy: text !== null && kept?.question !== text,
  };
}
