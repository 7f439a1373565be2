import pg from 'pg';
import { CHANNEL } from '../db/changes';
import { log } from '../log';
import type { Publisher } from './publisher';

const RETRY = 1000;
/** Also without a notification the log is looked at, in case one was missed. */
const TICK = 15_000;
const SHORTEST = 20;

/**
 * Keeps a publisher in step: on each notification, after each loss of the connection, at the turn of each window's
 * day, and now and then.
 */
export function followChanges(databaseUrl: string, publisher: Publisher): { close: () => Promise<void> } {
  let client: pg.Client | null = null;
  let closed = false;
  let retry: NodeJS.Timeout | undefined;

  const open = async () => {
    const next = new pg.Client({ connectionString: databaseUrl, connectionTimeoutMillis: 3000 });
    client = next;
    next.on('notification', () => void publisher.catchUp());
    next.on('error', (error) => log.warn({ err: error }, 'change listener lost its connection'));
    next.on('end', again);
    try {
      await next.connect();
      await next.query(`LISTEN ${CHANNEL}`);
      await publisher.catchUp();
    } catch (error) {
      log.warn({ err: error }, 'change listener cannot connect');
      next.removeAllListeners('end');
      again();
    }
  };
  const again = () => {
    if (!closed) retry = setTimeout(() => void open(), RETRY);
  };
  let ticker: NodeJS.Timeout | undefined;
  const tick = () => {
    if (closed) return;
    const wait = Math.min(TICK, Math.max(SHORTEST, publisher.nextTurn() - Date.now()));
    ticker = setTimeout(() => void publisher.catchUp().finally(tick), wait).unref();
  };
  tick();
  void open();

  return {
    close: async () => {
      closed = true;
      clearTimeout(retry);
      clearTimeout(ticker);
      await client?.end().catch(() => undefined);
    },
  };
}
