import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { colleague, lettersTo, makeTo, quayServer, type TestClient } from '../testing';

let quay: Awaited<ReturnType<typeof quayServer>>;
let siri: Awaited<ReturnType<typeof colleague>>;
let jon: Awaited<ReturnType<typeof colleague>>;
let serial = 0;
beforeAll(async () => {
  quay = await quayServer();
  siri = await colleague(quay.server.base, 'Siri');
  jon = await colleague(quay.server.base, 'Jon');
});
afterAll(() => quay.server.close());

/** Makes a calendar that Jon publishes; the house sees it as it is told. */
async function calendar(parts: { houseGlass?: string; known?: boolean }) {
  const plate = { plate: 'CA', colour: 'teal', zone: 'America/Halifax', description: 'For tests' };
  const made = await jon.client.call('POST', '/calendars', { ...plate, name: `Calendar ${++serial}` });
  const body = {
    people: [{ userId: jon.id, standing: 'publisher', glass: null }],
    houseGlass: 'shut',
    known: false,
    labelHolds: [],
    version: 1,
    ...parts,
  };
  await jon.client.call('PUT', `/calendars/${made.body.id}/people`, body);
  return { id: String(made.body.id), name: String(made.body.name) };
}

const listed = async (client: TestClient, id: string) =>
  (await client.call('GET', '/directory')).body.find((c: any) => c.id === id) ?? null;
const ask = (id: string, parts: object = {}) =>
  siri.client.call('POST', `/calendars/${id}/wishes`, {
    standing: 'reader',
    glass: 'tinted',
    reason: 'The quay is booked by phone',
    ...parts,
  });

describe('the directory of calendars', () => {
  it('has those that one may know of, with whom to ask, and none else', async () => {
    const hidden = await calendar({});
    const known = await calendar({ known: true });
    const seen = await calendar({ houseGlass: 'frosted' });
    expect(await listed(siri.client, hidden.id)).toBe(null);
    expect(await listed(siri.client, known.id)).toEqual({
      ...{ id: known.id, name: known.name, description: 'For tests', zone: 'America/Halifax' },
      ...{ plate: 'CA', colour: 'teal', shape: 'square', pattern: 'solid' },
      ...{ publishers: ['Jon'], who: 'house', sight: 'shut', onDesk: false },
    });
    expect(await listed(siri.client, seen.id)).toMatchObject({ sight: 'frosted', onDesk: true });
    // What is known of is not seen, nor anything of what stands in it.
    const calendars = (await siri.client.call('GET', '/calendars')).body.map((c: any) => c.id);
    expect([known.id, seen.id].map((id) => calendars.includes(id))).toEqual([false, true]);
    expect((await siri.client.call('GET', `/calendars/${known.id}/entries`)).status).toBe(404);
    expect((await ask(hidden.id)).status).toBe(404);
    const off = (id: string) => siri.client.call('PUT', `/directory/${id}/desk`, { onDesk: false });
    expect((await off(hidden.id)).status).toBe(404);
    expect((await off(seen.id)).body.find((c: any) => c.id === seen.id).onDesk).toBe(false);
    expect((await siri.client.call('GET', '/calendars')).body.find((c: any) => c.id === seen.id).onDesk).toBe(
      false,
    );
    expect(await listed(jon.client, seen.id)).toMatchObject({ onDesk: true, sight: 'all' });
  });

  it('lets one ask; a publisher answers in one step, and it acts at once', async () => {
    const { id, name } = await calendar({ known: true });
    const asked = await ask(id);
    expect(asked.body[0]).toMatchObject({ calendar: name, state: 'open', toAnswer: false });
    const letter = (await lettersTo(jon.email)).at(-1)!;
    expect(letter.subject).toBe(`Siri asks to see “${name}” through tinted glass`);
    expect(letter.text).toContain('The quay is booked by phone');
    // Changed, not asked twice.
    const more = await ask(id, { glass: 'clear' });
    expect(more.body.filter((w: any) => w.calendarId === id && w.state === 'open')).toHaveLength(1);
    expect((await lettersTo(jon.email)).filter((l) => l.subject.includes(name))).toHaveLength(1);

    const [wish] = (await jon.client.call('GET', '/wishes')).body.filter((w: any) => w.calendarId === id);
    expect(wish).toMatchObject({ by: 'Siri', glass: 'clear', toAnswer: true });
    const reply = (client: TestClient, parts: object = {}) =>
      client.call('POST', `/wishes/${wish.id}`, {
        grant: true,
        standing: 'reader',
        glass: 'frosted',
        ...parts,
      });
    expect((await reply(siri.client)).status).toBe(404);
    expect((await reply(jon.client)).status).toBe(200);
    expect((await reply(jon.client)).body.code).toBe('request-answered');
    expect(await listed(siri.client, id)).toMatchObject({ who: 'reader', sight: 'frosted', onDesk: true });
    const [own] = (await siri.client.call('GET', '/wishes')).body;
    expect(own).toMatchObject({ id: wish.id, state: 'granted', answeredBy: 'Jon' });
    expect((await lettersTo(siri.email)).at(-1)!.text).toContain(
      `Jon granted your request: you may now see “${name}” through frosted glass.`,
    );
    // Whoever had the people open meanwhile is not written over.
    const { version } = (await jon.client.call('GET', `/calendars/${id}/people`)).body;
    expect(version).toBe(3);
  });

  it('tells of a refusal, and of a wish that was taken back', async () => {
    const { id, name } = await calendar({ houseGlass: 'frosted' });
    await ask(id, { standing: 'editor', glass: null });
    const [wish] = (await jon.client.call('GET', '/wishes')).body.filter((w: any) => w.calendarId === id);
    await jon.client.call('POST', `/wishes/${wish.id}`, { grant: false, standing: 'editor', glass: null });
    expect((await lettersTo(siri.email)).at(-1)!.text).toContain(
      `Jon declined your request to be an editor of “${name}”.`,
    );
    expect(await listed(siri.client, id)).toMatchObject({ who: 'house' });
    const [again] = (await ask(id)).body;
    const taken = await siri.client.call('DELETE', `/wishes/${again.id}`);
    expect(taken.body[0].state).toBe('taken-back');
    const late = { grant: true, standing: 'reader', glass: 'clear' };
    expect((await jon.client.call('POST', `/wishes/${again.id}`, late)).body.code).toBe('request-answered');
    expect((await jon.client.call('DELETE', `/wishes/${again.id}`)).status).toBe(404);
  });

  it('tells nobody of a wish any more whose calendar they may not know of', async () => {
    const { id } = await calendar({ known: true });
    await ask(id);
    await jon.client.call('PUT', `/calendars/${id}/people`, {
      people: [{ userId: jon.id, standing: 'publisher', glass: null }],
      ...{ houseGlass: 'shut', known: false, labelHolds: [], version: 2 },
    });
    expect(JSON.stringify((await siri.client.call('GET', '/wishes')).body)).not.toContain(id);
    await makeTo(id, siri.id, 'editor');
    // Who sees everything has nothing to ask to see.
    expect((await ask(id)).body.code).toBe('not-allowed');
  });
});
