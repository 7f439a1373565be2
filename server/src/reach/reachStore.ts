import type {
  Knowing,
  ReachForecast,
  ReachKey,
  ReachLine,
  ReachRevision,
  ReachSubscriber,
  ReachView,
  WindowReach,
} from '@zonal/core/api';
import {
  CURVE,
  POLL_FORMS,
  SUBSCRIBER_STATES,
  forecastOf,
  knowsBy,
  spreadCurve,
  standingOf,
  stateOf,
  type Awaited,
  type Forecast,
  type Prior,
  type Spread,
  type SubscriberState,
} from '@zonal/core/reach';
import { isEmail } from 'class-validator';
import { Op, QueryTypes, type Sequelize } from 'sequelize';
import { groupedBy } from '../db/grouped';
import { PUBLIC_READERS, publicAddressEnd } from '@zonal/core/glass';
import { KeyRow, LedgerRow, WindowRow } from '../db/models';
import { PushRow } from '../db/tellingModels';
import { EVERYBODY, viewIdOf } from '../glass/windowStore';
import { followersOf, houseWide, type Follower } from './followers';

/** So many of the newest revisions are told of each view. */
const REVISIONS = 12;
/** So many subscribers are worked out before others' requests are looked at. */
const AT_ONCE = 100;

/** Where readers come from: a key that is open, or the own name of a listed window. */
interface Place extends Omit<ReachKey, 'subscribers' | 'revision' | 'byMail' | 'push'> {
  readonly windowId: string;
  readonly view: string;
}

interface Places {
  readonly windows: readonly WindowRow[];
  readonly places: ReadonlyMap<string, Place>;
  /** The number of the newest revision of each view. */
  readonly newest: ReadonlyMap<string, number>;
}

/** Returns keys that are not withdrawn and have not ended, the oldest first. */
export function openKeys(where: { readonly windowId?: string[] }, now: number): Promise<KeyRow[]> {
  const expiresAt = { [Op.or]: [null, { [Op.gt]: new Date(now) }] };
  return KeyRow.findAll({
    where: { ...where, withdrawnAt: null, expiresAt },
    order: [['createdAt', 'ASC']],
    raw: true,
  });
}

/** Whether a window is closed, by hand or as its time has come. */
export function isShut({ closedAt, closesAt }: WindowRow, now: number): boolean {
  return closedAt !== null || (closesAt !== null && closesAt.getTime() <= now);
}

/** Returns the mail address that a contact is, or null. */
export function mailOf(contact: string): string | null {
  const address = contact.trim();
  return isEmail(address) ? address : null;
}

async function placesOf(
  sequelize: Sequelize,
  windowIds: readonly string[] | undefined,
  now: number,
): Promise<Places> {
  const where = windowIds ? { windowId: [...windowIds] } : {};
  const windows = await WindowRow.findAll({
    where: windowIds ? { id: [...windowIds] } : {},
    order: [['name', 'ASC']],
  });
  const keys = await openKeys(where, now);
  const views = await sequelize.query<{ id: string; number: number }>(
    `SELECT id, (revision->>'number')::int AS number FROM views ${windowIds ? 'WHERE window_id IN (:windowIds)' : ''}`,
    { replacements: { windowIds: windowIds?.length ? windowIds : [null] }, type: QueryTypes.SELECT },
  );
  const places = new Map<string, Place>();
  for (const { id, windowId, madeOutTo, contact, audience, cap, meantFor } of keys) {
    const view = viewIdOf({ windowId, audience, cap });
    places.set(id, { id, windowId, madeOutTo, contact, audience, cap, meantFor, view });
  }
  for (const window of windows)
    if (publicAddressEnd(window) > now) {
      const { id } = window;
      const view = viewIdOf({ windowId: id, ...EVERYBODY });
      const own = { id, windowId: id, madeOutTo: PUBLIC_READERS, contact: '', meantFor: null };
      places.set(id, { ...own, ...EVERYBODY, view });
    }
  return { windows, places, newest: new Map(views.map((v) => [v.id, v.number])) };
}

/** Returns each subscriber with its place, and whether it holds the newest revision of what it is shown there. */
async function* placed(
  sequelize: Sequelize,
  { places, newest }: Places,
  windowIds: readonly string[] | undefined,
  now: number,
): AsyncGenerator<{ follower: Follower; place: Place; held: boolean }> {
  let seen = 0;
  for await (const page of followersOf(sequelize, windowIds ? { windowIds } : {}, now))
    for (const follower of page) {
      // Other requests come in between.
      if (++seen % AT_ONCE === 0) await new Promise(setImmediate);
      const place = places.get(follower.place);
      if (place) yield { follower, place, held: holds(follower, place, newest) };
    }
}

/** Whether a subscriber holds the newest revision of what its key shows. */
function holds({ view, revision }: Follower, place: Place, newest: Places['newest']): boolean {
  return view === place.view && revision >= (newest.get(view) ?? Infinity);
}

