import { fork, spawn } from 'node:child_process';
import { join } from 'node:path';
import { OUTSIDE_FOLDER, SERVER_ENTRIES, copyOutside } from './lib/build.mjs';
import { ACCOUNTS } from './lib/accounts.mjs';
import { ensureDebianPackages, ensureNpmPackages } from './lib/packages.mjs';
import { freePort, startPostgres } from './lib/postgres.mjs';
import { ROOT } from './lib/run.mjs';
import { main, say } from './lib/say.mjs';

const OUT = join(ROOT, 'dist', 'dev');
const PAGES = Number(process.env.PORT ?? 5173);

/**
 * Runs server and application with the demo's data in a database of their own, and brings what is changed in the sources into
 * both: the server starts again, the application's modules are replaced in the open page.
 */
await main(async () => {
  await ensureNpmPackages();
  await ensureDebianPackages(['postgresql']);
  copyOutside();
  const postgres = await startPostgres('dev', { durable: false });
  postgres.createDatabase('zonal');
  const port = await freePort();
  const site = await freePort();
  const env = {
    ...process.env,
    DATABASE_URL: postgres.url('zonal'),
    PORT: String(port),
    PUBLIC_URL: `http://127.0.0.1:${PAGES}`,
    HOST_SITE_URL: `http://127.0.0.1:${site}`,
    POSTBOX_URL: `http://127.0.0.1:${await freePort()}`,
    SMTP_URL: `smtp://127.0.0.1:${await freePort()}`,
    MAIL_FROM: 'calendars@ostrel.example',
    SESSION_SECRET: 'a secret for developing only',
    OUTSIDE_FOLDER,
    DEMO_ACCOUNTS: JSON.stringify(ACCOUNTS),
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'info',
  };
  let server = null;
  let standins = null;
  let seeded = false;
  const ended = (child) => new Promise((resolve) => child.once('exit', resolve));
  const stopServer = async () => {
    if (!server || server.exitCode !== null) return;
    const gone = ended(server);
    server.kill('SIGTERM');
    await gone;
  };
  /** One build after the other: the server is stopped and started again. */
  let turn = Promise.resolve();
  const restart = () => {
    turn = turn.then(async () => {
      await stopServer();
      if (!seeded) seeded = (await ended(fork(join(OUT, 'seed.js'), { env }))) === 0;
      standins ??= fork(join(OUT, 'standins.js'), { env });
      server = fork(join(OUT, 'main.js'), { env, execArgv: process.env.INSPECT ? ['--inspect'] : [] });
    });
  };
  const { watchServer } = await import('./lib/bundle.mjs');
  const watching = await watchServer(SERVER_ENTRIES, OUT, restart);
  const vite = spawn('npx', ['vite', '--host', '127.0.0.1', '--port', String(PAGES), '--strictPort', 'web'], {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...env, SERVER_URL: `http://127.0.0.1:${port}` },
  });
  const stop = async () => {
    await watching.dispose();
    vite.kill('SIGTERM');
    await turn;
    await stopServer();
    standins?.kill('SIGTERM');
    await postgres.stop();
    process.exit(0);
  };
  process.once('SIGINT', () => void stop());
  process.once('SIGTERM', () => void stop());
  vite.once('exit', () => void stop());
  say(
    `The application is at http://127.0.0.1:${PAGES}; sign in as ${ACCOUNTS[0].email} with ${ACCOUNTS[0].password}`,
  );
});
