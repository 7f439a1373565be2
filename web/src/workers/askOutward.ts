import { remoteOf, type RemoteWorker } from './remote';
import type { AnswerOf, Outward, Question } from './questions';
import { LANGUAGE } from '../texts/language';

/** The one worker in which outward views are worked out; it keeps the entries that it has fetched. */
let remote: RemoteWorker<Outward> | null = null;

interface Job {
  readonly asker: object;
  readonly work: (remote: RemoteWorker<Outward>) => Promise<unknown>;
  /** Is told the answer, or null where nobody waits for it any more. */
  readonly resolve: (answer: unknown) => void;
  readonly reject: (error: Error) => void;
}

let running: Job | null = null;
let waiting: Job[] = [];

/**
 * Returns the answer to a question, or null where the same asker has asked again meanwhile or has gone. One question is
 * worked on at a time, and of each asker's only the newest waits: typing fast does not pile up work. `stamp` changes
 * whenever entries may have changed. Rejects with what is wrong.
 */
export function askOutward<Q extends Question>(
  question: Q,
  stamp: string,
  asker: object = {},
): Promise<AnswerOf<Q> | null> {
  drop(asker);
  return new Promise((resolve, reject) => {
    const work = ({ offered, failed }: RemoteWorker<Outward>) => {
      const answer = offered[question.kind] as unknown as (q: Q, s: string) => Promise<AnswerOf<Q>>;
      return Promise.race([answer(question, stamp), failed]);
    };
    waiting.push({ asker, work, resolve: resolve as Job['resolve'], reject });
    next();
  });
}

/** Forgets what an asker still waits for; work that nobody else asked for is ended. */
export function leaveOutward(asker: object): void {
  drop(asker);
  if (running?.asker !== asker) return;
  running.resolve(null);
  running = null;
  end();
  next();
}

function drop(asker: object): void {
  for (const job of waiting) if (job.asker === asker) job.resolve(null);
  waiting = waiting.filter((job) => job.asker !== asker);
}

function end(): void {
  remote?.end();
  remote = null;
}

function next(): void {
  if (running) return;
  const job = waiting.shift();
  if (!job) return;
  running = job;
  remote ??= remoteOf<Outward>(
    new Worker(new URL('./outward.worker.ts', import.meta.url), { type: 'module', name: LANGUAGE }),
  );
  const own = remote;
  own.failed.catch(() => {
    if (remote === own) end();
  });
  job
    .work(own)
    .then(job.resolve, job.reject)
    .finally(() => {
      if (running !== job) return;
      running = null;
      next();
    });
}
