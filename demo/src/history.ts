import { looksOf, randomFrom } from '@zonal/core/followers';
import { instantOfWhen } from '@zonal/core/entries';
import { DAY, HOUR, SECOND, type Instant } from '@zonal/core/zones';
import { logged, type MakeChange } from '@zonal/server/db/changes';
import {
  CalendarRow,
  EntryRow,
  KeyRow,
  LedgerRow,
  UserRow,
  ViewRow,
  WindowRow,
} from '@zonal/server/db/models';
import { viewIdOf } from '@zonal/server/glass/windowStore';
import { editNow } from '@zonal/server/inside/editStore';
import { entryOf } from '@zonal/server/inside/entryStore';
import type { Fetched } from '@zonal/server/outside/counting';
import { Compiler } from '@zonal/server/outside/compiler';
import { Counter } from '@zonal/server/reach/counter';
import { makeForecasts } from '@zonal/server/reach/forecasting';
import { CAST, addressOf, type Member } from '@zonal/standins/followers/cast';
import type { Sequelize } from 'sequelize';
import { HOME } from './drafts';

/** Something that happened to a calendar's entry, and was as before in the end. */
interface Event {
  /** Days ago. */
  readonly ago: number;
  readonly plate: string;
  /** What is done to the title, and what undoes it. */
  readonly say: string;
  readonly undoneAfter: number;
}

/** What was told outside in these weeks, and was over again later. */
const EVENTS: readonly Event[] = [
  { ago: 18.4, plate: 'BL', say: 'Bridge stuck open', undoneAfter: 0.3 },
  { ago: 15.2, plate: 'EV', say: 'Moved into the hall', undoneAfter: 1.1 },
  { ago: 12.7, plate: 'DW', say: 'Starts later', undoneAfter: 3.2 },
  { ago: 9.3, plate: 'BL', say: 'Road closed for repairs', undoneAfter: 0.8 },
  { ago: 6.1, plate: 'EV', say: 'Sold out', undoneAfter: 4.5 },
  { ago: 3.6, plate: 'DW', say: 'Berth shared', undoneAfter: 1.4 },
  { ago: 1.2, plate: 'BL', say: 'Bridge opens late', undoneAfter: 0.5 },
];

const SEED = 11;

/**
 * Lets some weeks pass: windows as they were then, what was changed meanwhile and changed back, and programs that looked. All
 * of it is worked out and counted by what does so in a running server.
 */
export async function writeHistory(sequelize: Sequelize, days: number, now: Instant): Promise<void> {
  const began = Math.floor((now - days * DAY) / SECOND) * SECOND;
  const quiet = {
    begin: () => undefined,
    windows: () => undefined,
    view: () => undefined,
    drop: () => undefined,
    trouble: () => undefined,
    news: () => undefined,
  };
  // What a window shows first is said to be of when it was made.
  await sequelize.query('UPDATE windows SET created_at = :at', { replacements: { at: new Date(began) } });
  let clock = began;
  const compiler = new Compiler(quiet, { sequelize, publicUrl: 'http://demo.invalid', clock: () => clock });
  await compiler.start();
  await compiler.catchUp();
  await compiler.rest();
  const moments = EVENTS.filter((e) => e.ago < days).flatMap((e) => [
    { at: now - e.ago * DAY, event: e, undo: false },
    { at: now - (e.ago - e.undoneAfter) * DAY, event: e, undo: true },
  ]);
  for (const { at, event, undo } of moments.sort((a, b) => a.at - b.at)) {
    await happen(sequelize, event, undo, at);
    clock = at;
    await compiler.catchUp();
  }
  clock = now;
  await compiler.rest();
  await compiler.close();
  await followed(sequelize, began, now);
}

/** Changes the title of an entry of a calendar, or changes it back. */
async function happen(
  sequelize: Sequelize,
  { plate, say }: Event,
  undo: boolean,
  at: Instant,
): Promise<void> {
  const calendar = (await CalendarRow.findOne({ where: { plate } }))!;
  const steward = (await UserRow.findOne({ where: { role: 'steward' } }))!;
  const rows = (
    await EntryRow.findAll({ where: { calendarId: calendar.id }, order: [['firstAt', 'ASC']] })
  ).map(entryOf);
  const suffix = ` (${say.toLowerCase()})`;
  const told = rows.find((e) => e.title.endsWith(suffix));
  const entry = undo ? told : rows.find((e) => !e.recurrence && instantOfWhen(e.start, HOME) > at + HOUR);
  if (!entry) return;
  const title = undo ? entry.title.slice(0, -suffix.length) : `${entry.title}${suffix}`;
  const change: MakeChange = async (userId, work) =>
    (await logged(sequelize, userId, work, new Date(at))).result;
  const { id, version, calendarId, uid: _uid, ...content } = entry;
  await editNow(sequelize, change, steward.id, say, [
    { id, version, calendarId, entry: { ...content, title } } as never,
  ]);
}

interface Revised {
  readonly at: Instant;
  readonly number: number;
}

/** Counts the looks of all programs, and forecasts each revision as of when it was made. */
async function followed(sequelize: Sequelize, began: Instant, now: Instant): Promise<void> {
  const random = randomFrom(SEED);
  const revisions = new Map<string, Revised[]>();
  for (const { id } of await ViewRow.findAll({ attributes: ['id'] })) {
    const rows = await LedgerRow.findAll({ where: { viewId: id }, attributes: ['number', 'at'] });
    revisions.set(
      id,
      rows.map((r) => ({ number: r.number, at: r.at.getTime() })).sort((a, b) => a.number - b.number),
    );
  }
  const looks: Fetched[] = [];
  for (const member of CAST) {
    const place = await placeOf(member);
    const known = revisions.get(place?.viewId ?? '');
    if (!place || !known?.length) continue;
    const from = Math.max(began + HOUR, now - member.since * DAY + random() * member.program.every);
    const until = member.until === null ? now : now - member.until * DAY;
    let held = '';
    for (const at of looksOf(member.program, Math.round(from), until, random)) {
      const { number } = known.findLast((r) => r.at <= at) ?? known[0]!;
      looks.push({
        ...{ ...place, number, at },
        form: member.way,
        held: member.tags ? held : '',
        trace: `${addressOf(member)}\n\n${member.agent}`,
      });
      held = `"r${number}-"`;
    }
  }
  looks.sort((a, b) => a.at - b.at);
  const counter = new Counter({ sequelize, proxies: 0, every: DAY });
  const made = [...new Set([...revisions.values()].flatMap((all) => all.map((r) => r.at)))].sort(
    (a, b) => a - b,
  );
  let next = 0;
  for (const at of [...made, now]) {
    const upTo = looks.findIndex((l, i) => i >= next && l.at > at);
    const end = upTo < 0 ? looks.length : upTo;
    if (end > next) {
      await counter.take(looks.slice(next, end));
      await counter.store();
    }
    next = end;
    while (await makeForecasts(sequelize, at)) {
      // As long as there are more.
    }
  }
  await counter.close();
}

/** Where a program is counted, and which view it gets. */
async function placeOf({ slug, madeOutTo }: Member): Promise<{ keyId: string; viewId: string } | null> {
  const window = await WindowRow.findOne({ where: { slug } });
  if (!window) return null;
  if (madeOutTo === null)
    return { keyId: window.id, viewId: viewIdOf({ windowId: window.id, audience: 'street', cap: null }) };
  const key = await KeyRow.findOne({ where: { windowId: window.id, madeOutTo } });
  return key && { keyId: key.id, viewId: viewIdOf(key) };
}
