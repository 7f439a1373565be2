import { afterEach, expect, it, vi } from 'vitest';
import { sendCall } from './client';

afterEach(() => vi.unstubAllGlobals());

/** Answers each address with a page and the query of the next one. */
function stubPages(pages: Readonly<Record<string, readonly [answer: unknown, next?: string]>>) {
  const asked: string[] = [];
  vi.stubGlobal('fetch', (address: string) => {
    asked.push(address);
    const [answer, next] = pages[address] ?? [{ code: 'not-found', message: 'No.', details: {} }];
    const headers = next ? { link: `</api/windows?${next}>; rel="next"` } : undefined;
    const status = pages[address] ? 200 : 404;
    return Promise.resolve(new Response(JSON.stringify(answer), { status, ...(headers ? { headers } : {}) }));
  });
  return asked;
}

it('puts the pages of an answer together', async () => {
  const asked = stubPages({
    '/api/windows': [[1, 2], 'limit=2&after=b'],
    '/api/windows?limit=2&after=b': [[3, 4], 'limit=2&after=d'],
    '/api/windows?limit=2&after=d': [[5]],
  });
  expect(await sendCall({ name: 'GET /windows' })).toMatchObject({ answer: [1, 2, 3, 4, 5] });
  expect(asked).toHaveLength(3);
});

it('is refused as a whole if one page is', async () => {
  stubPages({ '/api/windows': [[1, 2], 'limit=2&after=b'] });
  expect(await sendCall({ name: 'GET /windows' })).toMatchObject({ problem: { code: 'not-found' } });
});

it('leaves other answers as they are', async () => {
  const asked = stubPages({ '/api/house': [{ name: 'Trust' }] });
  expect(await sendCall({ name: 'GET /house' })).toMatchObject({ answer: { name: 'Trust' } });
  expect(asked).toHaveLength(1);
});