const STATES = Object.keys(SUBSCRIBER_STATES) as SubscriberState[];
const noCounts = () => Object.fromEntries(STATES.map((s) => [s, 0])) as Record<SubscriberState, number>;
const iso = (at: number | null) => (at === null ? null : new Date(at).toISOString());

function forecastTold({ at, halfBy, nineInTenBy, ...rest }: Forecast): ReachForecast {
  return { ...rest, at: iso(at)!, halfBy: iso(halfBy), nineInTenBy: iso(nineInTenBy) };
}

/** Returns how windows stand, a line each; of all where no ids are given. */
export async function reachLines(
  sequelize: Sequelize,
  windowIds: readonly string[] | undefined,
  now: number,
): Promise<ReachLine[]> {
  if (windowIds && !windowIds.length) return [];
  const known = await placesOf(sequelize, windowIds, now);
  const { windows, places } = known;
  const prior = await houseWide(sequelize, now);
  const sums = new Map(
    windows.map((w) => [w.id, { counts: noCounts(), holding: 0, readers: 0, awaited: [] as Awaited[] }]),
  );
  for await (const { follower, place, held } of placed(sequelize, known, windowIds, now)) {
    const sum = sums.get(place.windowId)!;
    const { readers, habit } = follower;
    sum.counts[stateOf(habit, held, now, prior)] += readers;
    sum.readers += readers;
    if (held) sum.holding += readers;
    sum.awaited.push({ habit, readers, holds: held });
  }
  const changed = await lastChanges(sequelize, windowIds);
  const placesOfWindow = groupedBy([...places.values()], (p) => p.windowId);
  const lines: ReachLine[] = [];
  for (const window of windows) {
    const { id, name } = window;
    const { counts, holding, readers, awaited } = sums.get(id)!;
    const { halfBy, nineInTenBy, never } = forecastOf(awaited, now, prior);
    const keys = placesOfWindow.get(id)?.length ?? 0;
    lines.push({
      ...{ id, name, closed: isShut(window, now), keys, readers, counts, holding, never },
      changedAt: iso(changed.get(id) ?? null),
      halfBy: readers ? iso(halfBy) : null,
      nineInTenBy: readers ? iso(nineInTenBy) : null,
    });
    await new Promise(setImmediate);
  }
  return lines;
}

async function lastChanges(
  sequelize: Sequelize,
  windowIds: readonly string[] | undefined,
): Promise<Map<string, number>> {
  const rows = await sequelize.query<{ id: string; at: Date }>(
    `SELECT v.window_id AS id, max(l.at) AS at FROM views v
     JOIN ledger l ON l.view_id = v.id AND l.number = (v.revision->>'number')::int
     ${windowIds ? 'WHERE v.window_id IN (:windowIds)' : ''} GROUP BY 1`,
    { replacements: { windowIds }, type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ id, at }) => [id, at.getTime()]));
}

/** Returns how the subscribers of a window stand, key by key, and how its newest revisions spread. */
export async function windowReach(sequelize: Sequelize, id: string, now: number): Promise<WindowReach> {
  const known = await placesOf(sequelize, [id], now);
  const { places, newest } = known;
  const prior = await houseWide(sequelize, now);
  const own = new Map<string, ReachSubscriber[]>();
  const awaited = new Map<string, Awaited[]>();
  for await (const { follower, place, held } of placed(sequelize, known, [id], now)) {
    const { habit, readers } = follower;
    push(awaited, place.view, { habit, readers, holds: held });
    push(own, place.id, subscriberTold(follower, place, newest.get(place.view) ?? null, held, now, prior));
  }
  const byMail = await noticesOf(sequelize, id);
  const pushes = new Map(
    (await PushRow.findAll({ where: { keyId: [...places.keys()] } })).map((p) => [p.keyId, p.state]),
  );
  const keys = [...places.values()].map((place) => {
    const { view, windowId: _windowId, ...key } = place;
    return {
      ...key,
      revision: newest.get(view) ?? null,
      byMail: byMail.get(place.id) ?? 0,
      push: pushes.get(place.id) ?? null,
      subscribers: own.get(place.id) ?? [],
    };
  });
  const byView = new Map([...places.values()].map((place) => [place.view, place]));
  const views: ReachView[] = [];
  for (const [view, { audience, cap }] of byView) {
    const all = awaited.get(view) ?? [];
    const holding = all.reduce((sum, one) => sum + (one.holds ? one.readers : 0), 0);
    const next = forecastTold(forecastOf(all, now, prior));
    views.push({ audience, cap, next, holding, revisions: await revisionsOf(sequelize, view, now) });
  }
  const [urgent] = await sequelize.query<{ by: Date }>(
    'SELECT by FROM urgent_changes WHERE window_id = :id',
    {
      replacements: { id },
      type: QueryTypes.SELECT,
    },
  );
  return { id, at: iso(now)!, urgentBy: urgent?.by.toISOString() ?? null, keys, views };
}

