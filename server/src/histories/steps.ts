import { DEMANDS, type Glass } from '@zonal/core/glass';
import { expect } from 'vitest';
import { DraftRow, KeyRow, WindowRow } from '../db/models';
import type { Standing } from '@zonal/core/rights';
import { PASSWORD, TestClient, eventually, windowInput } from '../testing';
import { accepted, hourOf, rewrite, takeBack, type Rewrite, type Scene } from './twins';

/** Something that an organiser does. Returns the status of the answer. */
type Act = (client: TestClient, scene: Scene) => Promise<number>;

/** What can happen in a history. Whoever reads behind frosted glass learns nothing of what is hidden. */
export type Step = { readonly hidden: boolean } & (
  | { readonly entry: Rewrite; readonly act?: never; readonly undo?: never }
  | {
      readonly act: Act;
      /** Whether it happens by itself later, so that no answer says when it is true everywhere. */
      readonly isScheduled?: true;
      readonly entry?: never;
      readonly undo?: never;
    }
  | { readonly undo: true; readonly entry?: never; readonly act?: never }
);

let serial = 0;

const held = (from: readonly string[], hold: 'keep-in' | 'frost' | 'none'): Rewrite => {
  return (before) =>
    before && from.includes(before.hold) ? { hour: hourOf(before), parts: { hold } } : undefined;
};
const retold = (name: 'title' | 'description' | 'place'): Rewrite => {
  return (before) =>
    before ? { hour: hourOf(before), parts: { [name]: `${name} ${++serial}` } } : undefined;
};

const keyNow = (id: string) => KeyRow.findByPk(id, { rejectOnEmpty: true, raw: true });

interface KeyChange {
  readonly cap?: Glass | null;
  /** ISO 8601, or null for no end. */
  readonly expiresAt?: string | null;
}

/** Changes a key; returns null if it would have ended by then. */
async function putKey(client: TestClient, id: string, change: KeyChange): Promise<number | null> {
  const { madeOutTo, audience, contact, notes, cap, version, expiresAt } = await keyNow(id);
  const answer = await client.call('PUT', `/keys/${id}`, {
    ...{ madeOutTo, audience, contact, notes, cap, version },
    expiresAt: expiresAt?.toISOString() ?? null,
    confirmed: DEMANDS,
    ...change,
  });
  return answer.body?.code === 'expiry-past' ? null : accepted(answer);
}

/** A key that has ended cannot be changed and stay ended: then nothing happens. */
const alterKey =
  (which: 'keyId' | 'otherKeyId', change: KeyChange): Act =>
  async (client, scene) =>
    (await putKey(client, scene[which], change)) ?? 200;

const postKey =
  (which: 'keyId' | 'otherKeyId', what: 'withdraw' | 'bring-back'): Act =>
  async (client, scene) =>
    accepted(await client.call('POST', `/keys/${scene[which]}/${what}`));

/** A key that has ended gets no new address. */
const replaceKey: Act = async (client, { keyId }) => {
  const answer = await client.call('POST', `/keys/${keyId}/turn`, { graceDays: 1 });
  return answer.body?.code === 'key-ended' ? 200 : accepted(answer);
};

/** The rules of a window: what of them the steps change. */
const settings = ({ name, listed }: WindowRow, { calendarId }: Scene, glass: Glass, parts: object = {}) =>
  windowInput(calendarId, glass, { name, listed, publicGraceDays: 0, ...parts });
const windowNow = ({ windowId }: Scene) => WindowRow.findByPk(windowId, { rejectOnEmpty: true });

const alterWindow =
  (glass: Glass, parts: object = {}): Act =>
  async (client, scene) => {
    const row = await windowNow(scene);
    const body = { ...settings(row, scene, glass, parts), version: row.version };
    const answer = await client.call('PUT', `/windows/${scene.windowId}`, body);
    return answer.body?.code === 'window-closed' ? 200 : accepted(answer);
  };

const postWindow =
  (what: 'close' | 'open'): Act =>
  async (client, { windowId }) =>
    accepted(await client.call('POST', `/windows/${windowId}/${what}`));

const setCeiling =
  (glass: Glass | null): Act =>
  async (client, { calendarId }) =>
    accepted(
      await client.call('PUT', '/ceilings', {
        ...{ calendarId, audience: 'street', glass },
        confirmed: DEMANDS,
      }),
    );

