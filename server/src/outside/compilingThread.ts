import { log } from '../log';
import { Thread } from '../threads/thread';
import type { Compiler } from './compiler';
import type { Compiling, Order, Outside, Written } from './outside';

/** What the compiler's thread is started with. */
export interface CompilerData {
  readonly databaseUrl: string;
  readonly publicUrl: string;
  readonly keysSecret: string;
  readonly mails: boolean;
  readonly hub: string;
  readonly room: number;
  /** The folder of the built threads. */
  readonly folder: string;
}

/** A start reads the whole change log: on a busy machine the database may give up on it. */
const START_TRIES = 4;
const START_RETRY_MS = 2_000;

async function startPatiently(thread: { start(): Promise<void> }): Promise<void> {
  for (let tries = 1; ; tries++)
    try {
      return await thread.start();
    } catch (error) {
      if (tries === START_TRIES) throw error;
      log.warn({ err: error, tries }, 'the compiler could not be started; trying again');
      await new Promise((resolve) => setTimeout(resolve, START_RETRY_MS * tries));
    }
}

/** Returns a compiler in a thread of its own. */
export function compilingThread(
  outside: Outside,
  options: Omit<CompilerData, 'folder'>,
  folder: URL,
): Compiling {
  const data: CompilerData = { ...options, folder: folder.href };
  const thread = new Thread<Outside, Compiler>(
    'compiler',
    new URL('compilerThread.js', folder),
    data,
    outside,
    // What is worked out at one time comes on top, and what is kept is weighed roughly.
    2048 + Math.ceil((2 * data.room) / 1024 / 1024),
    (compiler) => compiler.start(),
  );
  return {
    start: () => startPatiently(thread),
    catchUp: () => thread.call((c) => c.catchUp()),
    rest: () => thread.call((c) => c.rest()),
    nextTurn: () => thread.call((c) => c.nextTurn()),
    bring: (viewId: string) => thread.call((c) => c.bring(viewId)),
    write: (order: Order) => thread.call<Written | null>((c) => c.write(order)),
    close: async () => {
      await thread.call((c) => c.close()).catch(() => undefined);
      await thread.close();
    },
  };
}
