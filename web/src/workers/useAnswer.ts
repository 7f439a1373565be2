import { useCallback, useEffect, useRef, useState } from 'react';
import { useAppSelector } from '../store';
import type { AnswerOf, Asked, Question, Told } from './questions';

interface Kept<Q extends Question> {
  readonly question: string;
  readonly answer: AnswerOf<Q> | null;
  readonly problem: string;
}

/**
 * Returns the worker's answer to the newest question; while it works, the answer before stays. A question is asked
 * again when entries have changed; null asks nothing. One question is worked on at a time, and of those that come
 * meanwhile the last one counts: typing fast does not pile up work.
 */
export function useAnswer<Q extends Question>(
  question: Q | null,
): { answer: AnswerOf<Q> | null; problem: string; busy: boolean } {
  const worker = useRef<Worker | null>(null);
  /** What is being worked on, and what comes after it. */
  const line = useRef<{ now: string | null; next: string | null }>({ now: null, next: null });
  const changes = useAppSelector((state) => state.changes);
  const [kept, setKept] = useState<Kept<Q> | null>(null);

  const send = useCallback((text: string) => {
    line.current.now = text;
    worker.current?.postMessage(JSON.parse(text) as Asked);
  }, []);

  useEffect(() => {
    const own = new Worker(new URL('./outward.worker.ts', import.meta.url), { type: 'module' });
    own.onmessage = ({ data }: MessageEvent<Told>) => {
      const { now, next } = line.current;
      line.current = { now: null, next: null };
      if (next !== null) send(next);
      // What is newer than an answer is on its way; until then this is the best that is known.
      setKept(
        'problem' in data
          ? { question: now!, answer: null, problem: data.problem }
          : { question: now!, answer: data.answer as AnswerOf<Q>, problem: '' },
      );
    };
    worker.current = own;
    return () => {
      own.terminate();
      line.current = { now: null, next: null };
    };
  }, [send]);

  const text = question && JSON.stringify({ question, stamp: String(changes) } satisfies Asked);
  useEffect(() => {
    if (!text) return;
    if (line.current.now === null) send(text);
    else line.current.next = text === line.current.now ? null : text;
  }, [text, send]);

  return {
    answer: kept?.answer ?? null,
    problem: kept?.problem ?? '',
    busy: text !== null && kept?.question !== text,
  };
}
