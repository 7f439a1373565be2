import type { OutwardWindow, WindowDraft, WindowKey } from '@zonal/core/api';
import {
  BLANK_WINDOW,
  endOf,
  goneFrom,
  pseudonym,
  publicAddressEnd,
  rulesOfSaid,
  saidOf,
  type Ceilings,
  type KnownNames,
  type Reader,
  type WindowInput,
  type WindowRules,
  type WindowSaid,
} from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { isUUID } from 'class-validator';
import { randomBytes } from 'node:crypto';
import { Op, type Sequelize, type Transaction } from 'sequelize';
import {
  CalendarRow,
  DraftRow,
  HouseRow,
  KeyRow,
  KeyUseRow,
  TurnedTokenRow,
  VersionRow,
  WindowRow,
  WindowSourceRow,
  type OpenReader,
  type WindowState,
} from '../db/models';
import { provideWindowStates } from '../db/changes';
import { ceilingsNow } from '../db/ceilings';
import { groupedBy } from '../db/grouped';
import { labelsOfCalendars } from '../db/labels';
import { readersOf } from '../db/readers';
import { seal, unsealed } from '../db/sealed';
import { namesOf } from '../people/names';
import { addressesOf } from './addresses';

/** A window as the API gives it, but for what of it cannot be worked out. */
export type WindowAnswer = Omit<OutwardWindow, 'trouble'>;

/** What rules depend on besides the window itself. Which labels there are is asked when a window is published. */
export interface RuleContext {
  readonly ceilings: Ceilings;
  readonly known: Omit<KnownNames, 'labels'>;
}

/** Returns the ceilings in force and the names that filters may use, labels apart. */
export async function ruleContext(transaction?: Transaction): Promise<RuleContext> {
  const t = transaction ?? null;
  const rows = await CalendarRow.findAll({ attributes: ['id'], transaction: t });
  return {
    ceilings: await ceilingsNow(transaction),
    known: {
      calendars: rows.map((r) => r.id),
      properties: ((await HouseRow.findByPk(1, { transaction: t }))?.properties ?? []).map((p) => p.name),
    },
  };
}

/** Returns what decides what windows show now: some of them, or all. */
export async function windowStates(
  ids: readonly string[] | null,
  transaction: Transaction,
): Promise<WindowState[]> {
  const rows = await WindowRow.unscoped().findAll({ where: ids ? { id: [...ids] } : {}, transaction });
  const context = await ruleContext(transaction);
  const where = { windowId: rows.map((r) => r.id) };
  const sources = groupedBy(await WindowSourceRow.findAll({ where, transaction }), (s) => s.windowId);
  const keys = groupedBy(await KeyRow.findAll({ where, raw: true, transaction }), (k) => k.windowId);
  return rows.map((row) => {
    const { secret: _secret, ...rules } = rulesOf(row, sources.get(row.id) ?? [], context);
    const { id, listed, closedAt, version } = row;
    return {
      id,
      rules,
      listed,
      closed: closedAt !== null,
      closedAt: closedAt?.toISOString() ?? null,
      version,
      readers: openReaders(row, keys.get(id) ?? []),
    };
  });
}

/** Whoever comes by the address of a listed window. */
export const EVERYBODY: Reader = { audience: 'street', cap: null };

/** Returns who can read a window by its keys or by its public name, each with the time at which the last address ends. */
export function openReaders(
  {
    closedAt,
    closesAt,
    listed,
    publicUntil,
  }: Pick<WindowRow, 'closedAt' | 'closesAt' | 'listed' | 'publicUntil'>,
  keys: readonly Pick<KeyRow, 'audience' | 'cap' | 'expiresAt' | 'withdrawnAt'>[],
): OpenReader[] {
  if (closedAt) return [];
  const addresses = keys
    .filter((key) => !key.withdrawnAt)
    .map(({ audience, cap, expiresAt }) => ({ reader: { audience, cap }, end: endOf({ expiresAt }) }));
  const publicEnd = publicAddressEnd({ listed, publicUntil });
  if (publicEnd > -Infinity) addresses.push({ reader: EVERYBODY, end: publicEnd });
  const byReader = groupedBy(addresses, ({ reader }) => `${reader.audience}|${reader.cap ?? ''}`);
  return [...byReader.values()].map((all) => {
    const until = Math.min(endOf({ expiresAt: closesAt }), Math.max(...all.map(({ end }) => end)));
    return { ...all[0]!.reader, until: Number.isFinite(until) ? new Date(until).toISOString() : null };
  });
}

