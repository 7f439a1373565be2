import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { OUTSIDE_FOLDER, SEED_MAIN, SERVER_MAIN, STANDINS_MAIN, WEB_FOLDER, build } from './lib/build.mjs';
import { claim, freeFrom } from './lib/launch.mjs';
import {
  checkClocks,
  environmentAt,
  fakeTimeLibrary,
  momentForDay,
  momentNamed,
  readClocks,
} from './lib/moments.mjs';
import { ensureDebianPackages, ensureNpmPackages } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { ROOT, run } from './lib/run.mjs';
import { Refusal, main, say } from './lib/say.mjs';
import { slowest } from './lib/slowest.mjs';
import { WORKSPACES } from './lib/workspaces.mjs';

const REPORTS = join(ROOT, 'test-results');

/** How many demos the interface tests run on at once, and how many ports each demo needs. */
const E2E_DEMOS = 2;
const PORTS_PER_DEMO = 7;
/** Ports from here on are tried. It lies below the range that the system hands out by itself. */
const FIRST_E2E_PORT = 4400;

/** Returns a runner's counts from its report; a run that left no report counts as one failure. */
function countsOf(file, count) {
  try {
    return count(JSON.parse(readFileSync(join(REPORTS, file), 'utf8')));
  } catch {
    return { passed: 0, failed: 1 };
  }
}

function printSlowest() {
  const reports = Object.keys(RUNNERS).flatMap((name) => {
    const file = join(REPORTS, `${name}.json`);
    return existsSync(file) ? [[name, JSON.parse(readFileSync(file, 'utf8'))]] : [];
  });
  console.log(`\nSlowest tests:\n${slowest(Object.fromEntries(reports)).join('\n')}`);
}

const RUNNERS = {
  unit: {
    title: 'Unit and server tests',
    args: [
      'vitest',
      'run',
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${join(REPORTS, 'unit.json')}`,
    ],
    count: (r) => ({
      passed: r.numPassedTests,
      failed: r.numFailedTests + (r.success || r.numFailedTests ? 0 : 1),
    }),
  },
  e2e: {
    title: 'Tests of the real interface',
    args: ['playwright', 'test', '--config', join(ROOT, 'e2e', 'playwright.config.ts')],
    count: (r) => ({
      passed: r.stats.expected,
      failed: r.stats.unexpected + r.stats.flaky + r.errors.length,
    }),
  },
};

/** Returns ports that are free now, one list for each demo. */
async function freePorts() {
  const ports = [];
  for (let port = FIRST_E2E_PORT; ports.length < E2E_DEMOS * PORTS_PER_DEMO; port++)
    ports.push((port = await freeFrom(port)));
  return Array.from({ length: E2E_DEMOS }, (_, n) =>
    ports.slice(n * PORTS_PER_DEMO, (n + 1) * PORTS_PER_DEMO),
  );
}

/** Returns the simulated moment to test at, or null for the present. Continuous integration takes turns by the date. */
function chosenMoment(name) {
  if (name) return momentNamed(name);
  return process.env.CI ? momentForDay(Date.now()) : null;
}

const args = process.argv.slice(2);
const at = args.indexOf('--at');
const [, momentName] = at < 0 ? [] : args.splice(at, 2);
/** What is asked for: some files of one runner, or everything. */
const [first, ...rest] = args;
const only = first === undefined ? null : first === 'e2e' ? { e2e: rest } : { unit: [first, ...rest] };
/** These need neither a database nor a build. */
const bare = only?.unit?.every((path) => /^(core|web|demo|standins)\b/.test(path)) ?? false;
/** In a series of moments, what only depends on the sources is left out: style, types, and the guide that compiles them. */
const skipsSources = Boolean(process.env.SKIP_CHECKS);

/** These set the clocks of their own servers, so they do not run under a simulated one. */
const OWN_CLOCKS = 'server/src/histories/**';

/** Checks style, layers and types, then runs all tests; ends with the line `N passed, N failed`. */
await main(async () => {
  await ensureNpmPackages();
  if (bare && !momentName) return run('npx', ['vitest', 'run', ...only.unit]);
  const release = claim('test.mjs');
  const moment = chosenMoment(momentName);
  await ensureDebianPackages(['postgresql', 'chromium', 'faketime']);
  rmSync(REPORTS, { recursive: true, force: true });
  const total = { passed: 0, failed: 0 };
  const step = async (name, work) => {
    say(name);
    try {
      await work();
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      console.error(error.message);
      return false;
    }
    return true;
  };
  const check = async (name, command, args) => {
    total[(await step(name, () => run(command, args))) ? 'passed' : 'failed']++;
  };

  const checks = [
    ['Style and layers', 'npx', ['eslint', '.']],
    ['Formatting', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
    ...WORKSPACES.map(({ name, config }) => [`Types of ${name}`, 'npx', ['tsc', '--noEmit', '-p', config]]),
  ];
  // Two at a time: each keeps one core busy.
  const work = async () => {
    for (let next = checks.shift(); next; next = checks.shift()) await check(...next);
  };
  if (!only && !skipsSources) await Promise.all([work(), work()]);

  await build();
  const simulated = moment ? environmentAt(moment.at) : {};
  const postgres = await startPostgres('test', { durable: false, fresh: true, env: simulated });
  const stop = async () => {
    await postgres.stop();
    rmSync(postgres.folder, { recursive: true, force: true });
    release();
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    process.once(signal, () => void stop().then(() => process.exit(1)));
  try {
    for (const name of ['tests', 'e2e', 'e2e1', 'e2e_first', 'e2e1_first']) postgres.createDatabase(name);
    const env = {
      ...process.env,
      ...simulated,
      TEST_DATABASE_URL: postgres.url('tests'),
      E2E_DATABASE_URL: postgres.url('e2e'),
      SERVER_MAIN: process.env.SERVER_MAIN ?? SERVER_MAIN,
      SEED_MAIN,
      STANDINS_MAIN,
      WEB_FOLDER,
      OUTSIDE_FOLDER,
      FAKETIME_LIBRARY: fakeTimeLibrary(),
      REPORTS,
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'silent',
    };
    if (moment) {
      say(`Simulated clock: ${moment.at} (${moment.what}). The same again: npm test -- --at ${moment.name}`);
      say(`Not under a simulated clock: ${OWN_CLOCKS}`);
      checkClocks(moment.at, { PostgreSQL: postgres.clock(), ...readClocks(env) });
    }
    for (const [name, { title, args, count }] of Object.entries(RUNNERS)) {
      if (only && !only[name]) continue;
      await step(title, async () => {
        const ports = JSON.stringify(await freePorts());
        const excluded = [...(skipsSources ? ['docs/**'] : []), ...(moment ? [OWN_CLOCKS] : [])];
        const left = name === 'unit' ? excluded.flatMap((path) => ['--exclude', path]) : [];
        await run('npx', [...args, ...left, ...(only?.[name] ?? [])], { env: { ...env, E2E_PORTS: ports } });
      });
      const { passed, failed } = countsOf(`${name}.json`, count);
      total.passed += passed;
      total.failed += failed;
    }
  } finally {
    await stop();
  }
  if (!only) printSlowest();
  if (total.failed) process.exitCode = 1;
  console.log(`\n${total.passed} passed, ${total.failed} failed`);
});
