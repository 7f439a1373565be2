import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { hostname, tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { expect, it, onTestFinished } from 'vitest';
import { socketFolder } from './socketFolder';

it('removes the folders of processes that are gone, and no other', () => {
  const parent = mkdtempSync(join(tmpdir(), 'folders-'));
  onTestFinished(() => rmSync(parent, { recursive: true }));
  const { pid: gone } = spawnSync('true');
  const own = `zonal-${hostname()}`;
  const others = [`${own}-${process.ppid}-b`, `zonal-elsewhere-${gone}-a`, `other-${gone}-a`];
  for (const name of [`${own}-${gone}-a`, ...others]) mkdirSync(join(parent, name));
  const made = socketFolder(parent);
  expect(basename(made).startsWith(`${own}-${process.pid}-`)).toBe(true);
  expect(existsSync(made)).toBe(true);
  expect(readdirSync(parent).sort()).toEqual([basename(made), ...others].sort());
});