provideWindowStates(windowStates);

/**
 * Returns the labels in a window's filter that its own calendars do not know, as goneFrom writes them. Labels of other calendars
 * have no say: nobody finds out by a filter what is there.
 */
export async function lostLabelsOf(
  sequelize: Sequelize,
  { filter, sources }: Pick<WindowInput, 'filter' | 'sources'>,
  transaction?: Transaction,
): Promise<string[]> {
  const labels = await labelsOfCalendars(
    sequelize,
    sources.map((s) => s.calendarId),
    transaction,
  );
  const names = labels.map((l) => l.name);
  return goneFrom(filter, { calendars: [], properties: [], labels: names }).filter(isLabel);
}

const isLabel = (name: string) => name.startsWith('label:');

type SourceColumns = Pick<WindowSourceRow, 'calendarId' | 'glass' | 'fields' | 'toldAs' | 'position'>;

/** Returns what a window says. */
function saidOfRow(
  { name, settings, listed }: Pick<WindowRow, 'name' | 'settings' | 'listed'>,
  sources: readonly SourceColumns[],
): WindowSaid {
  const ordered = [...sources].sort((a, b) => a.position - b.position);
  return saidOf({
    ...settings,
    name,
    listed,
    sources: ordered.map(({ calendarId, glass, fields, toldAs }) => ({
      calendarId,
      glass,
      fields,
      as: toldAs,
    })),
  });
}

/** Returns the rules of a window for the core. */
export function rulesOf(
  row: Pick<WindowRow, 'name' | 'settings' | 'secret' | 'lostLabels' | 'listed'>,
  sources: readonly SourceColumns[],
  { ceilings, known }: RuleContext,
): WindowRules {
  const said = saidOfRow(row, sources);
  const others = goneFrom(said.filter, { ...known, labels: [] }).filter((name) => !isLabel(name));
  const gone = [...others, ...row.lostLabels].sort();
  return rulesOfSaid(said, { secret: row.secret, ceilings, gone });
}

/** Returns the source rows of an input. */
export function sourceRowsOf(windowId: string, { sources }: Pick<WindowInput, 'sources'>) {
  return sources.map(({ calendarId, glass, fields, as }, position) => ({
    windowId,
    calendarId,
    glass,
    fields: [...fields],
    toldAs: as,
    position,
  }));
}

/** Keeps the rules of a window as they are published now, so that they can be looked at and taken up again. */
export async function rememberVersion(
  windowId: string,
  userId: string | null,
  transaction: Transaction,
): Promise<void> {
  const row = (await WindowRow.findByPk(windowId, { transaction }))!;
  const sources = await WindowSourceRow.findAll({ where: { windowId }, transaction });
  await VersionRow.create(
    { windowId, version: row.version, body: saidOfRow(row, sources), userId },
    { transaction },
  );
}

/** Returns the name of the view that a key opens: keys of one audience and cap share it. */
export function viewIdOf({ windowId, audience, cap }: Pick<KeyRow, 'windowId' | 'audience' | 'cap'>): string {
  return `${windowId}|${audience}|${cap ?? ''}`;
}

/** Returns the secret part of a new address, 160 random bits. */
export function randomToken(): string {
  return randomBytes(20).toString('base64url');
}

/** Returns the secret part of a new address as it is stored. */
export function newToken(): string {
  return seal(randomToken());
}

/** Returns a key. Throws `not-found`. */
export async function keyOf(id: string): Promise<KeyRow> {
  const key = isUUID(id) ? await KeyRow.findByPk(id) : null;
  if (!key) throw new Problem('not-found');
  return key;
}

