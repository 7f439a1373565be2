import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, probe, run } from './run.mjs';
import { fakeTimeLibrary } from './moments.mjs';
import { Refusal, say } from './say.mjs';

const STAMP = join(ROOT, 'node_modules', '.installed-for');

/** Installs the npm packages when they are missing, out of date, or were installed only in part. */
export async function ensureNpmPackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    throw new Refusal(`Node ${process.versions.node} is too old. Install Node 20.19 or newer.`);
  }
  const lock = readFileSync(join(ROOT, 'package-lock.json'));
  const wanted = createHash('sha256').update(lock).update(process.versions.node).digest('hex');
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return;
  say('Installing npm packages');
  await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(STAMP, wanted);
}

const CHROMIUM = '/usr/bin/chromium';
/** The same engine without windows: tests of the interface take a quarter less time in it. */
const HEADLESS_SHELL = '/usr/bin/chromium-headless-shell';

/** Returns the browser for tests of the interface: the faster one if it is installed. */
export function testBrowser() {
  return existsSync(HEADLESS_SHELL) ? HEADLESS_SHELL : CHROMIUM;
}

/**
 * Debian packages by name: how to tell that each is installed, what it is for, and whether something that is
 * installed can replace it.
 */
const NEEDED = {
  postgresql: { found: () => postgresFolder() !== null, what: 'the PostgreSQL server' },
  chromium: { found: () => existsSync(CHROMIUM), what: 'the browser' },
  'chromium-headless-shell': {
    found: () => existsSync(HEADLESS_SHELL),
    replaced: () => existsSync(CHROMIUM),
    what: 'the browser that the tests drive',
  },
  faketime: { found: () => fakeTimeLibrary() !== null, what: 'the simulated clock of the tests' },
};

/** Returns the folder of the newest PostgreSQL server's programs, or null. */
export function postgresFolder() {
  const root = '/usr/lib/postgresql';
  const versions = existsSync(root) ? readdirSync(root) : [];
  const folders = versions
    .sort((a, b) => Number(b) - Number(a))
    .map((version) => join(root, version, 'bin'))
    .filter((folder) => existsSync(join(folder, 'postgres')) && existsSync(join(folder, 'initdb')));
  return folders[0] ?? null;
}

/**
 * Installs Debian packages that are missing, as root or with sudo. Throws a Refusal that names them, unless something
 * else that is installed can replace each.
 */
export async function ensureDebianPackages(names) {
  const missing = names.filter((name) => !NEEDED[name].found());
  if (!missing.length) return;
  try {
    await installDebianPackages(missing);
  } catch (error) {
    if (!(error instanceof Refusal) || !missing.every((name) => NEEDED[name].replaced?.())) throw error;
    say(`Going on without ${missing.join(' and ')}`);
  }
}

async function installDebianPackages(missing) {
  const isRoot = process.getuid() === 0;
  const sudo = !isRoot && probe('sudo', ['-n', 'true']).ok;
  const list = missing.map((name) => `${name} (${NEEDED[name].what})`).join(' and ');
  if (!probe('which', ['apt-get']).ok || (!isRoot && !sudo)) {
    throw new Refusal(
      `Missing: ${list}. It cannot be installed from here without administrator rights.\n` +
        `Ask an administrator to run: apt-get install ${missing.join(' ')}\nThen start again.`,
    );
  }
  say(`Installing ${list}`);
  const prefix = isRoot ? [] : ['sudo', '-n'];
  const apt = async (...args) => {
    const [command, ...rest] = [
      ...prefix,
      'env',
      'DEBIAN_FRONTEND=noninteractive',
      'apt-get',
      '-qq',
      ...args,
    ];
    await run(command, rest, { stdio: ['ignore', 'ignore', 'inherit'] });
  };
  await apt('update');
  await apt('install', '-y', '--no-install-recommends', ...missing);
  const still = missing.filter((name) => !NEEDED[name].found());
  if (still.length)
    throw new Refusal(`Installing ${still.join(' and ')} did not work. Install it by hand and start again.`);
}
