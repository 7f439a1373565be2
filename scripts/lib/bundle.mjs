import { build, context } from 'esbuild';
import { join } from 'node:path';
import { ROOT } from './run.mjs';

/** Packages of which another version may stand in the root's node_modules: they go in. */
const OWN_VERSION = ['lru-cache'];

const optionsOf = (entryPoints, outdir, define) => ({
  entryPoints,
  define,
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
          kind === 'entry-point' || path.startsWith('@zonal/') || OWN_VERSION.includes(path)
            ? undefined
            : { path, external: true },
        );
      },
    },
  ],
  tsconfig: join(ROOT, 'server/tsconfig.json'),
  logLevel: 'warning',
});

/** Bundles TypeScript for Node: our own packages go in, all others are taken from node_modules. */
export async function bundleForNode(entryPoints, outdir, { define = {}, plugins = [] } = {}) {
  const options = optionsOf(entryPoints, outdir, define);
  await build({ ...options, plugins: [...options.plugins, ...plugins] });
}

/** Bundles again whenever a source changes; `built` is called after each time that it could be done. */
export async function watchForNode(entryPoints, outdir, built) {
  const options = optionsOf(entryPoints, outdir, {});
  const telling = {
    name: 'tell',
    setup({ onEnd }) {
      onEnd(({ errors }) => {
        if (!errors.length) built();
      });
    },
  };
  const watching = await context({ ...options, plugins: [...options.plugins, telling] });
  await watching.watch();
  return watching;
}
