import { mkdirSync, openSync, readFileSync, readdirSync, rmSync, statSync } from 'node:fs';
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
import { ensureDebianPackages, ensureNpmPackages, testBrowser } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { ROOT, run } from './lib/run.mjs';
import { Refusal, main, say } from './lib/say.mjs';
import { failureLines, slowestLines, testsOf } from './lib/testReports.mjs';
import { WORKSPACES } from './lib/workspaces.mjs';

const REPORTS = join(ROOT, 'test-results');

/** The databases of the demos that the interface tests run on at once, and how many ports each demo needs. */
const E2E_DATABASES = ['e2e', 'e2e1'];
const PORTS_PER_DEMO = 7;
/**
 * Ports from here on are tried, each run in a range of its own: two checkouts may be tested at once. They lie below those that
 * browsers refuse to open and those that the system hands out by itself.
 */
const FIRST_E2E_PORT = 4400 + (process.pid % 12) * 50;

/** Returns a runner's JSON report, or null if it left none that can be read. */
function readReport(file) {
  try {
    return JSON.parse(readFileSync(join(REPORTS, file), 'utf8'));
  } catch {
    return null;
  }
}

/** Returns a runner's counts from its report; a run that left no report counts as one failure. */
function countsOf(file, count) {
  const report = readReport(file);
  return report ? count(report) : { passed: 0, failed: 1 };
}

/** Prints the failed checks and tests once more, at the end where people look, and after a full run the slowest tests. */
function printReports(failedChecks, showsSlowest) {
  const files = readdirSync(REPORTS).filter((file) => file.endsWith('.json'));
  const tests = files.map(readReport).filter(Boolean).flatMap(testsOf);
  if (showsSlowest) console.log(`\nSlowest tests:\n${slowestLines(tests).join('\n')}`);
  const failed = [...failedChecks, ...failureLines(tests)];
  if (failed.length) console.log(`\nFailed:\n${failed.join('\n')}`);
}

/** Returns the command for tests without a browser, whose report has a name. */
const vitest = (name, ...args) => [
  ...['vitest', 'run', '--reporter=default', '--reporter=json'],
  ...[`--outputFile.json=${join(REPORTS, `${name}.json`)}`, ...args],
];
const countVitest = (r) => ({ passed: r.numPassedTests, failed: r.numFailedTests });

const PLAYWRIGHT = ['playwright', 'test', '--config', join(ROOT, 'e2e', 'playwright.config.ts')];
const countPlaywright = ({ stats, errors }) => ({
  passed: stats.expected,
  failed: stats.unexpected + stats.flaky + errors.length,
});

/** Returns ports that are free now, one list for each of `demos`. */
async function freePorts(demos) {
  const ports = [];
  for (let port = FIRST_E2E_PORT; ports.length < demos * PORTS_PER_DEMO; port++)
    ports.push((port = await freeFrom(port)));
  return Array.from({ length: demos }, (_, n) => ports.slice(n * PORTS_PER_DEMO, (n + 1) * PORTS_PER_DEMO));
}

/**
 * Returns the files of interface tests in one list for each of `demos`, of about equal size. The lists depend on the files
 * alone: whatever the machine does beside, a test always finds what the same other tests left in its demo.
 */
