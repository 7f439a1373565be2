import { join } from 'node:path';
import { ensureNpmPackages } from './lib/packages.mjs';
import { ROOT, run } from './lib/run.mjs';
import { main } from './lib/say.mjs';

/** Prints every budget of speed as a ratio measured in this one run. */
await main(async () => {
  await ensureNpmPackages();
  const { bundleForNode } = await import('./lib/bundle.mjs');
  const outdir = join(ROOT, 'dist', 'bench');
  await bundleForNode({ bench: join(ROOT, 'bench/main.ts') }, outdir);
  await run('node', [join(outdir, 'bench.js')]);
});
