import { EMPTY_CONTENT, type Content, type Entry } from '@zonal/core/entries';
import { settingsOf, type Glass, type WindowInput } from '@zonal/core/glass';
import { DAY, instantOf } from '@zonal/core/zones';
import { randomBytes, randomUUID } from 'node:crypto';
import type { Sequelize } from 'sequelize';
import { afterAll, beforeAll } from 'vitest';
import { logged, type LoggedChange, type MakeChange } from '../db/changes';
import { connect } from '../db/connect';
import { migrate } from '../db/migrate';
import {
  CalendarRow,
  EditEntryRow,
  KeyRow,
  LedgerRow,
  UserRow,
  WindowRow,
  WindowSourceRow,
  type EntryData,
} from '../db/models';
import { editNow, stageEdit, turnEdit } from '../inside/editStore';
import { freshDatabase, windowInput } from '../testing';
import { Compiler } from './compiler';
import type { Compiling } from './outside';
import { Publisher } from './publisher';

const ZONE = 'America/Halifax';
const FIRST = Math.floor(Date.UTC(2026, 5, 10) / DAY);
const midnight = (days: number) => instantOf(ZONE, (FIRST + days) * DAY);

/** What all scenes of a test file share. */
export const world = {
  sequelize: null as unknown as Sequelize,
  userId: '',
  /** The clock of all scenes, in epoch milliseconds. It only goes on, because the times of the change log only rise. */
  now: midnight(0) + 86_390_000,
  /** By how much that clock was set forward: no time passed then. */
  setForward: 0,
  /** The last change that was made. */
  last: null as unknown as LoggedChange,
};
let scenes = 0;

/** Has the tests of a file share a database of their own. */
export function shareDatabase(): void {
  beforeAll(async () => {
    world.sequelize = connect(await freshDatabase());
    await migrate(world.sequelize);
    const user = { name: 'Ida', email: 'ida@ostrel.example', role: 'steward' as const, passwordHash: '' };
    world.userId = (await UserRow.create(user)).id;
  });
  afterAll(() => world.sequelize.close());
}

/** A publisher and its compiler, on the clock of all scenes, with as much memory as told. */
export function publishing(room = 64 * 1024 * 1024) {
  let compiler!: Compiler;
  const publisher = new Publisher(
    (outside) => {
      const options = {
        sequelize: world.sequelize,
        publicUrl: 'https://w.example',
        clock: () => world.now,
        room,
      };
      compiler = new Compiler(outside, options);
      return compiler;
    },
    { clock: () => world.now, elapsed: () => world.now - world.setForward, room },
  );
  compilers.set(publisher, compiler);
  return { publisher, compiler };
}
export const compilers = new WeakMap<Publisher, Compiling>();

/** Takes in what there is, and does what can wait. */
export async function look(publisher: Publisher): Promise<void> {
  await publisher.catchUp();
  await publisher.rest();
}

export const change: MakeChange = async (by, work) => {
  const made = await logged(world.sequelize, by, work, new Date(world.now));
  world.last = made.change;
  return made.result;
};

/** An entry on one day of the scene. */
function draft(base: number, day: number, parts: Partial<Content> = {}) {
  const at = (hour: number) => ({
    kind: 'zoned' as const,
    at: `${new Date((base + day) * DAY).toISOString().slice(0, 10)}T${hour}:00:00`,
    zone: ZONE,
  });
  return {
    ...EMPTY_CONTENT,
    title: `Day ${day}`,
    ...parts,
    start: at(10),
    end: at(11),
    recurrence: null,
    overrides: [],
  };
}

