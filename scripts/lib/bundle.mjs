import { build, context } from 'esbuild';
import { join } from 'node:path';
import { ROOT } from './run.mjs';

/** Packages of which another version may be in the root's node_modules: they always go in. */
const OWN_VERSION = ['lru-cache'];

/** Only our own packages go in: tools that run once, and packages that cannot be bundled. */
const PACKAGES_OUTSIDE = {
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
};

/**
 * All packages go in: a server with its threads then reads a few files instead of thousands, and starts in half of the time.
 * Packages that were written for CommonJS find a `require`.
 */
const PACKAGES_INSIDE = {
  // One has a native part; nothing that is used needs the others.
  external: ['@node-rs/argon2', 'sharp', 'pg-native', 'pg-hstore'],
  // The same module without its data: the database is only asked in UTC.
  alias: { 'moment-timezone': 'moment-timezone/moment-timezone.js' },
  banner: {
    js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);",
  },
};

const optionsOf = (entryPoints, outdir, define, packages) => ({
  entryPoints,
  define,
  outdir,
  absWorkingDir: ROOT,
  bundle: true,
  splitting: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  // The sources are at hand.
  sourcesContent: false,
  ...packages,
  tsconfig: join(ROOT, 'server/tsconfig.json'),
  logLevel: 'warning',
});

/** Bundles TypeScript for Node; other packages than our own are taken from node_modules. */
export async function bundleForNode(entryPoints, outdir) {
  await build(optionsOf(entryPoints, outdir, {}, PACKAGES_OUTSIDE));
}

/** Bundles servers with all packages that they need, except for native ones. */
export async function bundleServer(entryPoints, outdir, { define = {}, plugins = [] } = {}) {
  await build({ ...optionsOf(entryPoints, outdir, define, PACKAGES_INSIDE), plugins });
}

/** Bundles servers again whenever a source changes; `built` is called after each time that it could be done. */
export async function watchServer(entryPoints, outdir, built) {
  const telling = {
    name: 'tell',
    setup({ onEnd }) {
      onEnd(({ errors }) => {
        if (!errors.length) built();
      });
    },
  };
  const watching = await context({
    ...optionsOf(entryPoints, outdir, {}, PACKAGES_INSIDE),
    plugins: [telling],
  });
  await watching.watch();
  return watching;
}
