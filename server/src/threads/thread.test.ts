import { build } from 'esbuild';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { eventually } from '../testing';
import { Thread } from './thread';

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
  await expect(thread.call((t) => t.end())).rejects.toThrow('ended');
  await expect(thread.call((t) => t.say('too early'))).rejects.toThrow('not there');
  await eventually(async () => {
    expect(await thread.call((t) => t.say('again'))).toBe('It says again');
  });
  expect(begun).toEqual(['It says begun', 'It says begun']);
  await thread.close();
});
