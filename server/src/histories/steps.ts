import { DEMANDS, type Glass } from '@zonal/core/glass';
import { expect } from 'vitest';
import { KeyRow, WindowRow } from '../db/models';
import { eventually, windowInput, type TestClient } from '../testing';
import { accepted, hourOf, rewrite, type Rewrite, type Scene } from './twins';

/** Something that an organiser does. Returns the status of the answer. */
type Act = (client: TestClient, scene: Scene) => Promise<number>;

/** What can happen in a history. Whoever reads behind frosted glass learns nothing of what is hidden. */
export type Step = { readonly hidden: boolean } & (
  { readonly entry: Rewrite; readonly act?: never } | { readonly act: Act; readonly entry?: never }
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

const alterKey =
  (which: 'keyId' | 'otherKeyId', parts: { cap?: Glass | null; expiresAt?: () => string | null }): Act =>
  async (client, scene) => {
    const key = await keyNow(scene[which]);
    const { madeOutTo, audience, contact, notes, cap, version } = key;
    const expiresAt = key.expiresAt?.toISOString() ?? null;
    const body = { madeOutTo, audience, contact, notes, cap, version, expiresAt };
    const next = {
      ...body,
      confirmed: DEMANDS,
      ...('cap' in parts ? { cap: parts.cap } : {}),
      ...(parts.expiresAt ? { expiresAt: parts.expiresAt() } : {}),
    };
    const answer = await client.call('PUT', `/keys/${key.id}`, next);
    // A key that has ended cannot be changed and stay ended.
    return answer.body?.code === 'expiry-past' ? 200 : accepted(answer);
  };

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

/** Has other rules published by themselves in a moment, and waits for that. */
const scheduleGlass =
  (glass: Glass): Act =>
  async (client, scene) => {
    const row = await windowNow(scene);
    if (row.closedAt) return 200;
    const path = `/windows/${scene.windowId}`;
    const { confirmed, ...body } = settings(row, scene, glass);
    const known = (await client.call('GET', path)).body.draft;
    accepted(await client.call('PUT', `${path}/draft`, { body, version: known?.version ?? 0 }));
    const at = new Date(Date.now() + 1_000).toISOString();
    accepted(await client.call('POST', `${path}/schedule`, { at, confirmed }));
    await eventually(async () => expect((await windowNow(scene)).version).toBeGreaterThan(row.version));
    return 200;
  };

const setHouseGlass =
  (houseGlass: Glass): Act =>
  async (client, { calendarId }) => {
    const path = `/calendars/${calendarId}/people`;
    const { people, version } = (await client.call('GET', path)).body;
    const known = people.map(({ userId, standing, glass }: Record<string, unknown>) => ({
      userId,
      standing,
      glass,
    }));
    return accepted(await client.call('PUT', path, { people: known, houseGlass, version }));
  };

/** Milliseconds after which a key ends by itself. */
const SOON_MS = 1_000;

/** Has a key end by itself, and waits until it has: nothing else happens to it meanwhile. */
const endKey: Act = async (client, scene) => {
  const at = Date.now() + SOON_MS;
  const status = await alterKey('keyId', { expiresAt: () => new Date(at).toISOString() })(client, scene);
  await new Promise((resolve) => setTimeout(resolve, Math.max(0, at - Date.now()) + 1));
  return status;
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
  'another title': { hidden: true, entry: retold('title') },
  'another description': { hidden: true, entry: retold('description') },
  'another place': { hidden: true, entry: retold('place') },
  'the key is withdrawn': { hidden: false, act: postKey('keyId', 'withdraw') },
  'the key is brought back': { hidden: false, act: postKey('keyId', 'bring-back') },
  'the key shows nothing': { hidden: false, act: alterKey('keyId', { cap: 'shut' }) },
  'the key shows busy times': { hidden: false, act: alterKey('keyId', { cap: 'frosted' }) },
  'the key ends in a moment': { hidden: false, act: endKey },
  'the key has no end': { hidden: false, act: alterKey('keyId', { expiresAt: () => null }) },
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
  'the window will show busy times': { hidden: false, act: scheduleGlass('frosted') },
  'a ceiling shuts the calendar': { hidden: false, act: setCeiling('shut') },
  'a ceiling of titles': { hidden: false, act: setCeiling('tinted') },
  'no ceiling': { hidden: false, act: setCeiling(null) },
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
  if (step.entry) return rewrite(client, scenes, place, step.entry);
  const statuses = [];
  for (const one of scenes) statuses.push(await step.act(client, one));
  return Math.max(...statuses);
}
