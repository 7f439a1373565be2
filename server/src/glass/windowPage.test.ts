import { afterAll, beforeAll, expect, it } from 'vitest';
import { colleague, makeTo, quayServer, windowInput, type TestClient } from '../testing';

let quay: Awaited<ReturnType<typeof quayServer>>;

beforeAll(async () => {
  quay = await quayServer();
  for (let n = 0; n < 5; n++)
    await quay.client.call(
      'POST',
      '/windows',
      windowInput(quay.calendarId, 'tinted', { name: `Window ${n}` }),
    );
});
afterAll(() => quay.server.close());

/** Returns the names on each page, following the links, as a program would. */
async function pagesOf(client: TestClient, first: string): Promise<string[][]> {
  const pages: string[][] = [];
  for (let path: string | undefined = first; path;) {
    const answer: Response = await fetch(`${quay.server.base}/api${path}`, { headers: client.headers() });
    expect(answer.status).toBe(200);
    const windows = (await answer.json()) as { wording: { name: string } }[];
    pages.push(windows.map((w) => w.wording.name));
    path = /<\/api(\/[^>]*)>; rel="next"/.exec(answer.headers.get('link') ?? '')?.[1];
  }
  return pages;
}

const all = ['Window 0', 'Window 1', 'Window 2', 'Window 3', 'Window 4'];

it('windows come in pages that are linked, each window once', async () => {
  const pages = await pagesOf(quay.client, '/windows?limit=2');
  expect(pages.map((page) => page.length)).toEqual([2, 2, 1]);
  expect(pages.flat().sort()).toEqual(all);
  expect((await pagesOf(quay.client, '/windows')).map((page) => page.length)).toEqual([5]);
  expect(await pagesOf(quay.client, '/windows?limit=5')).toHaveLength(1);
});

it('the pages of somebody else have only their windows', async () => {
  const { id, client } = await colleague(quay.server.base, 'Siri');
  expect(await pagesOf(client, '/windows?limit=2')).toEqual([[]]);
  await makeTo(quay.calendarId, id, 'publisher');
  expect((await pagesOf(client, '/windows?limit=2')).flat().sort()).toEqual(all);
});

it.each(['limit=0', 'limit=201', 'limit=many', 'limit=1.5', 'after=nothing', 'after='])(
  'a page with %s is refused with a code',
  async (query) => {
    const answer = await quay.client.call('GET', `/windows?${query}`);
    expect([answer.status, answer.body.code]).toEqual([422, 'input-invalid']);
  },
);
