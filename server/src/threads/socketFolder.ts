import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { log } from '../log';

/** Makes a folder for a socket that only this user can open, and removes those that killed processes left behind. */
export function socketFolder(parent: string = tmpdir()): string {
  // Containers that share a folder have names of their own, and may have equal process ids.
  const start = `zonal-${hostname()}-`;
  for (const name of readdirSync(parent)) {
    const pid = name.startsWith(start) && /^(\d+)-/.exec(name.slice(start.length))?.[1];
    if (!pid || isRunning(Number(pid))) continue;
    try {
      rmSync(join(parent, name), { recursive: true, force: true });
    } catch (error) {
      // It belongs to another user.
      log.debug({ err: error, name }, 'a folder that a process left behind stays');
    }
  }
  return mkdtempSync(join(parent, `${start}${process.pid}-`));
}

function isRunning(pid: number): boolean {
  try {
    return process.kill(pid, 0);
  } catch (error) {
    // It runs, and belongs to another user.
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