/** Of a window that somebody may not publish, or may not know of. */
const REFUSALS = [403, 404];

/** Milliseconds until a draft is due, as far as its author knows. */
const DRAFT_DELAY_MS = 3_600_000;

/** Schedules other rules of an open window. Returns false if this account may not. */
async function schedule(client: TestClient, scene: Scene, row: WindowRow, glass: Glass): Promise<boolean> {
  const path = `/windows/${scene.windowId}`;
  const { confirmed, ...body } = settings(row, scene, glass);
  const known = (await client.call('GET', path)).body.draft;
  const saved = await client.call('PUT', `${path}/draft`, { body, version: known?.version ?? 0 });
  if (REFUSALS.includes(saved.status)) return false;
  accepted(saved);
  const at = new Date(Date.now() + DRAFT_DELAY_MS).toISOString();
  accepted(await client.call('POST', `${path}/schedule`, { at, confirmed }));
  return true;
}

/** Makes a scheduled draft due now. */
async function makeDue({ windowId }: Scene): Promise<void> {
  await DraftRow.update({ publishAt: new Date() }, { where: { windowId } });
}

/** Has other rules published by themselves, and waits for that. */
const scheduleGlass =
  (glass: Glass): Act =>
  async (client, scene) => {
    const row = await windowNow(scene);
    if (row.closedAt || !(await schedule(client, scene, row, glass))) return 200;
    await makeDue(scene);
    await eventually(async () => expect((await windowNow(scene)).version).toBeGreaterThan(row.version));
    return 200;
  };

type Person = { readonly userId: string; readonly standing: Standing; readonly glass: Glass | null };
type CalendarPeople = { readonly people: readonly Person[]; readonly houseGlass: Glass };

/** Changes who may do what with a calendar: `change` gets its people and the glass for the house as they are. */
async function changePeople(
  client: TestClient,
  { calendarId }: Scene,
  change: (now: CalendarPeople) => CalendarPeople,
): Promise<number> {
  const path = `/calendars/${calendarId}/people`;
  const { people, houseGlass, version } = (await client.call('GET', path)).body;
  const known: Person[] = people.map(({ userId, standing, glass }: Person) => ({ userId, standing, glass }));
  const next = change({ people: known, houseGlass });
  return accepted(await client.call('PUT', path, { ...next, version }));
}
const setHouseGlass =
  (houseGlass: Glass): Act =>
  (client, scene) =>
    changePeople(client, scene, ({ people }) => ({ people, houseGlass }));

const letColleague =
  (standing: Standing): Act =>
  (client, scene) =>
    changePeople(client, scene, ({ people, houseGlass }) => ({
      houseGlass,
      people: [
        ...people.filter(({ userId }) => userId !== scene.colleague.id),
        { userId: scene.colleague.id, standing, glass: null },
      ],
    }));

async function signedInColleague(client: TestClient, { colleague }: Scene): Promise<TestClient> {
  const own = new TestClient(client.base);
  await own.signIn(PASSWORD, colleague.email);
  return own;
}

/** A colleague has other rules published by themselves in a moment; nothing happens if they may not. */
const colleagueSchedules =
  (glass: Glass): Act =>
  async (client, scene) =>
    scheduleGlass(glass)(await signedInColleague(client, scene), scene);

/** A colleague schedules other rules and may no longer publish when their time comes: they are not shown. */
const colleagueIsStopped =
  (glass: Glass): Act =>
  async (client, scene) => {
    await letColleague('publisher')(client, scene);
    const row = await windowNow(scene);
    if (row.closedAt) return letColleague('editor')(client, scene);
    const own = await signedInColleague(client, scene);
    expect(await schedule(own, scene, row, glass)).toBe(true);
    const status = await letColleague('editor')(client, scene);
    await makeDue(scene);
    await eventually(async () => {
      const draft = await DraftRow.findByPk(scene.windowId, { rejectOnEmpty: true });
      expect(draft.stopped).toContain('may no longer publish');
    });
    expect((await windowNow(scene)).version).toBe(row.version);
    return status;
  };

