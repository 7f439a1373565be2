import express from 'express';
import type { AddressInfo } from 'node:net';
import { Webhook } from 'standardwebhooks';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Server } from 'node:http';
import { toldSystem, type ToldRequest } from './toldSystem';

let server: Server;
let base = '';

beforeAll(async () => {
  await new Promise<void>((resolve) => {
    server = express()
      .use(toldSystem())
      .listen(0, '127.0.0.1', () => resolve());
  });
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => server.close());

it('checks what it is told by the secret that it was given, and answers as it is set to', async () => {
  const secret = `whsec_${Buffer.alloc(24, 3).toString('base64')}`;
  const set = (said: Record<string, string>) =>
    fetch(`${base}/told/set`, { method: 'POST', body: new URLSearchParams(said) });
  const tell = (body: string, by = secret) =>
    fetch(`${base}/told`, {
      method: 'POST',
      body,
      headers: {
        'webhook-id': 'msg_1',
        'webhook-timestamp': String(Math.floor(Date.now() / 1000)),
        'webhook-signature': new Webhook(by).sign('msg_1', new Date(), body),
      },
    });
  expect((await tell('{"a":1}')).status).toBe(204);
  await set({ secret });
  await tell('{"b":"<b>"}');
  await set({ answer: '503' });
  expect((await tell('{}', `whsec_${Buffer.alloc(24, 4).toString('base64')}`)).status).toBe(503);
  const { requests } = (await (await fetch(`${base}/told.json`)).json()) as { requests: ToldRequest[] };
  expect(requests.map((r) => r.signed)).toEqual(['wrong', 'right', 'not checked']);
  const page = await (await fetch(`${base}/told`)).text();
  expect(page).toContain('&lt;b&gt;');
  expect(page).toContain('signature wrong, answered 503');
});
