import type { AnswerOf, Asked, Question, Told } from './questions';

let worker: Worker | null = null;
let line: Promise<unknown> = Promise.resolve();

/**
 * Returns the worker's answer to a single question; rejects with what is wrong. One question is worked on at a time.
 * `stamp` changes whenever entries may have changed.
 */
export function askOutward<Q extends Question>(question: Q, stamp: string): Promise<AnswerOf<Q>> {
  const answer = line.then(
    () =>
      new Promise<AnswerOf<Q>>((resolve, reject) => {
        worker ??= new Worker(new URL('./outward.worker.ts', import.meta.url), { type: 'module' });
        worker.onmessage = ({ data }: MessageEvent<Told>) => {
          if ('problem' in data) reject(new Error(data.problem));
          else resolve(data.answer as AnswerOf<Q>);
        };
        worker.onerror = (event) => reject(new Error(event.message));
        worker.postMessage({ question, stamp } satisfies Asked);
      }),
  );
  line = answer.catch(() => undefined);
  return answer;
}
