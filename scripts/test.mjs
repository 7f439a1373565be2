import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { OUTSIDE_FOLDER, SEED_MAIN, SERVER_MAIN, STANDINS_MAIN, WEB_FOLDER, build } from './lib/build.mjs';
import { ensureDebianPackages, ensureNpmPackages } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { ROOT, run } from './lib/run.mjs';
import { Refusal, main, say } from './lib/say.mjs';
import { slowest } from './lib/slowest.mjs';
import { WORKSPACES } from './lib/workspaces.mjs';

const REPORTS = join(ROOT, 'test-results');

/** Counts of one runner's report; a run that left no report counts as one failure. */
function countOf(file, count) {
  try {
    return count(JSON.parse(readFileSync(join(REPORTS, file), 'utf8')));
  } catch {
    return { passed: 0, failed: 1 };
  }
}

function tellSlowest() {
  const reports = Object.keys(RUNNERS).flatMap((name) => {
    const file = join(REPORTS, `${name}.json`);
    return existsSync(file) ? [[name, JSON.parse(readFileSync(file, 'utf8'))]] : [];
  });
  console.log(`\nSlowest tests:\n${slowest(Object.fromEntries(reports)).join('\n')}`);
}

const RUNNERS = {
  unit: {
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
    args: ['playwright', 'test', '--config', join(ROOT, 'e2e', 'playwright.config.ts')],
    count: (r) => ({
      passed: r.stats.expected,
      failed: r.stats.unexpected + r.stats.flaky + r.errors.length,
    }),
  },
};

/** What is asked for: some files of one runner, or everything. */
const [first, ...rest] = process.argv.slice(2);
const only = first === undefined ? null : first === 'e2e' ? { e2e: rest } : { unit: [first, ...rest] };
/** These need neither a database nor a build. */
const bare = only?.unit?.every((path) => /^(core|web|demo|standins)\b/.test(path)) ?? false;

/** Checks style, layers and types, then runs all tests; ends with the line `N passed, N failed`. */
await main(async () => {
  await ensureNpmPackages();
  if (bare) return run('npx', ['vitest', 'run', ...only.unit]);
  await ensureDebianPackages(['postgresql', 'chromium']);
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
  if (!only) await Promise.all([work(), work()]);

  const postgres = await startPostgres('test', { durable: false });
  try {
    postgres.createDatabase('tests');
    // One for each of those that drive the interface at once.
    for (const name of ['e2e', 'e2e1']) postgres.createDatabase(name);
    // Empty, for a first start on either.
    for (const name of ['e2e_first', 'e2e1_first']) postgres.createDatabase(name);
    await build();
    const env = {
      ...process.env,
      TEST_DATABASE_URL: postgres.url('tests'),
      E2E_DATABASE_URL: postgres.url('e2e'),
      SERVER_MAIN,
      SEED_MAIN,
      STANDINS_MAIN,
      WEB_FOLDER,
      OUTSIDE_FOLDER,
      REPORTS,
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'silent',
    };
    for (const [name, { args, count }] of Object.entries(RUNNERS)) {
      if (only && !only[name]) continue;
      await step(name === 'unit' ? 'Unit and server tests' : 'Tests of the real interface', () =>
        run('npx', [...args, ...(only?.[name] ?? [])], { env }),
      );
      const { passed, failed } = countOf(`${name}.json`, count);
      total.passed += passed;
      total.failed += failed;
    }
  } finally {
    await postgres.stop();
    rmSync(postgres.folder, { recursive: true, force: true });
  }
  if (!only) tellSlowest();
  if (total.failed) process.exitCode = 1;
  console.log(`\n${total.passed} passed, ${total.failed} failed`);
});
