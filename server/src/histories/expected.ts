import { FORMS, wholeOf } from '@zonal/core/forms';
import { outwardView, rangeOfHorizon, type OutwardView } from '@zonal/core/glass';
import { nextRevision } from '@zonal/core/reach';
import { DAY, dayAt, instantOf } from '@zonal/core/zones';
import type { Sequelize, Transaction } from 'sequelize';
import { EntryRow, KeyRow, TurnedTokenRow, WindowRow } from '../db/models';
import { readSnapshot } from '../db/snapshot';
import { addressesOf } from '../glass/addresses';
import { EVERYBODY, viewIdOf, windowStates } from '../glass/windowStore';
import { entryOf } from '../inside/entryStore';
import { placesOfKey, publicPlace } from '../outside/keyPlaces';
import { readerOf } from '../outside/liveViews';
import type { KeyPlace } from '../outside/outside';
import { noticeOf } from '../outside/renderDocument';

/** What an address answers: the texts of its events, `gone` (410), or `none` (404). */
export type Answer = readonly string[] | 'gone' | 'none';

/** What an address answers, and the view that it leads to. */
export interface Expected {
  readonly viewId: string;
  readonly answer: Answer;
}

/** Each unfolded line that counts changes instead of showing something. */
const STAMPS = /^(DTSTAMP|SEQUENCE|LAST-MODIFIED|CREATED)[;:]/;

/** A feed's events, without what counts their changes: those that are shown, and the identifiers of those that were removed. */
export interface FeedEvents {
  readonly shown: readonly string[];
  readonly removed: readonly string[];
}

/** Returns the events of a feed (RFC 5545). One that was removed is cancelled and has no title. */
export function eventsOf(feed: string): FeedEvents {
  const lines = feed.replaceAll(/\r\n[ \t]/g, '').split('\r\n');
  const shown: string[] = [];
  const removed: string[] = [];
  let event: string[] | null = null;
  for (const line of lines) {
    if (line === 'BEGIN:VEVENT') event = [];
    else if (line === 'END:VEVENT') {
      const uid = event!.find((l) => l.startsWith('UID:'))!.slice('UID:'.length);
      const isRemoved = event!.includes('STATUS:CANCELLED') && !event!.some((l) => l.startsWith('SUMMARY'));
      if (isRemoved) removed.push(uid);
      else shown.push(event!.filter((l) => !STAMPS.test(l)).join('\n'));
      event = null;
    } else event?.push(line);
  }
  return { shown, removed };
}

/** Returns the identifiers of the events that were returned by {@link eventsOf}. */
export function uidsOf(events: readonly string[]): string[] {
  return events.map((event) => /^UID:(.*)$/m.exec(event)![1]!);
}

/** The events that a view's feed shows at an address, with the notice that the address ends or goes on elsewhere. */
function shownAt(
  { token, moved, farewell }: KeyPlace,
  view: OutwardView,
  publicUrl: string,
  now: number,
): readonly string[] {
  const revision = nextRevision(null, view, now);
  const addresses = addressesOf(publicUrl, token);
  const notice = noticeOf({ moved, farewell }, publicUrl);
  const parts = FORMS.feed.parts(view, revision, { addresses, now, asOf: now, notice });
  return eventsOf(wholeOf(parts)).shown;
}

/**
 * Returns what each address that a window has or had answers, computed from nothing but the stored entries, rules and keys,
 * by its secret part. `now` is the time of the process that is asked, in epoch milliseconds.
 */
export function expectedOf(
  sequelize: Sequelize,
  windowId: string,
  publicUrl: string,
  now: number,
): Promise<Map<string, Expected>> {
  return readSnapshot(sequelize, (transaction) => computeExpected({ transaction, windowId, publicUrl, now }));
}

async function computeExpected({
  transaction,
  windowId,
  publicUrl,
  now,
}: {
  readonly transaction: Transaction;
  readonly windowId: string;
  readonly publicUrl: string;
  readonly now: number;
}): Promise<Map<string, Expected>> {
  const row = (await WindowRow.findByPk(windowId, { transaction, raw: true }))!;
  const [state] = await windowStates([windowId], transaction);
  const rules = { ...state!.rules, secret: row.secret };
  const calendarId = rules.sources.map((s) => s.calendarId);
  const entries = (await EntryRow.findAll({ where: { calendarId }, raw: true, transaction })).map(entryOf);
  const keys = await KeyRow.findAll({ where: { windowId }, raw: true, transaction });
  const turned = await TurnedTokenRow.findAll({
    where: { keyId: keys.map((k) => k.id) },
    raw: true,
    transaction,
  });
  const everybody = publicPlace(row, windowId, viewIdOf({ windowId, ...EVERYBODY }));
  const places = [
    ...keys.flatMap((key) =>
      placesOfKey(
        key,
        viewIdOf(key),
        turned.filter((t) => t.keyId === key.id),
      ),
    ),
    ...(everybody ? [everybody] : []),
  ];
  const closed = row.closedAt !== null || (row.closesAt !== null && row.closesAt.getTime() <= now);
  const day = instantOf(rules.hostZone, dayAt(rules.hostZone, now) * DAY);
  const range = rangeOfHorizon(rules.horizon, rules.hostZone, day);
  const answers = new Map<string, Expected>();
  for (const place of places) {
    const { token, viewId, expiresAt } = place;
    const open = !closed && (expiresAt === null || expiresAt > now);
    const view = open ? outwardView(entries, rules, range, readerOf(viewId)) : null;
    answers.set(token, { viewId, answer: view ? shownAt(place, view, publicUrl, now) : 'gone' });
  }
  return answers;
}
