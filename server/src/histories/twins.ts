import { EMPTY_CONTENT, type Content, type Entry } from '@zonal/core/entries';
import { DAY } from '@zonal/core/zones';
import { expect } from 'vitest';
import { LedgerRow, ViewItemRow, ViewRow } from '../db/models';
import { colleague, eventually, windowInput, type Answer, type TestClient } from '../testing';

const ZONE = 'America/Halifax';
/** How many entries a calendar may have: each has its own day. */
export const PLACES = 3;
const ACCEPTED_STATUSES = [200, 201, 202, 204];

/** One of two calendars with a window and a key behind frosted glass. Its twin has the same visible history. */
export interface Scene {
  readonly calendarId: string;
  readonly windowId: string;
  /** The key whose view is compared with the twin's. */
  readonly keyId: string;
  /** Another key of the same window, with no cap. */
  readonly otherKeyId: string;
  /** Somebody who may publish the calendar from time to time. */
  readonly colleague: { readonly id: string; readonly email: string };
  readonly entries: (Entry | null)[];
  /** Edits that were made and not taken back, oldest first: which places of which scenes each changed. */
  readonly edits: Edit[];
}

interface Edit {
  readonly id: string;
  readonly place: number;
  readonly scenes: readonly Scene[];
}

let serial = 0;

/** Returns the status of an answer. Throws if it is an error. */
export function accepted({ status, body }: Answer): number {
  expect([status, ACCEPTED_STATUSES.includes(status) ? null : body]).toEqual([status, null]);
  return status;
}

function draft(place: number, hour: number, parts: Partial<Content>) {
  const day = new Date((Math.floor(Date.now() / DAY) + 3 + place) * DAY).toISOString().slice(0, 10);
  const at = (h: number) => ({
    kind: 'zoned' as const,
    at: `${day}T${String(h).padStart(2, '0')}:00:00`,
    zone: ZONE,
  });
  return {
    ...EMPTY_CONTENT,
    title: 'Day',
    ...parts,
    start: at(hour),
    end: at(hour + 1),
    recurrence: null,
    overrides: [],
  };
}

/** What a change does to the entry of a place; null deletes it, undefined leaves it. */
export type Rewrite = (before: Entry | null) => { hour: number; parts: Partial<Content> } | null | undefined;

/** Returns the hour of an entry of these scenes, by the host's clock. */
export function hourOf({ start }: Entry): number {
  return start.kind === 'zoned' ? Number(start.at.slice(11, 13)) : 0;
}

/** Changes the entry of one place in several scenes with one edit, so that the changes have one time. */
export async function rewrite(
  client: TestClient,
  scenes: readonly Scene[],
  place: number,
  work: Rewrite,
): Promise<number> {
  const changes: { scene: Scene; body: object }[] = [];
  for (const scene of scenes) {
    const before = scene.entries[place]!;
    const next = work(before);
    if (next === undefined || (next === null && before === null)) continue;
    const kept = before && {
      title: before.title,
      description: before.description,
      place: before.place,
      hold: before.hold,
    };
    const entry = next && draft(place, next.hour, { ...kept, ...next.parts });
    const own = before ? { id: before.id, uid: before.uid, version: before.version } : { version: 0 };
    changes.push({ scene, body: { ...own, calendarId: scene.calendarId, entry } });
  }
  if (!changes.length) return 200;
  const answer = await client.call('POST', '/edits', {
    label: 'Step',
    changes: changes.map(({ body }) => body),
  });
  const status = accepted(answer);
  const edit = { id: answer.body.id, place, scenes: changes.map(({ scene }) => scene) };
  noteEntries(edit, answer);
  for (const scene of edit.scenes) scene.edits.push(edit);
  return status;
}

/** Notes the entries that an edit left behind, as its answer has them. */
function noteEntries({ place, scenes }: Edit, { body }: Answer): void {
  for (const scene of scenes)
    scene.entries[place] = body.entries.find((e: Entry) => e.calendarId === scene.calendarId) ?? null;
}

/** Takes back the last edit of a scene, and of its twin if it was made to both; nothing if there is none. */
export async function takeBack(client: TestClient, { edits }: Scene): Promise<number> {
  const edit = edits.at(-1);
  if (!edit) return 200;
  const answer = await client.call('POST', `/edits/${edit.id}/take-back`);
  const status = accepted(answer);
  noteEntries(edit, answer);
  for (const scene of edit.scenes) scene.edits.pop();
  return status;
}

