import { useEffect, useRef, useState } from 'react';
import { useAppSelector } from '../store';
import type { AnswerOf, Asked, Question, Told } from './questions';

interface Kept<Q extends Question> {
  readonly question: string;
  readonly answer: AnswerOf<Q> | null;
  readonly problem: string;
}

/**
 * Returns the worker's answer to the newest question; while it works, the answer before stays. A question is asked
 * again when entries have changed; null asks nothing.
 */
export function useAnswer<Q extends Question>(
  question: Q | null,
): { answer: AnswerOf<Q> | null; problem: string; busy: boolean } {
  const worker = useRef<Worker | null>(null);
  const asked = useRef({ id: 0, question: '' });
  const changes = useAppSelector((state) => state.changes);
  const [kept, setKept] = useState<Kept<Q> | null>(null);

  useEffect(() => {
    const own = new Worker(new URL('./outward.worker.ts', import.meta.url), { type: 'module' });
    own.onmessage = ({ data }: MessageEvent<Told>) => {
      if (data.id !== asked.current.id) return;
      const { question: text } = asked.current;
      setKept(
        'problem' in data
          ? { question: text, answer: null, problem: data.problem }
          : { question: text, answer: data.answer as AnswerOf<Q>, problem: '' },
      );
    };
    worker.current = own;
    return () => own.terminate();
  }, []);

  const text = question && JSON.stringify({ question, stamp: String(changes) });
  useEffect(() => {
    if (!text) return;
    asked.current = { id: asked.current.id + 1, question: text };
    const { question: own, stamp } = JSON.parse(text) as Pick<Asked, 'question' | 'stamp'>;
    worker.current?.postMessage({ id: asked.current.id, question: own, stamp } satisfies Asked);
  }, [text]);

  return {
    answer: kept?.answer ?? null,
    problem: kept?.problem ?? '',
    busy: text !== null && kept?.question !== text,
  };
}