/** A window of today and tomorrow on a calendar with an entry on each of five days, and a publisher on a clock of its own. */
export async function scene({
  windows = 1,
  glass = 'tinted',
  caps = [null],
}: { windows?: number; glass?: Glass; caps?: (Glass | null)[] } = {}) {
  const base = Math.floor((world.now + 1) / DAY);
  const today = (days: number) => instantOf(ZONE, (base + days) * DAY);
  world.now = Math.max(world.now, today(0) + 86_390_000);
  const place = { description: '', zone: ZONE, plate: 'AA', colour: 'steelblue' as const };
  const { id: calendarId } = await CalendarRow.create({ ...place, name: `Locks ${scenes++}` });
  const write = async (day: number, parts: Partial<Content> = {}, before?: Entry) =>
    (
      await editNow(world.sequelize, change, world.userId, 'Wrote', [
        {
          ...(before ? { id: before.id, uid: before.uid } : {}),
          version: before?.version ?? 0,
          calendarId,
          entry: draft(base, day, parts) as never,
        },
      ])
    ).entries[0]!;
  const remove = (entry: Entry) =>
    editNow(world.sequelize, change, world.userId, 'Deleted', [
      { id: entry.id, version: entry.version, calendarId, entry: null },
    ]);
  /** Stores what no check would let in. */
  const writeOdd = async (data: Partial<EntryData>, id: string = randomUUID(), seen = 0) => {
    const edit = await stageEdit(world.userId, 'Odd');
    const day = draft(base, 1);
    const state = { calendarId, uid: id, firstAt: new Date(0).toISOString(), lastAt: null, imported: null };
    const after = { ...state, data: { ...day, ...data } as EntryData };
    await EditEntryRow.create({ editId: edit.id, entryId: id, seen, top: seen, before: null, after });
    await turnEdit(world.sequelize, change, edit, 'apply');
    return id;
  };
  const entries: Entry[] = [];
  for (let day = 0; day < 5; day++) entries.push(await write(day));
  const keys: { token: string; window: WindowRow }[] = [];
  const open = async (n: number) => {
    const input = windowInput(calendarId, glass, { horizon: { kind: 'rolling', pastDays: 0, nextDays: 1 } });
    const tokens = caps.map((cap) => ({ cap, token: randomBytes(20).toString('base64url') }));
    const window = await change(world.userId, async (transaction) => {
      const row = await WindowRow.create(
        {
          slug: randomUUID(),
          name: `Window ${n}`,
          listed: false,
          closedAt: null,
          secret: 'the same in all of them',
          settings: settingsOf(input as unknown as WindowInput),
        },
        { transaction },
      );
      const source = { windowId: row.id, calendarId, glass, toldAs: '', position: 0 };
      await WindowSourceRow.create(source, { transaction });
      for (const { cap, token } of tokens)
        await KeyRow.create(
          { windowId: row.id, token, madeOutTo: 'Town', audience: 'street', cap },
          { transaction },
        );
      return { result: row, touched: [{ windowId: row.id }] };
    });
    keys.push({ token: tokens[0]!.token, window });
  };
  for (let n = 0; n < windows; n++) await open(n);
  const start = async (room?: number) => {
    const { publisher } = publishing(room);
    await publisher.start();
    await look(publisher);
    return publisher;
  };
  const publisher = await start();
  /** What a feed of the window says. */
  const shown = async (of = publisher, n = 0) => {
    const { token } = keys[n]!;
    const door = await of.opened(token);
    if (door?.state !== 'open') return { state: door?.state };
    const document = (await of.document(token, 'feed'))!;
    const titles = [
      ...Buffer.concat(document.identity.pieces)
        .toString()
        .matchAll(/SUMMARY:(.*)\r/g),
    ].map((m) => m[1]);
    return { titles, number: door.shown.number, at: document.dated };
  };
  const lines = async (n = 0) =>
    (
      await LedgerRow.findAll({
        where: { viewId: `${keys[n]!.window.id}|street|` },
        order: [['number', 'ASC']],
      })
    ).map((l) => [l.number, l.at.getTime()]);
  /** Changes columns of a window, of all its keys or of one key, as one change of the window. */
  const alter = (
    n: number,
    columns: { window?: Partial<WindowRow>; keys?: Partial<KeyRow>; key?: Partial<KeyRow> },
  ) =>
    change(world.userId, async (transaction) => {
      const windowId = keys[n]!.window.id;
      if (columns.window) await WindowRow.update(columns.window, { where: { id: windowId }, transaction });
      if (columns.keys) await KeyRow.update(columns.keys, { where: { windowId }, transaction });
      if (columns.key) await KeyRow.update(columns.key, { where: { id: columns.key.id! }, transaction });
      return { result: undefined, touched: [{ windowId }] };
    });
  const setClosed = (n: number, closed: boolean) =>
    alter(n, { window: { closedAt: closed ? new Date(world.now) : null } });
  return {
    alter,
    write,
    remove,
    writeOdd,
    entries,
    open,
    publisher,
    start,
    shown,
    lines,
    keys,
    today,
    setClosed,
    calendarId,
  };
}
