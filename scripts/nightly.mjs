import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './lib/build.mjs';
import { ensureNpmPackages } from './lib/packages.mjs';
import { PLANTED_FAULTS, buildFaulty } from './lib/plantedFaults.mjs';
import { ROOT } from './lib/run.mjs';
import { main, say } from './lib/say.mjs';

/** Generated pairs of insides, and random histories: many times what `npm test` takes. */
const LONG = { PAIRS: '10000', HISTORIES: '60', HISTORY_EVENTS: '30' };
const PROPERTIES = [
  [
    'core/src/forms/nonInterference.test.ts',
    'core/src/forms/readBack.test.ts',
    'core/src/entries/expandRule.crosscheck.test.ts',
    'server/src/people/inside.test.ts',
    'docs/addingAField.test.ts',
  ],
  ['server/src/histories'],
];
/** A faulty server is given up on soon: whatever waits for a state that never comes has found the fault. */
const FAULTY = { HISTORIES: '4', PATIENCE_SECONDS: '30' };

/** Runs some tests; returns their counts, as in `3 passed, 0 failed`, or null if the run did not get that far. */
async function test(paths, env) {
  const child = spawn(process.execPath, ['scripts/test.mjs', ...paths], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, ...env },
  });
  let output = '';
  child.stdout.on('data', (bytes) => (output += bytes));
  await new Promise((resolve) => child.once('close', resolve));
  const counts = /^\d+ passed, \d+ failed$/m.exec(output)?.[0] ?? null;
  return { counts, output };
}

/**
 * Runs the long properties and the model of histories, then the model against servers with a fault planted in each mechanism:
 * it has to find every one of them. With words as arguments only faults whose names have one of them are planted, and nothing
 * else is run.
 */
await main(async () => {
  await ensureNpmPackages();
  await build();
  const words = process.argv.slice(2);
  const lines = [];
  const note = (isRight, line) => {
    lines.push(line);
    say(line);
    if (!isRight) process.exitCode = 1;
  };
  for (const paths of words.length ? [] : PROPERTIES) {
    const { counts, output } = await test(paths, LONG);
    const isRight = counts?.endsWith(', 0 failed') ?? false;
    if (!isRight) console.log(output);
    note(isRight, `${counts ?? 'did not finish'}  ${paths.join(' ')}`);
  }
  const folder = join(ROOT, 'dist', 'faulty');
  for (const fault of PLANTED_FAULTS.filter(
    ({ name }) => !words.length || words.some((w) => name.includes(w)),
  )) {
    const SERVER_MAIN = await buildFaulty(fault, folder);
    const { counts, output } = await test(['server/src/histories'], { ...FAULTY, SERVER_MAIN });
    const isFound = counts === '0 passed, 1 failed';
    if (process.env.SHOW_OUTPUT) console.log(output);
    note(isFound, `${isFound ? 'found' : `not found (${counts})`}  planted: ${fault.name}`);
    rmSync(folder, { recursive: true, force: true });
  }
  console.log(`\n${lines.join('\n')}`);
});
