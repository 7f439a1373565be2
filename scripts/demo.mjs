import { fork, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { ACCOUNTS } from './lib/accounts.mjs';
import { OUTSIDE_FOLDER, SEED_MAIN, SERVER_MAIN, STANDINS_MAIN, WEB_FOLDER, build } from './lib/build.mjs';
import { ensureDebianPackages, ensureNpmPackages } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { ROOT, alive } from './lib/run.mjs';
import { Refusal, main, say } from './lib/say.mjs';

const DATA = join(ROOT, '.data');
const LOCK = join(DATA, 'demo.pid');

function portFree(port) {
  return new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
  });
}

async function freeFrom(port) {
  while (!(await portFree(port))) port++;
  return port;
}

async function checkPort(port) {
  if (await portFree(port)) return;
  const other = await freeFrom(port + 1);
  throw new Refusal(`Port ${port} is taken by another program. Start with: PORT=${other} npm run demo`);
}

function checkAlone() {
  mkdirSync(DATA, { recursive: true });
  const pid = existsSync(LOCK) ? Number(readFileSync(LOCK, 'utf8')) : 0;
  const running = pid && pid !== process.pid && alive(pid) && isDemo(pid);
  if (running)
    throw new Refusal(`A demo of this checkout runs already (process ${pid}). Stop it with Ctrl-C first.`);
  writeFileSync(LOCK, String(process.pid));
}

function isDemo(pid) {
  const { stdout } = spawnSync('ps', ['-o', 'args=', '-p', String(pid)], { encoding: 'utf8' });
  return stdout.includes('demo.mjs');
}

function sessionSecret() {
  const file = join(DATA, 'session-secret');
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('base64url'), { mode: 0o600 });
  return readFileSync(file, 'utf8');
}

await main(async () => {
  const port = Number(process.env.PORT ?? 4310);
  await checkPort(port);
  checkAlone();
  await ensureNpmPackages();
  await ensureDebianPackages(['postgresql']);
  await build();

  const postgres = await startPostgres('demo', { durable: true });
  const running = [];
  let stopping = false;
  const stop = async (code) => {
    if (stopping) return;
    stopping = true;
    for (const child of running.filter((c) => c.exitCode === null)) {
      child.kill('SIGTERM');
      await new Promise((resolve) => child.once('exit', resolve));
    }
    await postgres.stop();
    rmSync(LOCK, { force: true });
    process.exit(code);
  };
  process.on('SIGINT', () => void stop(0));
  process.on('SIGTERM', () => void stop(0));

  try {
    if (process.argv.includes('--fresh')) postgres.dropDatabase('zonal');
    postgres.createDatabase('zonal');
    // Somebody else's site, on another origin.
    const site = await freeFrom(port + 1);
    const env = {
      ...process.env,
      PUBLIC_URL: process.env.PUBLIC_URL ?? `http://127.0.0.1:${port}`,
      HOST_SITE_URL: process.env.HOST_SITE_URL ?? `http://127.0.0.1:${site}`,
      DATABASE_URL: postgres.url('zonal'),
      PORT: String(port),
      SESSION_SECRET: sessionSecret(),
      WEB_FOLDER,
      OUTSIDE_FOLDER,
      DEMO_ACCOUNTS: JSON.stringify(ACCOUNTS),
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
    };
    await new Promise((resolve, reject) => {
      fork(SEED_MAIN, { env }).once('exit', (code) =>
        code === 0
          ? resolve()
          : reject(new Refusal('The demo data could not be written. Try: npm run demo -- --fresh')),
      );
    });
    // In process groups of their own, so that Ctrl-C is handled here and in order.
    for (const program of [...(process.env.HOST_SITE_URL ? [] : [STANDINS_MAIN]), SERVER_MAIN]) {
      const child = fork(program, { env, detached: true });
      running.push(child);
      child.once('exit', () => void stop(1));
      await new Promise((resolve) => child.once('message', resolve));
    }
    await tell(port);
    console.log(`  A site of somebody else, to try embeds in: ${env.HOST_SITE_URL}\n`);
    say('Ctrl-C stops everything. Data is kept; “npm run demo -- --fresh” starts over.');
  } catch (error) {
    console.error(error instanceof Refusal ? error.message : error);
    await stop(1);
  }
});

async function tell(port) {
  const base = `http://127.0.0.1:${port}`;
  const { accounts, windows } = await (await fetch(`${base}/api/demo`)).json();
  console.log(`\nZonal Window, the Ostrel Harbour Trust: ${base}\n`);
  for (const { name, email, password, role } of accounts)
    console.log(`  ${name}, ${role}: ${email} / ${password}`);
  for (const { title, zone, glass, see, embed, feed } of windows) {
    console.log(`\n  ${title} (${zone}; ${glass})\n    page  ${see}\n    embed ${embed}\n    feed  ${feed}`);
  }
  console.log('');
}
