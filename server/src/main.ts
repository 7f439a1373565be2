import { configFrom } from './config';
import { log } from './log';
import { startServer } from './server';

try {
  const server = await startServer(configFrom(process.env));
  // Tells the start script that pages can be asked for.
  process.send?.('ready');
  const stop = () => {
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
} catch (error) {
  log.fatal({ err: error }, 'could not start');
  process.exit(1);
}
