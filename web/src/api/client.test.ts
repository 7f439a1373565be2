import { afterEach, expect, it, vi } from 'vitest';
import { sendCall } from './client';

afterEach(() => vi.unstubAllGlobals());

/** Answers like the server: 304 if the client names the tag of what it would send. */
function serve(body: unknown) {
  const asked: (string | null)[] = [];
  vi.stubGlobal('fetch', (_address: string, { headers }: { headers: Record<string, string> }) => {
    const held = headers['if-none-match'] ?? null;
    asked.push(held);
    const tag = `W/"${JSON.stringify(body)}"`;
    const response =
      held === tag
        ? new Response(null, { status: 304 })
        : new Response(JSON.stringify(body), { headers: { etag: tag } });
    return Promise.resolve(response);
  });
  return asked;
}

const ask = async (csrf: string) => {
  const reply = await sendCall({ name: 'GET /calendars' }, { csrf });
  return 'answer' in reply ? reply.answer : reply.problem;
};

it('takes the answer that it holds if the server says that it has not changed', async () => {
  const first = serve(['Quay']);
  const answer = await ask('a');
  expect(answer).toEqual(['Quay']);
  expect(await ask('a')).toBe(answer);
  expect(first).toEqual([null, 'W/"["Quay"]"']);
  serve(['Quay', 'Lock']);
  expect(await ask('a')).toEqual(['Quay', 'Lock']);
});

it('holds nothing of one session for another', async () => {
  serve(['Quay']);
  await ask('b');
  const asked = serve(['Quay']);
  await ask('c');
  await ask('b');
  expect(asked).toEqual([null, null]);
});
