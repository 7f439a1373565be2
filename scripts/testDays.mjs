import { spawn } from 'node:child_process';
import { MOMENTS, momentNamed } from './lib/moments.mjs';
import { ROOT } from './lib/run.mjs';
import { main, say } from './lib/say.mjs';

/** As many generated cases as `npm run check` takes: they do not depend on the clock. */
const PAIRS = '400';

/** Runs all tests at one moment with their output shown; returns the counts that they end with, or null. */
async function testAt(name) {
  const child = spawn(process.execPath, ['scripts/test.mjs', '--at', name], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { PAIRS, ...process.env, SKIP_CHECKS: '1' },
  });
  let output = '';
  child.stdout.on('data', (bytes) => {
    output += bytes;
    process.stdout.write(bytes);
  });
  await new Promise((resolve) => child.once('close', resolve));
  return /^\d+ passed, \d+ failed$/m.exec(output)?.[0] ?? null;
}

/**
 * Runs the unit, server and interface tests once at each simulated moment, or only at those that are named, and ends with a
 * line for each.
 */
await main(async () => {
  const names = process.argv.slice(2);
  const lines = [];
  for (const { name, at, what } of names.length ? names.map(momentNamed) : MOMENTS) {
    say(`${name}: ${what}`);
    const began = Date.now();
    const counts = await testAt(name);
    const minutes = Math.round((Date.now() - began) / 60_000);
    lines.push(`${at}  ${counts ?? 'did not finish'}  ${minutes} min  ${what}`);
    if (!counts?.endsWith(', 0 failed')) process.exitCode = 1;
  }
  console.log(`\n${lines.join('\n')}`);
});
