import { isStorageAway } from '../db/storageAway';
import { log } from '../log';

/**
 * Keeps this thread alive if a library leaves the loss of the database unhandled, as the job queue does where it notes that a job
 * is done. Whatever else is unhandled still ends the thread.
 */
export function surviveStorageLoss(): void {
  process.on('unhandledRejection', (reason) => {
    if (!isStorageAway(reason)) throw reason;
    log.warn({ err: reason }, 'the database was lost in the middle of something');
  });
}
