import { EMPTY_CONTENT, type Entry } from '@zonal/core/entries';
import { GLASSES, type Glass, type LabelHold } from '@zonal/core/glass';
import { rulesInside } from '@zonal/core/rights';
import { LABELS, entryArbitrary } from '@zonal/core/testing/arbitraries';
import { PAIRS as CORE_PAIRS } from '@zonal/core/testing/effort';
import { changeHidden, noise } from '@zonal/core/testing/hiddenChanges';
import { HOST } from '@zonal/core/testing/samples';
import fc from 'fast-check';
import { createHash, randomInt } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Problem } from '@zonal/core/problems';
import { CalendarRow, CeilingRow, ChangeRow, EntryRow, StandingRow } from '../db/models';
import { columnsOf } from '../inside/entryStore';
import {
  TestClient,
  colleague,
  eventually,
  freshDatabase,
  makeTo,
  testServer,
  windowInput,
} from '../testing';

let server: Awaited<ReturnType<typeof testServer>>;
let reader: { client: TestClient; id: string };

beforeAll(async () => {
  server = await testServer(await freshDatabase());
  reader = await colleague(server.base, 'Per');
});
afterAll(() => server.close());

/** Fewer than where core alone is asked: each pair is stored, and every answer of the API about it is read. */
const PAIRS = CORE_PAIRS / 4;
/** Pairs that stand in one calendar, which has one glass: to ask for each by itself would take minutes. */
const IN_ONE = 10;
/** Pairs that are looked at together. */
const TOGETHER = 200;
const RING = ['crew', 'house'] as const;

