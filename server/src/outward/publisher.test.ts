import { DAY, instantOf } from '@zonal/core/zones';
import { EMPTY_CONTENT, type Content } from '@zonal/core/entries';
import { randomBytes, randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Sequelize } from 'sequelize';
import { changing } from '../db/changes';
import { connect } from '../db/connect';
import { migrate } from '../db/migrate';
import { CalendarRow, EntryRow, KeyRow, LedgerRow, WindowRow, WindowSourceRow } from '../db/models';
import { columnsOf } from '../entries/entryStore';
import { freshDatabase, windowInput } from '../testing';
import type { WindowInput } from '../windows/windowInput';
import { settingsOf } from '../windows/windowStore';
import { Publisher } from './publisher';

const ZONE = 'America/Halifax';
const FIRST = Math.floor(Date.UTC(2026, 5, 10) / DAY);
const midnight = (days: number) => instantOf(ZONE, (FIRST + days) * DAY);

let sequelize: Sequelize;
let scenes = 0;

beforeAll(async () => {
  sequelize = connect(await freshDatabase());
  await migrate(sequelize);
});
afterAll(() => sequelize.close());

/** A window of today and tomorrow on a calendar with an entry on each of five days, and a publisher on a clock of its own. */
async function scene() {
  const place = { description: '', zone: ZONE, plate: 'AA', colour: 'steelblue' as const };
  const { id: calendarId } = await CalendarRow.create({ ...place, name: `Locks ${scenes++}` });
  const write = async (day: number, parts: Partial<Content> = {}) => {
    const at = (hour: number) => ({
      kind: 'zoned' as const,
      at: `${new Date((FIRST + day) * DAY).toISOString().slice(0, 10)}T${hour}:00:00`,
      zone: ZONE,
    });
    const draft = {
      ...EMPTY_CONTENT,
      title: `Day ${day}`,
      ...parts,
      uid: randomUUID(),
      start: at(10),
      end: at(11),
      recurrence: null,
      overrides: [],
    };
    return changing(sequelize, null, async (transaction) => {
      const row = { ...columnsOf(draft, ZONE), id: randomUUID(), calendarId, uid: draft.uid };
      await EntryRow.create(row, { transaction });
      return { result: row.id, touched: [{ calendarId, entryIds: [row.id] }] };
    });
  };
  for (let day = 0; day < 5; day++) await write(day);
  const window = await WindowRow.create({
    slug: randomUUID(),
    name: 'Two days',
    listed: false,
    closedAt: null,
    secret: randomBytes(16).toString('hex'),
    settings: settingsOf(
      windowInput(calendarId, 'tinted', {
        horizon: { kind: 'rolling', pastDays: 0, nextDays: 1 },
      }) as unknown as WindowInput,
    ),
  });
  const source = { windowId: window.id, calendarId, glass: 'tinted' as const, toldAs: '', position: 0 };
  await WindowSourceRow.create(source);
  const token = randomBytes(20).toString('base64url');
  await KeyRow.create({ windowId: window.id, token, madeOutTo: 'Town', audience: 'street', cap: null });
  let now = midnight(0) + 86_390_000;
  const publisher = new Publisher(sequelize, 'https://w.example', undefined, () => now);
  await publisher.start();
  const shown = () => {
    const door = publisher.door(token);
    if (door?.state !== 'open') throw new Error('The window is not open.');
    const { view, revision } = door.shown;
    const titles = view.items.map((i) => (i.kind === 'busy' ? '' : i.content.title));
    return { titles, number: revision.number, at: revision.at };
  };
  const goTo = (instant: number) => (now = instant);
  return { write, publisher, shown, goTo, window };
}

describe('the turn of the day', () => {
  it('is stamped with midnight, whenever it is looked at and whatever is edited out of sight', async () => {
    const seen = [];
    for (const [late, hidden] of [
      [12_000, false],
      [3_000, true],
    ] as const) {
      const { write, publisher, shown, goTo } = await scene();
      expect(shown()).toMatchObject({ titles: ['Day 0', 'Day 1'], number: 1 });
      expect(publisher.nextTurn()).toBe(midnight(1));
      goTo(midnight(1) + late);
      if (hidden) await write(1, { title: 'Never seen', hold: 'keep-in' });
      await publisher.catchUp();
      seen.push(shown());
    }
    expect(seen[0]).toEqual({ titles: ['Day 1', 'Day 2'], number: 2, at: midnight(1) });
    expect(seen[1]).toEqual(seen[0]);
  });

  it('comes before what was edited in sight since, which is a revision of its own', async () => {
    const { write, publisher, shown, goTo, window } = await scene();
    goTo(midnight(1) + 9_000);
    await write(2, { title: 'In sight' });
    await publisher.catchUp();
    expect(shown()).toMatchObject({ titles: ['Day 1', 'Day 2', 'In sight'], number: 3 });
    const lines = await LedgerRow.findAll({
      where: { viewId: `${window.id}|street|` },
      order: [['number', 'ASC']],
    });
    expect(lines.map((l) => [l.number, l.at.getTime()])).toEqual([
      [1, midnight(1) - 10_000],
      [2, midnight(1)],
      [3, midnight(1) + 9_000],
    ]);
    // With nothing new, a later look changes nothing.
    goTo(midnight(1) + 60_000);
    await publisher.catchUp();
    expect(shown().number).toBe(3);
  });
});
