import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { OUTSIDE_FOLDER, SEED_MAIN, SERVER_MAIN, WEB_FOLDER, build } from './lib/build.mjs';
import { ensureDebianPackages, ensureNpmPackages } from './lib/packages.mjs';
import { freePort, startPostgres } from './lib/postgres.mjs';
import { ROOT, run } from './lib/run.mjs';
import { main } from './lib/say.mjs';

/** Prints every budget of speed as a ratio measured in this one run; names given as arguments choose some parts. */
await main(async () => {
  await ensureNpmPackages();
  await ensureDebianPackages(['postgresql', 'chromium']);
  await build();
  const { bundleForNode } = await import('./lib/bundle.mjs');
  const outdir = join(ROOT, 'dist', 'bench');
  const parts = { bench: 'main', client: 'client', mixed: 'mixed', monitor: 'monitor' };
  const entryPoints = Object.fromEntries(
    Object.entries(parts).map(([name, file]) => [name, join(ROOT, 'bench', `${file}.ts`)]),
  );
  await bundleForNode(entryPoints, outdir);
  const postgres = await startPostgres('bench', { durable: false, fresh: true });
  try {
    postgres.createDatabase('bench');
    const env = {
      ...process.env,
      DATABASE_URL: postgres.url('bench'),
      STORE_LOG: postgres.logFile,
      PORT: String(await freePort()),
      SESSION_SECRET: 'a secret of the bench',
      SERVER_MAIN,
      SEED_MAIN,
      WEB_FOLDER,
      OUTSIDE_FOLDER,
      LOG_LEVEL: 'warn',
    };
    await run('node', [join(outdir, 'bench.js'), ...process.argv.slice(2)], { env });
  } finally {
    await postgres.stop();
    rmSync(postgres.folder, { recursive: true, force: true });
  }
});