function sharesOfFiles(demos) {
  const folder = join(ROOT, 'e2e');
  const files = readdirSync(folder)
    .filter((name) => name.endsWith('.spec.ts'))
    .map((name) => ({ name, size: statSync(join(folder, name)).size }))
    .sort((a, b) => b.size - a.size || (a.name < b.name ? -1 : 1));
  const shares = Array.from({ length: demos }, () => ({ size: 0, names: [] }));
  for (const { name, size } of files) {
    const smallest = shares.reduce((least, share) => (share.size < least.size ? share : least));
    smallest.size += size;
    smallest.names.push(`/${name}`);
  }
  return shares.map(({ names }) => names);
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

/** These set the clocks of their own servers: under a simulated moment they run by the real clock. */
const OWN_CLOCKS = 'server/src/histories';

/** Starts a database for tests, with an environment for them; `stop` removes it. */
async function testDatabase(name, simulated) {
  const postgres = await startPostgres(name, { durable: false, fresh: true, env: simulated });
  const demos = E2E_DATABASES.flatMap((demo) => [demo, `${demo}_first`]);
  for (const database of ['tests', ...demos]) postgres.createDatabase(database);
  const env = {
    ...process.env,
    ...simulated,
    TEST_DATABASE_URL: postgres.url('tests'),
    SERVER_MAIN: process.env.SERVER_MAIN ?? SERVER_MAIN,
    SEED_MAIN,
    STANDINS_MAIN,
    WEB_FOLDER,
    OUTSIDE_FOLDER,
    TEST_BROWSER: testBrowser(),
    FAKETIME_LIBRARY: fakeTimeLibrary(),
    REPORTS,
    // A server that cannot start says why.
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'fatal',
  };
  const stop = async () => {
    await postgres.stop();
    rmSync(postgres.folder, { recursive: true, force: true });
  };
  return { postgres, env, stop };
}

/** Checks style, layers and types, then runs all tests; ends with the line `N passed, N failed`. */
await main(async () => {
  await ensureNpmPackages();
  if (bare && !momentName) return run('npx', ['vitest', 'run', ...only.unit]);
  const release = claim('test.mjs');
  const moment = chosenMoment(momentName);
  await ensureDebianPackages(['postgresql', 'chromium-headless-shell', 'faketime']);
  rmSync(REPORTS, { recursive: true, force: true });
  mkdirSync(REPORTS);
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
  const failedChecks = [];
  const check = async (name, command, args) => {
    const isRight = await step(name, () => run(command, args));
    total[isRight ? 'passed' : 'failed']++;
    if (!isRight) failedChecks.push(name);
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
  const database = await testDatabase('test', simulated);
  const ownDatabase = moment && !only ? await testDatabase('own-clocks', {}) : null;
  const stop = async () => {
    await Promise.all([database.stop(), ownDatabase?.stop()]);
    release();
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    process.once(signal, () => void stop().then(() => process.exit(1)));
  try {
    const { postgres, env } = database;
    if (moment) {
      say(`Simulated clock: ${moment.at} (${moment.what}). The same again: npm test -- --at ${moment.name}`);
      checkClocks(moment.at, { PostgreSQL: postgres.clock(), ...readClocks(env, testBrowser()) });
    }
    const tests = async (name, title, args, count, options) => {
      const isRight = await step(title, () => run('npx', args, options));
      const { passed, failed } = countsOf(`${name}.json`, count);
      total.passed += passed;
      // What fails without a failed test, such as an error outside of all of them, is a failure too.
      total.failed += isRight ? failed : Math.max(failed, 1);
    };
    /** Runs beside all other tests. Returns the file with its output. */
    const testOwnClocks = async ({ env }) => {
      const file = join(REPORTS, 'own-clocks.log');
      const output = openSync(file, 'w');
      const args = vitest('own-clocks', OWN_CLOCKS);
      const title = 'Tests that set clocks of their own, in the background';
      await tests('own-clocks', title, args, countVitest, { env, stdio: ['ignore', output, output] });
      return file;
    };
    const ownClocks = ownDatabase && testOwnClocks(ownDatabase);
    if (!only || only.unit) {
      const excluded = [...(skipsSources ? ['docs/**'] : []), ...(moment ? [`${OWN_CLOCKS}/**`] : [])];
      const args = vitest('unit', ...excluded.flatMap((path) => ['--exclude', path]), ...(only?.unit ?? []));
      await tests('unit', 'Unit and server tests', args, countVitest, { env });
    }
    /** Runs some files on a demo of their own. */
    const testInterface = (database, ports, files) => {
      const demo = {
        E2E_NAME: database,
        E2E_PORTS: JSON.stringify(ports),
        E2E_DATABASE_URL: postgres.url(database),
      };
      const title = `Tests of the real interface, on the demo ${database}`;
      return tests(database, title, [...PLAYWRIGHT, ...files], countPlaywright, { env: { ...env, ...demo } });
    };
    if (!only || only.e2e) {
      // Chosen files run on one demo, one after the other.
      const shares = only?.e2e?.length ? [only.e2e] : sharesOfFiles(E2E_DATABASES.length);
      const ports = await freePorts(shares.length);
      await Promise.all(shares.map((files, n) => testInterface(E2E_DATABASES[n], ports[n], files)));
    }
    if (ownClocks) {
      const file = await ownClocks;
      say('Tests that set clocks of their own');
      console.log(readFileSync(file, 'utf8'));
    }
  } finally {
    await stop();
  }
  printReports(failedChecks, !only);
  if (total.failed) process.exitCode = 1;
  console.log(`\n${total.passed} passed, ${total.failed} failed`);
});
