import { build } from 'esbuild';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Worker } from 'node:worker_threads';
import { afterAll, beforeAll, expect, it, onTestFinished, vi } from 'vitest';
import { eventually } from '../testing';
import { Thread, ThreadUnavailable } from './thread';

/** What the thread of this test is given, and what it offers. */
interface Given {
  heard(text: string): void;
}
interface Offered {
  say(text: string): Promise<string>;
  end(): Promise<never>;
}

let folder: string;
beforeAll(async () => {
  folder = mkdtempSync(join(import.meta.dirname, 'test-'));
  const file = join(folder, 'source.ts');
  writeFileSync(
    file,
    `import { offer } from '../thread';
     offer(async (name, given) => ({
       say: async (text) => { await given.heard(text); return name + ' says ' + text; },
       end: () => { process.exit(3); },
     }));`,
  );
  await build({
    entryPoints: [file],
    outfile: join(folder, 'thread.mjs'),
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
  });
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

it('leaves no thread behind that could not be started', async () => {
  const ended = vi.spyOn(Worker.prototype, 'terminate');
  onTestFinished(() => ended.mockRestore());
  const file = pathToFileURL(join(folder, 'thread.mjs'));
  const thread = new Thread<Given, Offered>('test', file, 'It', { heard: () => undefined }, 64, () =>
    Promise.reject(new Error('The database is away.')),
  );
  await expect(thread.start()).rejects.toThrow('away');
  expect(ended).toHaveBeenCalledTimes(1);
  await expect(thread.call((t) => t.say('too early'))).rejects.toThrow(ThreadUnavailable);
});

it('answers, is started again when it ends, and leaves no call waiting for ever', async () => {
  const heard: string[] = [];
  const given: Given = { heard: (text) => void heard.push(text) };
  const begun: string[] = [];
  const thread = new Thread<Given, Offered>(
    'test',
    pathToFileURL(join(folder, 'thread.mjs')),
    'It',
    given,
    64,
    async (offered) => void begun.push(await offered.say('begun')),
  );
  await thread.start();
  expect(await thread.call((t) => t.say('one'))).toBe('It says one');
  // What it told was heard before it answered.
  expect(heard).toEqual(['begun', 'one']);
  await expect(thread.call((t) => t.end())).rejects.toThrow(ThreadUnavailable);
  await expect(thread.call((t) => t.say('too early'))).rejects.toThrow('not there');
  await eventually(async () => {
    expect(await thread.call((t) => t.say('again'))).toBe('It says again');
  });
  expect(begun).toEqual(['It says begun', 'It says begun']);
  await thread.close();
});
