// The thread that uses it can only end cleanly if the main thread has loaded it first.
import 'sharp';
import { configFrom } from './config';
import { log } from './log';
import { firstAddress } from './people/firstAddress';
import { startServer } from './server';
import { surviveStorageLoss } from './threads/storageLoss';

/** A process that could not stop cleanly in this time, such as while the database says nothing, ends all the same. */
const STOP_DEADLINE_MS = 20_000;

surviveStorageLoss();
try {
  const config = configFrom(process.env);
  const server = await startServer(config);
  const first = await firstAddress(config.publicUrl);
  if (first)
    process.stdout.write(`\nThere is no account yet. Begin here, once, within a day:\n  ${first}\n\n`);
  // Tells the start script that pages can be asked for.
  process.send?.('ready');
  const stop = () => {
    setTimeout(() => {
      log.error('could not stop in time; ending now');
      process.exit(1);
    }, STOP_DEADLINE_MS).unref();
    server.close().then(
      () => process.exit(0),
      (error: unknown) => {
        log.error({ err: error }, 'could not stop cleanly');
        process.exit(1);
      },
    );
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  // The script that started it is gone, and would have stopped it.
  process.once('disconnect', stop);
  process.channel?.unref();
} catch (error) {
  log.fatal({ err: error }, 'could not start');
  process.exit(1);
}