/** Returns windows with sources, keys and drafts by name: some of them, or all. */
export async function windowAnswers(
  sequelize: Sequelize,
  publicUrl: string,
  ids?: readonly string[],
): Promise<WindowAnswer[]> {
  const rows = await WindowRow.findAll({ where: ids ? { id: [...ids] } : {}, order: [['name', 'ASC']] });
  const where = { windowId: rows.map((r) => r.id) };
  const context = await ruleContext();
  const sources = groupedBy(await WindowSourceRow.findAll({ where }), (s) => s.windowId);
  const keys = await KeyRow.findAll({ where, order: [['createdAt', 'ASC']] });
  const keysOf = groupedBy(keys, (k) => k.windowId);
  const drafts = await DraftRow.findAll({ where });
  const turned = groupedBy(
    await TurnedTokenRow.findAll({
      where: { keyId: keys.map((k) => k.id), endsAt: { [Op.gt]: new Date() } },
      order: [['turnedAt', 'DESC']],
    }),
    (t) => t.keyId,
  );
  const uses = new Map(
    (await KeyUseRow.findAll({ where: { keyId: keys.map((k) => k.id) } })).map((u) => [u.keyId, u]),
  );
  const readers = await readersOf(
    sequelize,
    keys.map((k) => k.id),
  );
  const names = await namesOf(drafts.map((d) => d.userId));
  return rows.map((row) => {
    const draft = drafts.find((d) => d.windowId === row.id);
    return {
      ...rulesOf(row, sources.get(row.id) ?? [], context),
      // The secret of what readers get never leaves the server; previews and rehearsals have one of their own.
      secret: pseudonym(row.secret, 'preview'),
      id: row.id,
      slug: row.slug,
      listedSee: row.slug === null ? '' : addressesOf(publicUrl, row.slug).see,
      listedFeed: row.slug === null ? '' : addressesOf(publicUrl, row.slug).feed,
      listed: row.listed,
      publicGraceDays: row.settings.publicGraceDays ?? BLANK_WINDOW.publicGraceDays,
      unlistedAt: row.unlistedAt?.toISOString() ?? null,
      publicUntil: row.publicUntil?.toISOString() ?? null,
      closedAt: row.closedAt?.toISOString() ?? null,
      closesAt: row.closesAt?.toISOString() ?? null,
      farewell: row.farewellAt !== null,
      version: row.version,
      draft: draft ? draftAnswer(draft, names.get(draft.userId) ?? '') : null,
      keys: (keysOf.get(row.id) ?? []).map((key) =>
        keyAnswer(key, {
          publicUrl,
          turned: turned.get(key.id) ?? [],
          use: uses.get(key.id),
          readers: readers.get(key.id) ?? 0,
        }),
      ),
    };
  });
}

interface KeyContext {
  readonly publicUrl: string;
  readonly turned: readonly TurnedTokenRow[];
  readonly use: KeyUseRow | undefined;
  readonly readers: number;
}

function keyAnswer(key: KeyRow, { publicUrl, turned, use, readers }: KeyContext): WindowKey {
  const { id, madeOutTo, audience, cap, userId, contact, notes, meantFor, matters, look, hosts, version } =
    key;
  const token = unsealed(key.token);
  return {
    ...{
      id,
      madeOutTo,
      audience,
      cap,
      userId,
      contact,
      notes,
      meantFor,
      matters,
      readers,
      look,
      hosts,
      version,
    },
    madeAt: key.createdAt.toISOString(),
    expiresAt: key.expiresAt?.toISOString() ?? null,
    withdrawnAt: key.withdrawnAt?.toISOString() ?? null,
    turned: turned.map((t) => ({ at: t.turnedAt.toISOString(), until: t.endsAt.toISOString() })),
    fetchedAt: use?.at.toISOString() ?? null,
    fetched: use?.revision ?? null,
    token,
    ...addressesOf(publicUrl, token),
  };
}

export function draftAnswer(draft: DraftRow, by: string): WindowDraft {
  return {
    body: draft.body,
    version: draft.version,
    by,
    at: draft.updatedAt.toISOString(),
    publishAt: draft.publishAt?.toISOString() ?? null,
    stopped: draft.stopped,
  };
}

/** Returns one window. Throws `not-found`. */
export async function windowAnswer(
  sequelize: Sequelize,
  publicUrl: string,
  id: string,
): Promise<WindowAnswer> {
  const [found] = isUUID(id) ? await windowAnswers(sequelize, publicUrl, [id]) : [];
  if (!found) throw new Problem('not-found');
  return found;
}
