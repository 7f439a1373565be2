import { log } from '../log';
import { closeDue, publishDue, type Publishing } from './publishWindow';

const TICK = 5000;

/** Shows drafts and closes windows when their time has come; looked at every five seconds. */
export function followSchedule(publishing: Publishing): { close: () => Promise<void> } {
  let running = Promise.resolve();
  const ticker = setInterval(() => {
    running = running
      .then(() => publishDue(publishing, Date.now()))
      .then(() => closeDue(publishing, Date.now()))
      .catch((error: unknown) => log.warn({ err: error }, 'what is scheduled could not be looked at'));
  }, TICK);
  ticker.unref();
  return {
    close: async () => {
      clearInterval(ticker);
      await running;
    },
  };
}
