import { EMPTY_CONTENT } from '@zonal/core/entries';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { eventually, freshDatabase, quayServer, windowInput } from '../testing';
import { tellHub } from './hub';

const opened: { close: () => unknown }[] = [];
afterEach(async () => {
  for (const one of opened.splice(0).reverse()) await one.close();
});

/** A hub that notes what it is told. */
async function newHub() {
  const told: string[] = [];
  const state = { status: 204 };
  const server = createServer((req, res) => {
    let body = '';
    req.on('data', (part: Buffer) => (body += part.toString()));
    req.on('end', () => {
      told.push(body);
      res.writeHead(state.status).end();
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  opened.push({ close: () => new Promise<void>((resolve) => server.close(() => resolve())) });
  return { told, state, address: `http://127.0.0.1:${(server.address() as AddressInfo).port}/hub` };
}

describe('a hub (WebSub)', () => {
  it('is named by the changes feed of a listed window alone, and told of each of its changes', async () => {
    const { told, address } = await newHub();
    const jobs = { lost: 5, look: 1, again: 1 };
    const { server, client, calendarId } = await quayServer(await freshDatabase(), { jobs, hub: address });
    opened.push(server);
    const date = (ahead: number) => ({
      kind: 'date',
      date: new Date(Date.now() + ahead * 86_400_000).toISOString().slice(0, 10),
    });
    const write = (title: string) =>
      client.call('POST', `/calendars/${calendarId}/entries`, {
        ...{ ...EMPTY_CONTENT, title, start: date(1), end: date(2), recurrence: null, overrides: [] },
      });
    const open = async (name: string, listed: boolean) =>
      (await client.call('POST', '/windows', windowInput(calendarId, 'tinted', { name, listed }))).body;
    const [shown, unlisted] = [await open('Board', true), await open('Hidden', false)];
    const changesOf = async (feed: string) =>
      fetch(server.base + new URL(feed).pathname.replace(/\.ics$/, '.atom'));
    const listed = await changesOf(shown.listedSee.replace('/see/', '/feed/') + '.ics');
    expect(await listed.text()).toContain(`<link rel="hub" href="${address}"/>`);
    expect(listed.headers.get('link')).toBe(
      `<${address}>; rel="hub", <http://window.example/feed/board.atom>; rel="self"`,
    );
    // Its keys are nobody's to be told of, and neither are those of others.
    for (const { keys } of [shown, unlisted]) {
      const answer = await changesOf(keys[0].feed);
      expect([answer.headers.get('link'), (await answer.text()).includes('rel="hub"')]).toEqual([
        null,
        false,
      ]);
    }
    await eventually(async () => expect(told).toHaveLength(1));
    await write('Market');
    await eventually(async () => expect(told).toHaveLength(2));
    const topic = 'http://window.example/feed/board.atom';
    expect(Object.fromEntries(new URLSearchParams(told.at(-1)))).toEqual({
      ...{ 'hub.mode': 'publish', 'hub.url': topic, 'hub.topic': topic },
    });
  });

  it('that does not take it is told again later', async () => {
    const { state, address } = await newHub();
    state.status = 500;
    await expect(tellHub(address, 'http://window.example/feed/board.atom')).rejects.toThrow('answered 500');
  });
});
