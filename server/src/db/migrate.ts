import type { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { log } from '../log';
import * as first from './migrations/001-first';
import * as calendars from './migrations/002-calendars';
import * as windows from './migrations/003-windows';
import * as keysAndLabels from './migrations/004-keys-and-labels';

const MIGRATIONS = [first, calendars, windows, keysAndLabels];

/** Brings the tables up to date. Several processes may call it at once: one works, the others wait. */
export async function migrate(sequelize: Sequelize): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    await sequelize.query('SELECT pg_advisory_xact_lock(4310)', { transaction });
    const umzug = new Umzug({
      migrations: MIGRATIONS.map(({ name, up }) => ({ name, up: () => up(sequelize) })),
      storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
      logger: undefined,
    });
    for (const { name } of await umzug.up()) log.info({ migration: name }, 'migrated');
  });
}
