import type { Entry } from '@zonal/core/entries';
import {
  DEMANDS,
  rehearse,
  rehearseKey,
  type Demand,
  type RehearsedWindow,
  type Watch,
} from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { EntryRow, HouseRow, UserRow } from '../db/models';
import { entryOf } from '../inside/entryStore';

const EFFECTS: Readonly<Record<Demand, string>> = {
  'most-vanishes': 'more than half of what some readers see vanishes',
  'first-listed': 'the window is listed for everybody for the first time',
  'public-address-ends': 'the public address of the window ends',
  'sensitive-on-street': 'sensitive matter is shown to the Street that was not shown before',
};

/**
 * Throws `confirm-needed` when a change of windows would have an effect so large that it must be confirmed by itself,
 * and was not. `before` is null for a window that is not open yet.
 */
export async function requireConfirmed(
  pairs: readonly { readonly before: RehearsedWindow | null; readonly after: RehearsedWindow }[],
  confirmed: readonly Demand[],
): Promise<void> {
  const entries = await entriesBehind(
    pairs.flatMap(({ before, after }) => [after, ...(before ? [before] : [])]),
  );
  const watch = await houseWatch();
  const now = Date.now();
  refuseUnless(
    confirmed,
    pairs.flatMap(
      ({ before, after }) =>
        rehearse({ window: before, entries }, { window: after, entries }, now, watch).demands,
    ),
  );
}

type Key = RehearsedWindow['keys'][number];

/** Throws `confirm-needed` when those with a key would see so much more or less; null is a key that is not there. */
export async function requireKeyConfirmed(
  window: RehearsedWindow,
  before: Key | null,
  after: Key,
  confirmed: readonly Demand[],
): Promise<void> {
  const entries = await entriesBehind([window]);
  const watch = await houseWatch();
  refuseUnless(confirmed, rehearseKey({ window, entries }, before, after, Date.now(), watch).demands);
}

async function entriesBehind(windows: readonly RehearsedWindow[]): Promise<(id: string) => readonly Entry[]> {
  const calendars = new Map<string, Entry[]>();
  for (const { calendarId } of windows.flatMap((w) => w.rules.sources))
    if (!calendars.has(calendarId))
      calendars.set(calendarId, (await EntryRow.findAll({ where: { calendarId }, raw: true })).map(entryOf));
  return (id) => calendars.get(id) ?? [];
}

function refuseUnless(confirmed: readonly Demand[], demanded: readonly Demand[]): void {
  const missing = DEMANDS.filter((d) => demanded.includes(d) && !confirmed.includes(d));
  if (missing.length)
    throw new Problem('confirm-needed', {
      effects: missing.map((d) => EFFECTS[d]).join('; '),
      demands: missing,
    });
}

/** Returns what is sensitive here besides what can be told by its form: the house's people, and its own words. */
export async function houseWatch(): Promise<Watch> {
  const users = await UserRow.findAll({ attributes: ['name'], order: [['name', 'ASC']] });
  const house = await HouseRow.findByPk(1);
  const people = users.map((u) => u.name);
  return {
    people,
    words: house?.watchWords ?? [],
    country: house?.country ?? '',
    publicContacts: house?.publicContacts ?? [],
  };
}
