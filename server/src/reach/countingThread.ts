import type { Fetched } from '../outside/counting';
import { Thread } from '../threads/thread';
import type { Storing } from './pollLog';

/** What the counter's thread is started with. */
export interface CounterData {
  readonly databaseUrl: string;
  readonly proxies: number;
}

/** Megabytes: polls that wait while the store is away, and what is known of those who look. */
const MEMORY = 512;

/** Starts a counter in a thread of its own, away from the one that answers. */
export async function countingThread(data: CounterData, folder: URL): Promise<Storing> {
  const file = new URL('counterThread.js', folder);
  const thread = new Thread<object, Storing>('counter', file, data, {}, MEMORY);
  await thread.start();
  return {
    take: (batch: readonly Fetched[]) => thread.call((counter) => counter.take(batch)),
    close: async () => {
      await thread.call((counter) => counter.close()).catch(() => undefined);
      await thread.close();
    },
  };
}
