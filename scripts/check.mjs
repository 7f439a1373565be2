import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { ensureNpmPackages } from './lib/packages.mjs';
import { ROOT, run } from './lib/run.mjs';
import { Refusal, main, say } from './lib/say.mjs';
import { WORKSPACES } from './lib/workspaces.mjs';

const CACHE = join(ROOT, 'node_modules', '.cache', 'check');

/** Types, layers and the tests that need no database, with what was found last time kept: for every few minutes. */
await main(async () => {
  await ensureNpmPackages();
  mkdirSync(CACHE, { recursive: true });
  const failed = [];
  const step = async (name, args, env = {}) => {
    say(name);
    try {
      await run('npx', args, { env: { ...process.env, ...env } });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      failed.push(name);
    }
  };
  const types = async () => {
    for (const { name, config } of WORKSPACES) {
      const file = join(CACHE, `${name.replace(/\W+/g, '-')}.tsbuildinfo`);
      await step(`Types of ${name}`, ['tsc', '-p', config, '--incremental', '--tsBuildInfoFile', file]);
    }
    const place = join(CACHE, 'eslint');
    await step('Style and layers', ['eslint', '--cache', '--cache-location', place, '.']);
  };
  // Fewer generated pairs than `npm test` makes.
  const tests = () =>
    step('Tests', ['vitest', 'run', '--maxWorkers=2', 'core', 'web', 'demo'], { PAIRS: '400' });
  await Promise.all([types(), tests()]);
  if (failed.length) throw new Refusal(`Not as it should be: ${failed.join(', ')}.`);
  say('All is well. `npm test` goes through the server and the interface too.');
});
