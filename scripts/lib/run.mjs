import { spawn, spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { Refusal } from './say.mjs';

export const ROOT = fileURLToPath(new URL('../..', import.meta.url));

/** Runs a command to its end with its output shown. Throws a Refusal when it fails. */
export async function run(command, args, options = {}) {
  const code = await new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: 'inherit', cwd: ROOT, ...options });
    child.on('error', reject);
    child.on('exit', (status) => resolve(status ?? 1));
  });
  if (code !== 0) throw new Refusal(`“${command} ${args.join(' ')}” failed (${code}).`);
}

/** Runs a command and returns its status and output. */
export function probe(command, args, options = {}) {
  const { status, stdout, stderr } = spawnSync(command, args, { encoding: 'utf8', cwd: ROOT, ...options });
  return { ok: status === 0, stdout: stdout ?? '', stderr: stderr ?? '' };
}

/** Returns whether a process runs. */
export function alive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}
