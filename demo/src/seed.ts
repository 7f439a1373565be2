import { GLASSES, settingsOf } from '@zonal/core/glass';
import { STANDINGS, type HouseRole } from '@zonal/core/rights';
import { DAY, dayOfWall, instantOf, wallAt } from '@zonal/core/zones';
import type { DemoAccount } from '@zonal/server/config';
import { connect } from '@zonal/server/db/connect';
import { weekOf } from '@zonal/server/db/readers';
import { ImageRow } from '@zonal/server/db/imageModel';
import { sayWhose } from '@zonal/server/db/journal';
import { learnLabels } from '@zonal/server/db/labels';
import { migrate } from '@zonal/server/db/migrate';
import {
  CalendarRow,
  EntryRow,
  CeilingRow,
  HouseRow,
  KeyRow,
  KeyUseRow,
  SheetRow,
  StandingRow,
  UserRow,
  WindowRow,
  WindowSourceRow,
  WishRow,
} from '@zonal/server/db/models';
import { randomToken, rememberVersion, sourceRowsOf } from '@zonal/server/glass/windowStore';
import { columnsOf } from '@zonal/server/inside/entryStore';
import { tokenPrint } from '@zonal/server/outside/sheetStore';
import { hashPassword } from '@zonal/server/people/passwords';
import { randomBytes, randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { HOME } from './drafts';
import { writeHistory } from './history';
import {
  HOUSE_GLASS,
  KNOWN,
  MARKET_IMAGE,
  SHEET,
  STANDINGS_OF,
  WINDOWS,
  WISH,
  calendarsAround,
  saidOfDemo,
} from './scenario';

/** A made-up place on the coast of the harbour's zone. */
const SPOT = { place: 'Ostrel', latitude: 44.31, longitude: -63.78 };

const HOUSE = {
  name: 'Ostrel Harbour Trust',
  zone: HOME,
  country: 'CA',
  region: 'NS',
  properties: [
    { name: 'Contract', kind: 'text' as const, choices: [] },
    { name: 'Berth', kind: 'choice' as const, choices: ['1', '2', '3', 'Coal pier'] },
    { name: 'Party size', kind: 'number' as const, choices: [] },
  ],
  watchWords: ['charter', 'salvage'],
  publicContacts: ['visit@ostrel.example'],
  mailDomains: ['ostrel.example'],
};

/** Keys were made and last used so many milliseconds ago; one of them never was. */
const [MADE, USED, UNUSED] = [90 * 86_400_000, 40 * 60_000, 'Residents of Far Bay'];
/** One key was passed on: it is made out for a few readers, and many more came. */
const [SHARED, MEANT_FOR, CAME] = ['Shipping agents', 6, 31];
/** One key ends after so many days. */
const [ENDING, ENDS] = ['Ferry line’s operations desk', 20];

/** Whom to write to about a key. */
const CONTACTS: Readonly<Record<string, string>> = {
  'Shipping agents': 'agents@quayside.example',
  'Ferry line’s operations desk': 'operations@farline.example',
  'Town web site': 'web desk of the town, room 4',
};

/** The clearest glass by calendar and audience. */
const CEILINGS = [
  ['HD', 'street', 'shut'],
  ['HD', 'partners', 'frosted'],
  ['PR', 'street', 'frosted'],
] as const;

const sequelize = connect(process.env['DATABASE_URL']!, { patient: true });
await migrate(sequelize);
// Data of an earlier run are kept.
if (!(await UserRow.count())) {
  await seed(JSON.parse(process.env['DEMO_ACCOUNTS'] ?? '[]') as DemoAccount[]);
  await learnLabels(sequelize);
  // For so many days the house has been at work, and programs outside have followed.
  const days = Number(process.env['DEMO_DAYS'] ?? 0);
  if (days) await writeHistory(sequelize, days, Date.now());
}
await sequelize.close();

async function seed(accounts: readonly DemoAccount[]): Promise<void> {
  const today = dayOfWall(wallAt(HOME, Date.now()));
  await sequelize.transaction(async (transaction) => {
    for (const { name, email, password, role } of accounts) {
      const row = {
        name,
        email,
        role: (role === 'steward' ? role : 'member') as HouseRole,
        passwordHash: await hashPassword(password),
      };
      await UserRow.create(row, { transaction });
    }
    const looksAfter = await UserRow.findOne({ where: { role: 'steward' }, transaction });
    await sayWhose(sequelize, looksAfter?.id ?? null, transaction);
    await HouseRow.update(HOUSE, { where: { id: 1 }, transaction });
    const { alt: _alt, ...image } = MARKET_IMAGE;
    const bytes = readFileSync(new URL('../../demo/images/market.webp', import.meta.url));
    await ImageRow.create({ ...image, bytes, userId: looksAfter?.id ?? null }, { transaction });
    const idOf = new Map<string, string>();
    for (const { entries, ...calendar } of calendarsAround(today)) {
      const houseGlass = HOUSE_GLASS[calendar.plate] ?? 'shut';
      const columns = { ...calendar, ...SPOT, zone: HOME, houseGlass, known: KNOWN.includes(calendar.plate) };
      const row = await CalendarRow.create(columns, { transaction });
      idOf.set(calendar.plate, row.id);
      const rows = entries.map((e) => ({
        ...columnsOf(e, HOME),
        id: randomUUID(),
        calendarId: row.id,
        uid: `${e.uid}@ostrel.example`,
      }));
      await EntryRow.bulkCreate(rows, { transaction });
    }
    for (const { id: userId, email } of await UserRow.findAll({ transaction }))
      for (const [plate, what] of Object.entries(STANDINGS_OF[email] ?? {})) {
        const standing = STANDINGS.find((s) => s === what) ?? 'reader';
        const glass = GLASSES.find((g) => g === what) ?? null;
        const since = new Date(Date.now() - MADE);
        const row = { calendarId: idOf.get(plate)!, userId, standing, glass, byId: null, since };
        await StandingRow.create(row, { transaction });
      }
    const wisher = await UserRow.findOne({ where: { email: WISH.by }, transaction });
    const { glass: wished, reason } = WISH;
    const wish = { calendarId: idOf.get(WISH.plate)!, standing: 'reader' as const, glass: wished, reason };
    if (wisher) await WishRow.create({ ...wish, userId: wisher.id, state: 'open' }, { transaction });
    const steward = await UserRow.findOne({ where: { role: 'steward' }, transaction });
    for (const [plate, audience, glass] of CEILINGS) {
      const ceiling = { calendarId: idOf.get(plate)!, audience, glass, userId: steward?.id ?? null };
      await CeilingRow.create(ceiling, { transaction });
    }
    const idOfKey = new Map<string, string>();
    for (const demo of WINDOWS) {
      const { keys, slug, name, listed, audience } = demo;
      const said = saidOfDemo(demo, (plate) => idOf.get(plate)!);
      const secret = randomBytes(32).toString('base64url');
      const window = await WindowRow.create(
        {
          slug,
          name,
          listed,
          listedAt: listed ? new Date(Date.now() - MADE) : null,
          settings: settingsOf(said),
          secret,
          closedAt: null,
        },
        { transaction },
      );
      idOf.set(slug, window.id);
      await WindowSourceRow.bulkCreate(sourceRowsOf(window.id, said), { transaction });
      for (const madeOutTo of keys) {
        const token = randomToken();
        const key = { windowId: window.id, token, madeOutTo, audience, cap: null };
        const expiresAt = madeOutTo === ENDING ? new Date(instantOf(HOME, (today + ENDS + 1) * DAY)) : null;
        const createdAt = new Date(Date.now() - MADE);
        const meantFor = madeOutTo === SHARED ? MEANT_FOR : null;
        const contact = CONTACTS[madeOutTo] ?? '';
        const row = await KeyRow.create(
          { ...key, contact, matters: contact !== '', expiresAt, createdAt, meantFor },
          { transaction },
        );
        idOfKey.set(`${slug} ${madeOutTo}`, row.id);
        if (madeOutTo !== UNUSED) {
          const use = { keyId: row.id, at: new Date(Date.now() - USED), revision: 1, count: 480 };
          await KeyUseRow.create(use, { transaction });
        }
      }
      await rememberVersion(window.id, null, transaction);
    }
    const cameWith = idOfKey.get(`works-ahead ${SHARED}`)!;
    await sequelize.query(
      `INSERT INTO key_readers (key_id, week, reader, many)
       SELECT :cameWith, :week, int8send(n), 1 FROM generate_series(1, :CAME) AS n`,
      { replacements: { cameWith, week: weekOf(Date.now()), CAME }, transaction },
    );
    const { name, note, items } = SHEET;
    const token = randomToken();
    const onSheet = items.map(([slug, to]) => ({
      windowId: idOf.get(slug)!,
      keyId: to && idOfKey.get(`${slug} ${to}`)!,
    }));
    const sheet = { token, tokenPrint: tokenPrint(token), name, note, items: onSheet };
    await SheetRow.create({ ...sheet, userId: steward?.id ?? null }, { transaction });
  });
}
