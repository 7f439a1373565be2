import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestClient, freshDatabase, testServer, windowInput, colleague } from '../testing';
import { EMPTY_CONTENT } from '@zonal/core/entries';

let server: Awaited<ReturnType<typeof testServer>>;
let steward: TestClient;
let publisher: TestClient;

beforeAll(async () => {
  server = await testServer(await freshDatabase());
  steward = new TestClient(server.base);
  await steward.signIn();
  ({ client: publisher } = await colleague(server.base, 'Ole'));
});
afterAll(() => server.close());

const house = async () => (await steward.call('GET', '/house')).body;
const change = async (parts: object, who = steward) =>
  who.call('PUT', '/house', { ...(await house()), ...parts });
const property = (name: string, kind: string, choices: string[] = []) => ({ name, kind, choices });

describe('the house', () => {
  it('is changed by stewards only, and never over somebody else’s change', async () => {
    expect((await change({ name: 'Trust' }, publisher)).body.code).toBe('steward-only');
    const before = await house();
    expect((await change({ name: 'Trust' })).body).toMatchObject({
      name: 'Trust',
      version: before.version + 1,
    });
    const late = await change({ name: 'Late', version: before.version });
    expect(late.status).toBe(409);
    expect(late.body.details).toMatchObject({ current: { name: 'Trust' }, yours: { name: 'Late' } });
    expect((await house()).name).toBe('Trust');
  });

  it('refuses a zone that is none, a choice with nothing to choose, and a property that stands twice', async () => {
    expect((await change({ zone: 'Harbour time' })).body.code).toBe('input-invalid');
    const empty = await change({ properties: [property('Berth', 'choice')] });
    expect(empty.body).toMatchObject({ code: 'choices-missing' });
    expect(empty.body.message).toContain('Berth');
    const twice = [property('Berth', 'text'), property('Berth', 'number')];
    expect((await change({ properties: twice })).body.code).toBe('input-invalid');
    expect((await change({ watchWords: ['a'] })).body.code).toBe('input-invalid');
  });

  it('holds entries to its properties', async () => {
    const properties = [
      property('Draught', 'number'),
      property('Berth', 'choice', ['1', '2']),
      property('Inspected', 'date'),
    ];
    expect((await change({ properties })).status).toBe(200);
    const calendar = { name: 'Berths', description: '', zone: 'UTC', plate: 'BE', colour: 'teal' };
    const { id } = (await steward.call('POST', '/calendars', calendar)).body;
    const write = async (name: string, value: string) =>
      (
        await steward.call('POST', `/calendars/${id}/entries`, {
          ...EMPTY_CONTENT,
          title: 'Survey',
          start: { kind: 'date', date: '2026-06-12' },
          end: { kind: 'date', date: '2026-06-13' },
          recurrence: null,
          overrides: [],
          properties: [{ name, value }],
        })
      ).body;
    expect((await write('Draught', '7.5')).properties).toEqual([{ name: 'Draught', value: '7.5' }]);
    for (const [name, value] of [
      ['Draught', 'deep'],
      ['Berth', '3'],
      ['Inspected', 'May'],
    ] as const) {
      const refused = await write(name, value);
      expect(refused.code).toBe('property-invalid');
      expect(refused.message).toContain(`“${value}” does not fit “${name}”`);
    }
    // What the house does not define is kept as it is.
    expect((await write('Elsewhere', 'anything')).properties[0].value).toBe('anything');
  });

  it('breaks the filters that name a property it gives up, at once, and mends them when it comes back', async () => {
    const calendar = { name: 'Slips', description: '', zone: 'UTC', plate: 'SL', colour: 'teal' };
    const { id } = (await steward.call('POST', '/calendars', calendar)).body;
    const day = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
    await steward.call('POST', `/calendars/${id}/entries`, {
      ...EMPTY_CONTENT,
      title: 'Hull wash',
      start: { kind: 'date', date: day },
      end: { kind: 'date', date: new Date(Date.now() + 2 * 86_400_000).toISOString().slice(0, 10) },
      recurrence: null,
      overrides: [],
    });
    await change({ properties: [property('Berth', 'text')] });
    const filter = { not: { field: 'property', name: 'Berth', test: 'is', value: '2' } };
    const window = (await steward.call('POST', '/windows', windowInput(id, 'tinted', { filter }))).body;
    const feed = async () => (await fetch(`${server.base}/feed/${window.keys[0].token}.ics`)).text();
    expect(await feed()).toContain('Hull wash');
    await change({ properties: [] });
    expect(await feed()).not.toContain('Hull wash');
    expect((await steward.call('GET', `/windows/${window.id}`)).body.gone).toEqual(['property:Berth']);
    await change({ properties: [property('Berth', 'text')] });
    expect(await feed()).toContain('Hull wash');
  });
});
