import pg from 'pg';
import { CHANNEL } from '../db/changes';
import { storeOptions } from '../db/connect';
import { log } from '../log';
import type { Publisher } from './publisher';

const RETRY = 1000;
/** Also without a notification the log is looked at, in case one was missed, and to hear that the store is there. */
const TICK = 5_000;
const SHORTEST = 20;

/**
 * Keeps a publisher in step: on each notification, after each loss of the connection, at the turn of each window's
 * day, and now and then. `taken` is called each time that it has taken in what there was; `listening` resolves when changes
 * are heard for the first time.
 */
export function followChanges(
  databaseUrl: string,
  publisher: Publisher,
  taken: () => void = () => undefined,
): { listening: Promise<void>; close: () => Promise<void> } {
  let client: pg.Client | null = null;
  let closed = false;
  let retry: NodeJS.Timeout | undefined;
  let asking: Promise<null> | null = null;
  let heard!: () => void;
  const listening = new Promise<void>((resolve) => (heard = resolve));
  const look = async () => {
    await publisher.catchUp();
    taken();
    // It can take long, and must not keep the store from being heard.
    void publisher.rest();
  };

  const open = async () => {
    const next = new pg.Client({ connectionString: databaseUrl, ...storeOptions() });
    client = next;
    asking = null;
    next.on('notification', () => void look());
    next.on('error', (error) => log.warn({ err: error }, 'change listener lost its connection'));
    next.on('end', () => again(next));
    try {
      await next.connect();
      await next.query(`LISTEN ${CHANNEL}`);
      heard();
      await look();
    } catch (error) {
      log.warn({ err: error }, 'change listener cannot connect');
      next.end().catch(() => undefined);
      again(next);
    }
  };
  /** One connection at a time: that a connection is lost is heard in several ways. */
  const again = (lost: pg.Client) => {
    if (closed || client !== lost) return;
    client = null;
    retry = setTimeout(() => void open(), RETRY);
  };
  let ticker: NodeJS.Timeout | undefined;
  const tick = () => {
    if (closed) return;
    const wait = Math.min(TICK, Math.max(SHORTEST, publisher.nextTurn - Date.now()));
    // A word now and then keeps the connection from being taken for silent.
    ticker = setTimeout(() => {
      if (client && !asking) {
        asking = client.query('SELECT 1').then(
          () => (asking = null),
          () => (asking = null),
        );
      }
      void look().finally(tick);
    }, wait).unref();
  };
  tick();
  void open();

  return {
    listening,
    close: async () => {
      closed = true;
      clearTimeout(retry);
      clearTimeout(ticker);
      await client?.end().catch(() => undefined);
    },
  };
}
