import { join } from 'node:path';
import { ensureNpmPackages } from './lib/packages.mjs';
import { ROOT, run } from './lib/run.mjs';
import { Refusal, main } from './lib/say.mjs';

const REPORTS = ['rhythm', 'forecast', 'convergence'];

/** Prints how right the core is on generated histories of which the truth is known; fails where less was reached than is aimed for. */
await main(async () => {
  const [name] = process.argv.slice(2);
  if (!REPORTS.includes(name)) throw new Refusal(`Name one of these reports: ${REPORTS.join(', ')}.`);
  await ensureNpmPackages();
  const { bundleForNode } = await import('./lib/bundle.mjs');
  const outdir = join(ROOT, 'dist', 'reports');
  await bundleForNode({ [name]: join(ROOT, 'reports', `${name}.ts`) }, outdir);
  await run('node', [join(outdir, `${name}.js`)]);
});
