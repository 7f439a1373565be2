import { emptyMemo, outwardView } from '@zonal/core/glass';
import { nextRevision } from '@zonal/core/reach';
import { RANGE } from '@zonal/core/testing/arbitraries';
import { STREET, entry, rulesOf, zoned } from '@zonal/core/testing/samples';
import { pathToFileURL } from 'node:url';
import { expect, it, onTestFinished } from 'vitest';
import { eventually } from '../testing';
import type { DocumentOrder, Written } from './outside';
import { RenderPool } from './renderPool';
import { Renderer, type RenderRequest } from './renderer';
import type { RenderedView } from './viewDelta';

/** The built threads, as the tests of whole processes start them. */
const folder = new URL('.', pathToFileURL(process.env['SERVER_MAIN']!));
const place = { publicUrl: 'https://w.example', asOf: RANGE.from, hub: '', mayMail: false, listed: null };
const rules = rulesOf('clear');

async function poolOf(options: { room?: number; deadline?: number } = {}): Promise<RenderPool> {
  const pool = new RenderPool({ folder, room: 64 * 1024 * 1024, ...options });
  await pool.start();
  onTestFinished(() => pool.close());
  return pool;
}

/** The next state of a view of some entries; the first has the title given. */
function stateOf(title: string, count = 3, before: RenderedView | null = null): RenderedView {
  const entries = Array.from({ length: count }, (_, n) =>
    entry({ id: `e${n}`, title: n ? `Entry ${n}` : title, start: zoned('2026-06-12T10:00') }),
  );
  const view = outwardView(entries, rules, RANGE, STREET, emptyMemo());
  return { view, revision: nextRevision(before?.revision ?? null, view, RANGE.from) };
}

function requestOf(viewId: string, parts: object = { form: 'feed', body: null }, token = 'k'): RenderRequest {
  const order = { viewId, number: 1, token, moved: null, farewell: null, now: RANGE.from, ...parts };
  return { order: order as DocumentOrder, place };
}

const PAGE = { form: 'page', page: { kind: 'days' }, query: {}, accepted: ['en'] };
const bytesOf = (written: Written | null) => {
  if (!written) return null;
  const { head, body } = written;
  return [head.plain, head.gzip, head.tail, body?.plain, body?.deflated].map((b) => b && Buffer.from(b));
};

it('renders the same bytes in other threads as here, for revision after revision', async () => {
  const pool = await poolOf();
  const here = new Renderer(64 * 1024 * 1024);
  let state: RenderedView | null = null;
  for (const title of ['Drill', 'Open day', 'Drill']) {
    state = stateOf(title, 700, state);
    for (const parts of [{ form: 'feed', body: null }, { form: 'copy', body: null }, PAGE]) {
      const request = requestOf('v', parts);
      const expected = bytesOf(await here.render(request, state));
      expect(bytesOf(await pool.render(request, state))).toEqual(expected);
    }
  }
});

it('sends a view again if its thread no longer has it', async () => {
  // There is room for one view of this size in each thread.
  const pool = await poolOf({ room: 2 * 300 * 4500 });
  const [quay, lock] = [stateOf('Quay', 250), stateOf('Lock', 250)];
  for (const [id, state, title] of [
    ['quay', quay, 'Quay'],
    ['lock', lock, 'Lock'],
    ['quay', quay, 'Quay'],
  ] as const) {
    const written = await pool.render(requestOf(id), state);
    expect(Buffer.from(written!.body!.plain).toString()).toContain(`SUMMARY:${title}`);
  }
});

it('lets nobody crowd out another address', async () => {
  const pool = await poolOf();
  const state = stateOf('Quay', 50);
  const search = (n: number) => pool.render(requestOf('v', { ...PAGE, query: { find: `${n}` } }), state);
  const flood = Array.from({ length: 150 }, (_, n) => search(n));
  let [answered, other] = [0, -1];
  for (const each of flood) void each.then((written) => (answered += written ? 1 : 0));
  await pool.render(requestOf('v', PAGE, 'another'), state).then(() => (other = answered));
  expect(other).toBeLessThan(10);
  const refused = (await Promise.all(flood)).filter((written) => written === null);
  // One is rendered at once, a hundred wait.
  expect(refused).toHaveLength(49);
});

it('gives up what takes too long', async () => {
  const pool = await poolOf({ deadline: 1 });
  expect(await pool.render(requestOf('v'), stateOf('Quay', 2000))).toBeNull();
});

it('answers nothing while its threads are started again, and then goes on', async () => {
  const pool = await poolOf();
  const render = () => pool.render(requestOf('v'), stateOf('Quay'));
  expect(await render()).not.toBeNull();
  await pool.restart();
  expect(await render()).toBeNull();
  await eventually(async () => expect(await render()).not.toBeNull());
});
