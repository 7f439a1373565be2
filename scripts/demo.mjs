import { fork } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ACCOUNTS } from './lib/accounts.mjs';
import { OUTSIDE_FOLDER, SEED_MAIN, SERVER_MAIN, STANDINS_MAIN, WEB_FOLDER, build } from './lib/build.mjs';
import { DATA, Programs, checkPort, claim, freeFrom, keptSecret } from './lib/launch.mjs';
import { ensureDebianPackages, ensureNpmPackages } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { Refusal, main, say } from './lib/say.mjs';

/** Returns the port that PORT names, or else the first free one from 4310 on. Throws a Refusal if PORT's is taken. */
async function demoPort() {
  const wanted = Number(process.env.PORT ?? 4310);
  if (process.env.PORT) await checkPort(wanted, 'npm run demo');
  const port = await freeFrom(wanted);
  if (port !== wanted) say(`Port ${wanted} is taken by another program, so the demo uses ${port}`);
  return port;
}

/** Runs the application with the demo's data and the simulated world outside. */
await main(async () => {
  const release = claim('demo.mjs');
  const port = await demoPort();
  await ensureNpmPackages();
  await ensureDebianPackages(['postgresql']);
  await build();

  const fresh = process.argv.includes('--fresh');
  const postgres = await startPostgres('demo', { durable: true });
  const programs = new Programs(async () => {
    await postgres.stop();
    release();
  });

  try {
    const postboxFolder = join(DATA, 'postbox');
    if (fresh) {
      postgres.dropDatabase('zonal');
      rmSync(postboxFolder, { recursive: true, force: true });
    }
    postgres.createDatabase('zonal');
    // Somebody else's site, on another origin; everybody's mail; and other people's calendar programs.
    const site = await freeFrom(port + 1);
    const postbox = await freeFrom(site + 1);
    const smtp = await freeFrom(postbox + 1);
    const followers = await freeFrom(smtp + 1);
    const standins = {
      HOST_SITE_URL: `http://127.0.0.1:${site}`,
      POSTBOX_URL: `http://127.0.0.1:${postbox}`,
      SMTP_URL: `smtp://127.0.0.1:${smtp}`,
      FOLLOWERS_URL: `http://127.0.0.1:${followers}`,
    };
    const env = {
      PUBLIC_URL: `http://127.0.0.1:${port}`,
      MAIL_FROM: 'calendars@ostrel.example',
      ...standins,
      // A setting swaps in the real thing.
      ...process.env,
      POSTBOX_FOLDER: postboxFolder,
      DATABASE_URL: postgres.url('zonal'),
      PORT: String(port),
      SESSION_SECRET: keptSecret('session-secret'),
      WEB_FOLDER,
      OUTSIDE_FOLDER,
      DEMO_ACCOUNTS: JSON.stringify(ACCOUNTS),
      DEMO_DAYS: '21',
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
    };
    await new Promise((resolve, reject) => {
      fork(SEED_MAIN, { env }).once('exit', (code) =>
        code === 0
          ? resolve()
          : reject(new Refusal('The demo data could not be written. Try: npm run demo -- --fresh')),
      );
    });
    await programs.start(STANDINS_MAIN, { ...env, ...standins });
    await programs.start(SERVER_MAIN, env);
    await printAddresses(`http://127.0.0.1:${port}`);
    console.log(`  A site of somebody else, to try embeds in: ${env.HOST_SITE_URL}`);
    console.log(`  Everybody’s mail: ${env.POSTBOX_URL}`);
    console.log(`  Other people’s calendar programs: ${env.FOLLOWERS_URL}\n`);
    say('Ctrl-C stops everything. Data is kept; “npm run demo -- --fresh” starts over.');
  } catch (error) {
    console.error(error instanceof Refusal ? error.message : error);
    await programs.stop(1);
  }
});

/** On a busy machine the first answer may take its time. */
const TRIES = 60;

/** Returns the demo's accounts and windows once the server answers. Throws a Refusal with its last answer if it never does. */
async function demoAt(base) {
  for (let tries = 1; ; tries++) {
    const answer = await fetch(`${base}/api/demo`);
    if (answer.ok) return answer.json();
    if (tries === TRIES) throw new Refusal(`The server answers ${answer.status}: ${await answer.text()}`);
    await new Promise((resolve) => setTimeout(resolve, 1000));
  }
}

async function printAddresses(base) {
  const { accounts, windows } = await demoAt(base);
  console.log(`\nZonal Window, the Ostrel Harbour Trust: ${base}\n`);
  for (const { name, email, password, role } of accounts)
    console.log(`  ${name}, ${role}: ${email} / ${password}`);
  for (const { title, zone, glass, see, embed, feed } of windows) {
    console.log(`\n  ${title} (${zone}; ${glass})\n    page  ${see}\n    embed ${embed}\n    feed  ${feed}`);
  }
  console.log('');
}