/** How many readers of each key, or of the window by its own name, have changes told by mail. */
async function noticesOf(sequelize: Sequelize, windowId: string): Promise<Map<string, number>> {
  const rows = await sequelize.query<{ place: string; many: number }>(
    `SELECT coalesce(key_id, window_id) AS place, count(*)::int AS many FROM notices
     WHERE window_id = :windowId AND confirmed_at IS NOT NULL GROUP BY 1`,
    { replacements: { windowId }, type: QueryTypes.SELECT },
  );
  return new Map(rows.map((r) => [r.place, r.many]));
}

function push<T>(map: Map<string, T[]>, key: string, one: T): void {
  const list = map.get(key);
  if (list) list.push(one);
  else map.set(key, [one]);
}

function subscriberTold(
  { id, readers, form, habit, view, revision }: Follower,
  place: Place,
  newest: number | null,
  held: boolean,
  now: number,
  prior: Prior,
): ReachSubscriber {
  const { state, interval, nextBy, nineInTenBy } = standingOf(habit, held, now, prior);
  const known = view === place.view && revision > 0 ? revision : null;
  return {
    ...{ id, readers, form: POLL_FORMS[form]!, state, interval },
    firstLook: iso(habit.first)!,
    lastLook: iso(habit.last)!,
    looks: habit.looks,
    nextBy: iso(nextBy),
    nineInTenBy: iso(nineInTenBy),
    revision: known,
    behind: known === null || newest === null ? null : Math.max(0, newest - known),
  };
}

async function revisionsOf(sequelize: Sequelize, view: string, now: number): Promise<ReachRevision[]> {
  const rows = await LedgerRow.findAll({
    where: { viewId: view },
    attributes: { exclude: ['step'] },
    order: [['number', 'DESC']],
    limit: REVISIONS,
  });
  const from = rows.at(-1)?.number ?? 0;
  const asked = { replacements: { view, from }, type: QueryTypes.SELECT as const };
  const forecasts = await sequelize.query<{ revision: number; made: Forecast }>(
    'SELECT revision, made FROM forecasts WHERE view_id = :view AND revision >= :from AND made IS NOT NULL',
    asked,
  );
  const spreads = groupedBy(
    await sequelize.query<Spread & { revision: number }>(
      'SELECT revision, step, readers FROM spreads WHERE view_id = :view AND revision >= :from',
      asked,
    ),
    (s) => s.revision,
  );
  const made = new Map(forecasts.map((f) => [f.revision, f.made]));
  return rows.map(({ number, at, appeared, vanished, altered }) => {
    const forecast = made.get(number) ?? null;
    const steps = spreads.get(number) ?? [];
    return {
      ...{ number, at: at.toISOString(), appeared, vanished, changed: altered },
      forecast: forecast && forecastTold(forecast),
      actual: forecast ? spreadCurve(steps, forecast.readers, CURVE, now - at.getTime()) : [],
    };
  });
}

/**
 * Returns when readers would know of a change: of one that is made now, or of the newest one, which some hold already.
 * `by` is the moment by which they should.
 */
export async function knowingOf(
  sequelize: Sequelize,
  windowIds: readonly string[] | undefined,
  by: number,
  newestOnly: boolean,
  now: number,
): Promise<Knowing[]> {
  if (windowIds && !windowIds.length) return [];
  const all = await placesOf(sequelize, windowIds, now);
  const { windows, places } = all;
  const prior = await houseWide(sequelize, now);
  const awaited = new Map<string, Awaited[]>();
  const late = new Map<string, { readers: number; late: number }>();
  const known = new Map<string, number>();
  for await (const { follower, place, held } of placed(sequelize, all, windowIds, now)) {
    const { habit, readers } = follower;
    const knows = newestOnly && held;
    push(awaited, place.windowId, { habit, readers, holds: knows });
    const told = knows ? { chance: 1, late: false } : knowsBy(habit, now, by, prior);
    known.set(place.windowId, (known.get(place.windowId) ?? 0) + told.chance * readers);
    const sum = late.get(place.id) ?? { readers: 0, late: 0 };
    late.set(place.id, { readers: sum.readers + readers, late: sum.late + (told.late ? readers : 0) });
  }
  const placesOfWindow = groupedBy([...places.values()], (p) => p.windowId);
  return windows
    .filter((w) => !isShut(w, now))
    .map(({ id, name }) => ({
      id,
      name,
      forecast: forecastTold(forecastOf(awaited.get(id) ?? [], now, prior)),
      known: Math.round(known.get(id) ?? 0),
      late: (placesOfWindow.get(id) ?? [])
        .filter((p) => late.get(p.id)?.late)
        .map((p) => ({
          id: p.id,
          madeOutTo: p.madeOutTo,
          contact: p.contact,
          byMail: mailOf(p.contact) !== null,
          ...late.get(p.id)!,
        })),
    }));
}
