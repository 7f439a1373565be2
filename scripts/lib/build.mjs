import { createHash } from 'node:crypto';
import {
  cpSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { ROOT, run } from './run.mjs';
import { say } from './say.mjs';

const DIST = join(ROOT, 'dist');
const STAMP = join(DIST, '.built-from');
const SOURCES = [
  'core/src',
  'core/assets',
  'core/package.json',
  'server/src',
  'demo/src',
  'demo/images',
  'standins/src',
  'web',
  'package-lock.json',
  'scripts/lib',
];

export const WEB_FOLDER = join(DIST, 'web');
export const OUTSIDE_FOLDER = join(DIST, 'outside');
export const SERVER_MAIN = join(DIST, 'server', 'main.js');
export const STANDINS_MAIN = join(DIST, 'server', 'standins.js');
export const SEED_MAIN = join(DIST, 'server', 'seed.js');

/** What a server is made of: its process, its threads, and what writes the demo's data; and the world outside. */
export const SERVER_ENTRIES = {
  main: join(ROOT, 'server/src/main.ts'),
  compilerThread: join(ROOT, 'server/src/outside/compilerThread.ts'),
  renderThread: join(ROOT, 'server/src/outside/renderThread.ts'),
  counterThread: join(ROOT, 'server/src/reach/counterThread.ts'),
  deskThread: join(ROOT, 'server/src/deskThread.ts'),
  seed: join(ROOT, 'demo/src/seed.ts'),
  standins: join(ROOT, 'standins/src/main.ts'),
};

function* files(path) {
  if (statSync(path).isFile()) yield path;
  else {
    for (const name of readdirSync(path).sort()) {
      if (name !== 'node_modules' && name !== 'dist') yield* files(join(path, name));
    }
  }
}

function sourceStamp() {
  const hash = createHash('sha256');
  for (const source of SOURCES) {
    for (const file of files(join(ROOT, source))) hash.update(file).update(readFileSync(file));
  }
  return hash.digest('hex');
}

/** Builds server, outside assets and the organiser's application into dist/, unless they are up to date. */
export async function build() {
  const stamp = sourceStamp();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === stamp) return;
  say('Building');
  rmSync(DIST, { recursive: true, force: true });
  await buildServer(stamp);
  copyOutside();
  await run('npx', ['vite', 'build', '--logLevel', 'warn', join(ROOT, 'web')]);
  for (const folder of [OUTSIDE_FOLDER, WEB_FOLDER]) packAll(folder);
  writeFileSync(STAMP, stamp);
}

/** What is sent as it is need not be compressed again and again; what is compressed by itself is left. */
const PACKED = /\.(css|js|svg|json|txt)$/;

function packAll(folder) {
  for (const file of files(folder)) {
    if (!PACKED.test(file)) continue;
    const bytes = readFileSync(file);
    writeFileSync(`${file}.gz`, gzipSync(bytes, { level: 9 }));
    writeFileSync(`${file}.br`, brotliCompressSync(bytes));
  }
}

async function buildServer(stamp) {
  const { bundleServer } = await import('./bundle.mjs');
  await bundleServer(SERVER_ENTRIES, join(DIST, 'server'), {
    define: { BUILD: JSON.stringify(stamp) },
  });
  const { answerSchemas } = await import('./answerSchemas.mjs');
  writeFileSync(join(DIST, 'server', 'answers.json'), JSON.stringify(answerSchemas()));
}

/** Puts style sheet, script and typefaces of the outside pages where the server looks for them. */
export function copyOutside() {
  mkdirSync(OUTSIDE_FOLDER, { recursive: true });
  cpSync(join(ROOT, 'core/assets'), OUTSIDE_FOLDER, { recursive: true });
  for (const weight of [400, 700]) {
    const font = join(ROOT, `node_modules/@fontsource/b612/files/b612-latin-${weight}-normal.woff2`);
    cpSync(font, join(OUTSIDE_FOLDER, `b612-${weight}.woff2`));
  }
}
