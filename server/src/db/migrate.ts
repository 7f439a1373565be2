import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { Umzug } from 'umzug';
import { log } from '../log';
import * as first from './migrations/001-first';
import * as calendars from './migrations/002-calendars';
import * as windows from './migrations/003-windows';
import * as keysAndLabels from './migrations/004-keys-and-labels';
import * as ground from './migrations/005-ground';
import * as programs from './migrations/006-programs';
import * as keys from './migrations/007-keys';
import * as embeds from './migrations/008-embeds';
import * as listing from './migrations/009-listing';
import * as closing from './migrations/010-closing';
import * as sheets from './migrations/011-sheets';
import * as readers from './migrations/012-readers';
import * as rights from './migrations/013-rights';
import * as calendarNames from './migrations/014-calendar-names';
import * as accounts from './migrations/015-accounts';
import { noteChanges } from './journal';
import * as directory from './migrations/016-directory';
import * as journal from './migrations/017-journal';
import * as ownKeys from './migrations/018-own-keys';
import * as insideLabels from './migrations/019-inside-labels';
import * as leaving from './migrations/020-leaving';
import * as subscribers from './migrations/021-subscribers';
import * as reach from './migrations/022-reach';
import * as alerts from './migrations/023-alerts';
import * as telling from './migrations/024-telling';
import * as serving from './migrations/025-serving';
import * as publicAddresses from './migrations/026-public-addresses';
import * as movedKeys from './migrations/027-moved-keys';
import * as mailLimits from './migrations/028-mail-limits';
import * as signInTries from './migrations/029-sign-in-tries';
import * as calendarLabels from './migrations/030-calendar-labels';
import * as entryHistory from './migrations/031-entry-history';
import * as ceilingRequests from './migrations/032-ceiling-requests';
import * as passwordAddresses from './migrations/033-password-addresses';
import * as publicContacts from './migrations/034-public-contacts';
import * as deletedWindows from './migrations/035-deleted-windows';
import * as accountLanguages from './migrations/036-account-languages';
import * as images from './migrations/037-images';
import * as alertFacts from './migrations/038-alert-facts';

export const MIGRATIONS = [
  first,
  calendars,
  windows,
  keysAndLabels,
  ground,
  programs,
  keys,
  embeds,
  listing,
  closing,
  sheets,
  readers,
  rights,
  calendarNames,
  accounts,
  directory,
  journal,
  ownKeys,
  insideLabels,
  leaving,
  subscribers,
  reach,
  alerts,
  telling,
  serving,
  publicAddresses,
  movedKeys,
  mailLimits,
  signInTries,
  calendarLabels,
  entryHistory,
  ceilingRequests,
  passwordAddresses,
  publicContacts,
  deletedWindows,
  accountLanguages,
  images,
  alertFacts,
];

/**
 * Brings the tables up to date. Each migration and the note that it was done are one transaction: a process that is
 * killed leaves all of it or nothing behind. Several processes may call it at once: one works, the others wait. Throws
 * when the tables are of a newer program.
 */
export async function migrate(sequelize: Sequelize): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    await lock(sequelize, transaction);
    await sequelize.query('CREATE TABLE IF NOT EXISTS migrations (name varchar(255) PRIMARY KEY)', {
      transaction,
    });
    const unknown = (await namesDone(sequelize, transaction)).filter(
      (name) => !MIGRATIONS.some((m) => m.name === name),
    );
    if (unknown.length)
      throw new Error(
        `The database was brought up to date by a newer program (${unknown.join(', ')}), which this one does not know. ` +
          'Start the newer program again, or restore the database as it was before.',
      );
  });
  while (await migrateOnce(sequelize)) {
    // One more, in a transaction of its own.
  }
  await sequelize.transaction(async (transaction) => {
    await lock(sequelize, transaction);
    await noteChanges(sequelize, transaction);
  });
}

async function migrateOnce(sequelize: Sequelize): Promise<boolean> {
  return sequelize.transaction(async (transaction) => {
    await lock(sequelize, transaction);
    const umzug = new Umzug({
      migrations: MIGRATIONS.map(({ name, up }) => ({ name, up: () => up(sequelize, transaction) })),
      storage: {
        executed: () => namesDone(sequelize, transaction),
        logMigration: async ({ name }) => {
          await sequelize.query('INSERT INTO migrations (name) VALUES (:name)', {
            replacements: { name },
            transaction,
          });
        },
        unlogMigration: async () => undefined,
      },
      logger: undefined,
    });
    const done = await umzug.up({ step: 1 });
    for (const { name } of done) log.info({ migration: name }, 'migrated');
    return done.length > 0;
  });
}

function lock(sequelize: Sequelize, transaction: Transaction) {
  return sequelize.query('SELECT pg_advisory_xact_lock(4310)', { transaction });
}

async function namesDone(sequelize: Sequelize, transaction: Transaction): Promise<string[]> {
  const rows = await sequelize.query<{ name: string }>('SELECT name FROM migrations', {
    type: QueryTypes.SELECT,
    transaction,
  });
  return rows.map((r) => r.name);
}
