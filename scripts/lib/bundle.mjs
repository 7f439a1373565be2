import { build } from 'esbuild';
import { join } from 'node:path';
import { ROOT } from './run.mjs';

/** Bundles TypeScript for Node: our own packages go in, all others are taken from node_modules. */
export async function bundleForNode(entryPoints, outdir) {
  await build({
    entryPoints,
    outdir,
    bundle: true,
    splitting: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    plugins: [
      {
        name: 'others-stay-outside',
        setup({ onResolve }) {
          onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
            kind === 'entry-point' || path.startsWith('@zonal/') ? undefined : { path, external: true },
          );
        },
      },
    ],
    tsconfig: join(ROOT, 'server/tsconfig.json'),
    logLevel: 'warning',
  });
}