/** Makes a calendar with an entry on each place, and a window over it with two keys. */
export async function makeScene(client: TestClient): Promise<Scene> {
  const name = `Quay ${++serial}`;
  const plate = { description: '', zone: ZONE, plate: 'QU', colour: 'teal' };
  const calendar = (await client.call('POST', '/calendars', { ...plate, name })).body;
  const made = await client.call('POST', '/windows', windowInput(calendar.id, 'tinted', { name }));
  accepted(made);
  const [first] = made.body.keys;
  const key = {
    ...{ madeOutTo: 'Town', audience: 'street', contact: '', notes: '', expiresAt: null },
    ...{ cap: 'frosted', version: first.version },
  };
  accepted(await client.call('PUT', `/keys/${first.id}`, key));
  const more = await client.call('POST', `/windows/${made.body.id}/keys`, {
    ...key,
    madeOutTo: 'Pilots',
    cap: null,
  });
  accepted(more);
  const other = more.body.keys.find((k: { id: string }) => k.id !== first.id);
  return {
    calendarId: calendar.id,
    windowId: made.body.id,
    keyId: first.id,
    otherKeyId: other.id,
    colleague: await colleague(client.base, `Ines${serial}`),
    entries: Array.from({ length: PLACES }, () => null),
    edits: [],
  };
}

/** What readers behind frosted glass can learn of a scene's past, without what differs from window to window. */
export async function outwardHistory({ windowId }: Scene) {
  const caps = ['frosted', 'shut'];
  const history = [];
  for (const cap of caps) {
    const viewId = `${windowId}|street|${cap}`;
    const view = await ViewRow.findByPk(viewId);
    const lines = await LedgerRow.findAll({ where: { viewId }, order: [['number', 'ASC']] });
    const items = await ViewItemRow.findAll({ where: { viewId }, raw: true });
    history.push({
      cap,
      number: view?.revision.number ?? 0,
      lines: lines.map(({ number, appeared, altered, vanished, at }) => ({
        number,
        appeared,
        altered,
        vanished,
        at: at.getTime(),
      })),
      items: items
        .map(({ item, stamp }) => {
          const { uid: _uid, ...shown } = item as unknown as Record<string, unknown>;
          return { shown: JSON.stringify(shown), sequence: stamp.sequence, at: stamp.at };
        })
        .sort((a, b) => (a.shown < b.shown ? -1 : 1)),
    });
  }
  return history;
}

type History = Awaited<ReturnType<typeof outwardHistory>>;

/** Compares what two scenes tell their readers of their past. */
export class PastComparison {
  /** Which time of the twin belongs to a time of the scene, as far as they were compared. */
  private readonly pairs = new Map<number, number>();

  constructor(private readonly scenes: readonly [Scene, Scene]) {}

  /**
   * Waits until both scenes have the same revisions, sequences and times. Throws if they go on to differ. Times that are new
   * may differ by `tolerance` milliseconds: those of two changes that were made one after the other.
   */
  async expectSame(tolerance: number): Promise<void> {
    const [own, twin] = this.scenes;
    await eventually(async () => {
      const [past, other] = [await outwardHistory(own), await outwardHistory(twin)];
      expect(this.aligned(past, other, tolerance)).toEqual(other);
      past.forEach((view, v) => {
        view.lines.forEach(({ at }, i) => this.pairs.set(at, other[v]!.lines[i]!.at));
        view.items.forEach(({ at }, i) => this.pairs.set(at, other[v]!.items[i]!.at));
      });
    });
  }

  private aligned(own: History, other: History, tolerance: number): History {
    const near = (at: number, of: number | undefined) => {
      if (this.pairs.get(at) === of || (of !== undefined && Math.abs(at - of) <= tolerance)) return of ?? at;
      return at;
    };
    return own.map((view, v) => ({
      ...view,
      lines: view.lines.map((line, i) => ({ ...line, at: near(line.at, other[v]?.lines[i]?.at) })),
      items: view.items.map((item, i) => ({ ...item, at: near(item.at, other[v]?.items[i]?.at) })),
    }));
  }
}