/** Has a key end by itself, and waits until it has: nothing else happens to it meanwhile. */
const endKey: Act = async (client, { keyId }) => {
  // A busy machine may answer only after the key would have ended; a process whose clock is ahead refuses each of these.
  for (let delayMs = 1_000; delayMs < 60_000; delayMs *= 2) {
    const at = Date.now() + delayMs;
    const status = await putKey(client, keyId, { expiresAt: new Date(at).toISOString() });
    if (status === null) continue;
    await new Promise((resolve) => setTimeout(resolve, Math.max(0, at - Date.now()) + 1));
    return status;
  }
  return 200;
};

export const STEPS = {
  'an entry comes or moves': {
    hidden: false,
    entry: (before) => ({ hour: before ? 8 + ((hourOf(before) - 7) % 12) : 9, parts: {} }),
  },
  'an entry goes': { hidden: false, entry: () => null },
  'an entry is kept in': { hidden: false, entry: held(['none', 'frost'], 'keep-in') },
  'an entry is no longer kept in': { hidden: false, entry: held(['keep-in'], 'none') },
  'an entry is frosted': { hidden: true, entry: held(['none'], 'frost') },
  'an entry is no longer frosted': { hidden: true, entry: held(['frost'], 'none') },
  'the last edit is taken back': { hidden: false, undo: true },
  'another title': { hidden: true, entry: retold('title') },
  'another description': { hidden: true, entry: retold('description') },
  'another place': { hidden: true, entry: retold('place') },
  'the key is withdrawn': { hidden: false, act: postKey('keyId', 'withdraw') },
  'the key is brought back': { hidden: false, act: postKey('keyId', 'bring-back') },
  'the key shows nothing': { hidden: false, act: alterKey('keyId', { cap: 'shut' }) },
  'the key shows busy times': { hidden: false, act: alterKey('keyId', { cap: 'frosted' }) },
  'the key ends in a moment': { hidden: false, act: endKey },
  'the key has no end': { hidden: false, act: alterKey('keyId', { expiresAt: null }) },
  'the key is replaced': { hidden: false, act: replaceKey },
  'the other key is withdrawn': { hidden: true, act: postKey('otherKeyId', 'withdraw') },
  'the other key is brought back': { hidden: true, act: postKey('otherKeyId', 'bring-back') },
  // Keys with one cap share a view, so this one never has that of the key.
  'the other key shows titles': { hidden: true, act: alterKey('otherKeyId', { cap: 'tinted' }) },
  'the other key shows all': { hidden: true, act: alterKey('otherKeyId', { cap: null }) },
  'the window closes': { hidden: false, act: postWindow('close') },
  'the window opens': { hidden: false, act: postWindow('open') },
  'the window is listed': { hidden: false, act: alterWindow('tinted', { listed: true }) },
  'the window is unlisted': { hidden: false, act: alterWindow('tinted', { listed: false }) },
  'the window shows nothing': { hidden: false, act: alterWindow('shut') },
  'the window shows every field': { hidden: false, act: alterWindow('clear') },
  'the window will show busy times': { hidden: false, isScheduled: true, act: scheduleGlass('frosted') },
  'a ceiling shuts the calendar': { hidden: false, act: setCeiling('shut') },
  'a ceiling of titles': { hidden: false, act: setCeiling('tinted') },
  'no ceiling': { hidden: false, act: setCeiling(null) },
  'a colleague may publish': { hidden: false, act: letColleague('publisher') },
  'a colleague may not publish': { hidden: false, act: letColleague('editor') },
  'a colleague’s draft will show every field': {
    hidden: false,
    isScheduled: true,
    act: colleagueSchedules('clear'),
  },
  'a colleague may not publish before their draft is due': {
    hidden: false,
    act: colleagueIsStopped('clear'),
  },
  'the house sees the calendar': { hidden: true, act: setHouseGlass('tinted') },
  'the house sees nothing': { hidden: true, act: setHouseGlass('shut') },
} satisfies Record<string, Step>;

export type StepName = keyof typeof STEPS;

/** Does a step to a scene, and also to its twin unless it is hidden. Returns the worst status. */
export async function doStep(
  name: StepName,
  client: TestClient,
  [scene, twin]: readonly [Scene, Scene],
  place: number,
): Promise<number> {
  const step: Step = STEPS[name];
  const scenes = step.hidden ? [scene] : [scene, twin];
  if (step.undo) return takeBack(client, scene);
  if (step.entry) return rewrite(client, scenes, place, step.entry);
  const statuses = [];
  for (const one of scenes) statuses.push(await step.act(client, one));
  return Math.max(...statuses);
}
