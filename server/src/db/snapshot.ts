import { Transaction, type Sequelize } from 'sequelize';

/** In milliseconds. It holds no lock that anybody waits for, so a busy machine may take its time between two statements. */
const SNAPSHOT_IDLE_MS = 120_000;

/** Returns what `read` finds in one state of the database, whatever is written meanwhile. It may not write. */
export function readSnapshot<T>(
  sequelize: Sequelize,
  read: (transaction: Transaction) => Promise<T>,
): Promise<T> {
  const isolationLevel = Transaction.ISOLATION_LEVELS.REPEATABLE_READ;
  return sequelize.transaction({ isolationLevel }, async (transaction) => {
    const settings = `SET TRANSACTION READ ONLY; SET LOCAL idle_in_transaction_session_timeout = ${SNAPSHOT_IDLE_MS}`;
    await sequelize.query(settings, { transaction });
    return read(transaction);
  });
}