/** Returns the id that a generated one stands for in the store. */
function uuidOf(text: string): string {
  const hex = createHash('sha256').update(text).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

interface Case {
  readonly calendarId: string;
  readonly ring: (typeof RING)[number];
  readonly glass: Glass;
  readonly ceiling: Glass | null;
  readonly labelHolds: readonly LabelHold[];
  readonly states: readonly [Entry[], Entry[]];
  /** How many pairs it is made of, and how many of them really differ. */
  readonly pairs: number;
  readonly changed: number;
}

/** Two states of one calendar that differ only in what the reader may not see, made of pairs of states. */
const caseArbitrary = fc
  .record({
    parts: fc.array(fc.tuple(fc.array(entryArbitrary, { minLength: 1, maxLength: 4 }), noise), {
      minLength: IN_ONE,
      maxLength: IN_ONE,
    }),
    ring: fc.constantFrom(...RING),
    glass: fc.constantFrom(...GLASSES, 'tinted', 'clear'),
    ceiling: fc.constantFrom(null, null, null, ...GLASSES),
    labelHolds: fc.oneof(
      fc.constant([]),
      fc.uniqueArray(
        fc.record({
          label: fc.constantFrom(...LABELS),
          hold: fc.constantFrom('frost' as const, 'keep-in' as const),
        }),
        { selector: (h) => h.label, maxLength: 2 },
      ),
    ),
  })
  .map(({ parts, ring, glass, ceiling, labelHolds }) => {
    const ceilings = { house: {}, calendars: ceiling ? { a: { [ring]: ceiling } } : {} };
    const setting = {
      calendar: { id: 'a', zone: HOST, labelHolds },
      ceilings,
      secret: '',
      range: { from: 0, to: 0 },
    };
    const rules = rulesInside({ audience: ring, glass }, setting);
    const pairs = parts.map(([entries, n], part) => {
      const own = entries.map((e) => ({ ...e, calendarId: 'a' }));
      const other = changeHidden(own, rules, { audience: ring, cap: null }, n, false);
      return [own, other].map((state) => state.map((e) => inPart(e, part)));
    });
    return { ring, glass, ceiling, labelHolds, pairs };
  })
  // Some entries the store would not take as they are.
  .map(({ pairs, ...rest }) => ({
    ...rest,
    pairs: pairs.filter((p) => p.every((s) => rowsOf(s, '', '', ''))),
  }))
  .map(({ pairs, ...rest }) => ({
    ...rest,
    pairs: pairs.length,
    states: [pairs.flatMap(([own]) => own!), pairs.flatMap(([, other]) => other!)] as const,
    changed: pairs.filter(([own, other]) => JSON.stringify(own) !== JSON.stringify(other)).length,
  }));

/** An entry of one pair among several: no other has its id. */
function inPart({ lineage, ...entry }: Entry, part: number): Entry {
  const own = (id: string) => `${part} ${id}`;
  return { ...entry, id: own(entry.id), ...(lineage ? { lineage: own(lineage) } : {}) };
}

/** Returns the columns of a state's entries, or null where the store would not take one of them, or not as it is. */
function rowsOf(entries: readonly Entry[], calendarId: string, hiddenId: string, name: string) {
  try {
    const rows = entries.map((e, i) => {
      const { lineage, ...rest } = e;
      const named = (id: string) => uuidOf(`${name} ${id}`);
      const columns = columnsOf(rest, HOST);
      return {
        ...columns,
        data: { ...columns.data, ...(lineage ? { lineage: named(lineage) } : {}) },
        id: named(e.id),
        uid: `${i} ${e.uid}`,
        version: e.version,
        calendarId: e.calendarId === 'a' ? calendarId : hiddenId,
      };
    });
    // A due item, for one, is a moment: what becomes of it when it is stored is no hidden change.
    const kept = rows.every(
      ({ data }, i) => JSON.stringify(timesIn(data)) === JSON.stringify(timesIn(entries[i]!)),
    );
    return kept ? rows : null;
  } catch (error) {
    if (error instanceof Problem) return null;
    throw error;
  }
}

function timesIn({
  start,
  end,
  recurrence,
  overrides,
}: Pick<Entry, 'start' | 'end' | 'recurrence' | 'overrides'>) {
  return [start, end, recurrence, overrides.map((o) => [o.slot, o.start, o.end])];
}

async function put(cases: readonly Case[], state: 0 | 1, hiddenId: string): Promise<void> {
  const ids = [...cases.map((c) => c.calendarId), hiddenId];
  await EntryRow.destroy({ where: { calendarId: ids } });
  const rows = cases.flatMap((c) => rowsOf(c.states[state], c.calendarId, hiddenId, c.calendarId)!);
  await EntryRow.bulkCreate(rows);
  await ChangeRow.create({ calendarIds: ids, edit: null, dropped: [], windows: [], userId: null });
}

/** Everything that the reader can ask for, by its path. */
async function everything(cases: readonly Case[], hiddenId: string): Promise<Map<string, string>> {
  const ids = [...cases.map((c) => c.calendarId), hiddenId];
  const paths = [
    '/calendars',
    ...ids.map((id) => `/calendars/${id}/entries`),
    `/calendars/${ids[0]}/entries?from=2026-05-01T00:00:00Z&to=2026-07-01T00:00:00Z`,
    ...cases.slice(0, 5).flatMap((c) => {
      const entry = `/entries/${uuidOf(`${c.calendarId} ${c.states[0][0]!.id}`)}`;
      return [entry, `${entry}/history`];
    }),
    ...['text', 'label', 'person', 'property'].map((where) => `/find?text=e&in=${where}`),
    ...[
      '/labels',
      '/windows',
      '/sheets',
      '/ceilings',
      '/house',
      '/house/watch',
      '/people',
      '/directory',
      '/wishes',
      '/standings',
    ],
    `/calendars/${ids[0]}/people`,
    `/calendars/${ids[0]}/impact`,
  ];
  const told = new Map<string, string>();
  const left = [...paths];
  const ask = async () => {
    for (let path = left.shift(); path !== undefined; path = left.shift()) {
      const { status, body } = await reader.client.call('GET', path);
      told.set(path, `${status} ${JSON.stringify(body)}`);
    }
  };
  // A few at once: most of the time goes by waiting for the store.
  await Promise.all(Array.from({ length: 6 }, ask));
  return told;
}

describe('what a reader inside may not see', () => {
  it(
    `changes nothing that the API tells them, in ${PAIRS} pairs of calendars`,
    { timeout: 600_000 },
    async () => {
      const plate = { plate: 'CA', colour: 'teal' as const, zone: HOST, description: '' };
      const hidden = await CalendarRow.create({ ...plate, name: 'Hidden' });
      const seed = randomInt(2 ** 31);
      let [seen, changed, looked] = [0, 0, 0];
      const generated = fc.sample(caseArbitrary, { numRuns: (PAIRS / IN_ONE) * 2, seed });
      const fit = generated.filter(({ pairs }) => pairs > 0);
      for (let at = 0; looked < PAIRS; at += TOGETHER / IN_ONE) {
        const some = fit.slice(at, at + TOGETHER / IN_ONE);
        expect(some.length, `too few cases that can be stored, seed ${seed}`).toBeGreaterThan(0);
        const cases: Case[] = [];
        for (const [i, one] of some.entries()) {
          const houseGlass = one.ring === 'house' ? one.glass : 'shut';
          const { id } = await CalendarRow.create({
            ...plate,
            name: `Calendar ${at + i}`,
            houseGlass,
            labelHolds: one.labelHolds,
          });
          if (one.ring === 'crew')
            await StandingRow.create({
              ...{ calendarId: id, userId: reader.id, standing: 'reader', glass: one.glass },
              ...{ byId: null, since: new Date(0) },
            });
          if (one.ceiling)
            await CeilingRow.create({ calendarId: id, audience: one.ring, glass: one.ceiling, userId: null });
          cases.push({ ...one, calendarId: id });
        }
        await put(cases, 0, hidden.id);
        const before = await everything(cases, hidden.id);
        await put(cases, 1, hidden.id);
        const after = await everything(cases, hidden.id);
        const different = [...before].filter(([path, text]) => after.get(path) !== text);
        expect(
          different.map(([path]) => path),
          `seed ${seed}`,
        ).toEqual([]);
        for (const one of cases) {
          if (/"title":"(?!Busy)/.test(before.get(`/calendars/${one.calendarId}/entries`)!)) seen++;
          changed += one.changed;
          looked += one.pairs;
        }
        await CalendarRow.destroy({ where: { id: cases.map((c) => c.calendarId) } });
      }
      // It would hold for nothing if nothing was seen, or nothing changed.
      expect(seen).toBeGreaterThan(PAIRS / IN_ONE / 5);
      expect(changed).toBeGreaterThan(PAIRS / 2);
    },
  );

  it('stays silent on the stream, until something changes that they see', async () => {
    const steward = new TestClient(server.base);
    await steward.signIn();
    const plate = { plate: 'ST', colour: 'teal', zone: HOST, description: '', name: 'Streamed' };
    const { id } = (await steward.call('POST', '/calendars', plate)).body;
    await makeTo(id, reader.id, 'reader', 'frosted');
    const at = (hour: number) => ({
      kind: 'zoned',
      at: `${new Date().getUTCFullYear()}-06-10T${hour}:00:00`,
      zone: HOST,
    });
    const entry = {
      ...EMPTY_CONTENT,
      title: 'Talks',
      start: at(10),
      end: at(12),
      recurrence: null,
      overrides: [],
    };
    const path = `/calendars/${id}/entries`;
    const own = (await steward.call('POST', path, entry)).body;
    const stream = await fetch(`${server.base}/api/changes`, { headers: reader.client.headers() });
    let told = '';
    const done = (async () => {
      const decoder = new TextDecoder();
      for await (const chunk of stream.body!) told += decoder.decode(chunk as Uint8Array);
    })().catch(() => undefined);
    await eventually(() => Promise.resolve(expect(told).toContain(': hello')));
    const change = (parts: object, version: number) =>
      steward.call('PUT', `/entries/${own.id}`, { ...entry, ...parts, version });
    await change({ title: 'Other talks', place: 'Office' }, 1);
    await steward.call('POST', path, { ...entry, hold: 'keep-in' });
    await steward.call('POST', path, { ...entry, start: at(11), title: 'Within the same span' });
    await steward.call('POST', '/calendars', { ...plate, name: 'Not theirs', plate: 'NT' });
    expect((await change({ end: at(13) }, 2)).status).toBe(200);
    await eventually(() => Promise.resolve(expect(told).toContain('event: change')));
    expect(told.match(/event: change\ndata: .*/g)).toEqual([
      `event: change\ndata: ${JSON.stringify({ calendarIds: [id], windowIds: [] })}`,
    ]);
    await makeTo(id, reader.id, 'reader', 'tinted');
    expect((await change({ end: at(13) }, 3)).status).toBe(200);
    await eventually(() => Promise.resolve(expect(told.match(/event: change/g)).toHaveLength(2)));
    await reader.client.call('DELETE', '/session');
    await done;
  });

  it('tells on the stream of the windows that somebody has just lost, and of nothing else', async () => {
    const steward = new TestClient(server.base);
    await steward.signIn();
    const plate = { plate: 'LO', colour: 'teal', zone: HOST, description: '', name: 'Lost' };
    const { id } = (await steward.call('POST', '/calendars', plate)).body;
    const jon = await colleague(server.base, 'Jon');
    await makeTo(id, jon.id, 'publisher');
    const window = (await steward.call('POST', '/windows', windowInput(id, 'tinted'))).body;
    const stream = await fetch(`${server.base}/api/changes`, { headers: jon.client.headers() });
    let told = '';
    const done = (async () => {
      const decoder = new TextDecoder();
      for await (const chunk of stream.body!) told += decoder.decode(chunk as Uint8Array);
    })().catch(() => undefined);
    await eventually(() => Promise.resolve(expect(told).toContain(': hello')));
    const { people, version } = (await steward.call('GET', `/calendars/${id}/people`)).body;
    const left = people.filter((p: any) => p.userId !== jon.id);
    const body = {
      people: left.map(({ userId, standing, glass }: any) => ({ userId, standing, glass })),
      ...{ houseGlass: 'shut', known: false, labelHolds: [], version },
    };
    expect((await steward.call('PUT', `/calendars/${id}/people`, body)).status).toBe(200);
    await eventually(() => Promise.resolve(expect(told).toContain('event: change')));
    expect(told.match(/data: .*/g)).toEqual([
      `data: ${JSON.stringify({ calendarIds: [id], windowIds: [window.id] })}`,
    ]);
    await jon.client.call('DELETE', '/session');
    await done;
  });
});
