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
    start: () => thread.start(),
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
