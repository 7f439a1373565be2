import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { hostSite } from './hostSite';
import { MODEL_PAGES } from './modelPages';

const HOUSE = 'http://house.example';
let server: Server;
let base = '';

beforeAll(async () => {
  await new Promise<void>((resolve) => {
    server = hostSite(HOUSE).listen(0, '127.0.0.1', () => resolve());
  });
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => server.close());

const page = async (name: string, query: Record<string, string>) => {
  const answer = await fetch(`${base}/${name}?${new URLSearchParams(query).toString()}`);
  return { text: await answer.text(), policy: answer.headers.get('content-security-policy') };
};

describe.each(Object.keys(MODEL_PAGES))('the model page %s', (name) => {
  const embed = `${HOUSE}/embed/abc?show=week&theme=dark`;

  it('holds an embed of the house as its code is pasted, and frames of nobody else', async () => {
    const { text, policy } = await page(name, { embed, name: 'Quay <b>', way: 'fitting', height: '500' });
    expect(text).toContain('src="http://house.example/embed/abc?show=week&amp;theme=dark"');
    expect(text).toContain('title="Quay &lt;b&gt;"');
    expect(text).toContain('height="500"');
    expect(text).toContain('<script src="http://house.example/outside/fit.js" defer></script>');
    expect(policy).toContain(`frame-src ${HOUSE};`);
    expect(policy).toContain(name === 'strict' ? "script-src 'none'" : `script-src ${HOUSE}`);
  });

  it.each(['http://elsewhere.example/embed/abc', 'http://house.example.evil/embed/a', 'javascript:alert(1)'])(
    'holds nothing from %s',
    async (other) => {
      expect((await page(name, { embed: other })).text).not.toContain('<iframe');
    },
  );
});
