import { fork, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { ROOT, alive } from './run.mjs';
import { Refusal } from './say.mjs';

export const DATA = join(ROOT, '.data');

function portFree(port) {
  return new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
  });
}

/** Returns the first port from one on that is free now. */
export async function freeFrom(port) {
  while (!(await portFree(port))) port++;
  return port;
}

/** Throws a Refusal that names a free port where the one that is wanted is taken. */
export async function checkPort(port, command) {
  if (await portFree(port)) return;
  const other = await freeFrom(port + 1);
  throw new Refusal(`Port ${port} is taken by another program. Start with: PORT=${other} ${command}`);
}

/** Throws a Refusal where the same script runs in this checkout already; returns what ends that. */
export function claim(script) {
  mkdirSync(DATA, { recursive: true });
  const lock = join(DATA, script.replace('.mjs', '.pid'));
  const pid = existsSync(lock) ? Number(readFileSync(lock, 'utf8')) : 0;
  const { stdout } = spawnSync('ps', ['-o', 'args=', '-p', String(pid)], { encoding: 'utf8' });
  if (pid && pid !== process.pid && alive(pid) && stdout.includes(script))
    throw new Refusal(`This runs already in this checkout (process ${pid}). Stop it with Ctrl-C first.`);
  writeFileSync(lock, String(process.pid));
  return () => rmSync(lock, { force: true });
}

/** Returns a secret that is made once and kept where only this user can read it. */
export function keptSecret(name) {
  const file = join(DATA, name);
  mkdirSync(DATA, { recursive: true });
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('base64url'), { mode: 0o600 });
  return readFileSync(file, 'utf8');
}

/** Programs that are started one after the other and stopped together, the last one first. */
export class Programs {
  #running = [];
  #stopping = null;

  /** `after` is done when all have stopped, before this program ends. */
  constructor(after) {
    this.after = after;
    process.on('SIGINT', () => void this.stop(0));
    process.on('SIGTERM', () => void this.stop(0));
  }

  /** Starts a program and waits until it says that it is ready; when it ends, all do. */
  async start(file, env) {
    // In process groups of their own, so that Ctrl-C is handled here and in order.
    const child = fork(file, { env, detached: true });
    this.#running.unshift(child);
    child.once('exit', () => void this.stop(1));
    await new Promise((resolve) => child.once('message', resolve));
  }

  stop(code) {
    this.#stopping ??= this.#end(code);
    return this.#stopping;
  }

  async #end(code) {
    for (const child of this.#running.filter((c) => c.exitCode === null)) {
      child.kill('SIGTERM');
      await new Promise((resolve) => child.once('exit', resolve));
    }
    await this.after();
    process.exit(code);
  }
}
