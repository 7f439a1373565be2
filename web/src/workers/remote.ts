import { wrap, type Remote } from 'comlink';
import { t } from '../texts/rehearsal';

/** A worker with what it offers. */
export interface RemoteWorker<T> {
  readonly offered: Remote<T>;
  /** Rejects when the worker fails: then it answers nothing any more. */
  readonly failed: Promise<never>;
  readonly end: () => void;
}

/** Returns a worker that was just started, with what it offers. */
export function remoteOf<T>(worker: Worker): RemoteWorker<T> {
  const failed = new Promise<never>((_resolve, reject) => {
    worker.onerror = (event) => reject(new Error(event.message || t('workNotStarted')));
  });
  failed.catch(() => undefined);
  return { offered: wrap<T>(worker), failed, end: () => worker.terminate() };
}
