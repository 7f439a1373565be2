import { closeSync, openSync, readSync, statSync } from 'node:fs';
import type { Sequelize } from 'sequelize';

/** Tables that are written because somebody has polled, and by nothing else. */
const OF_POLLS = ['subscribers', 'polls', 'key_uses', 'key_readers', 'spreads', 'reader_salts'];

/**
 * Returns how many statements that write what polls say the database carried out while some work went on, by its own log: an
 * entry for each statement, however many rows it writes.
 */
export async function statementsOf(
  sequelize: Sequelize,
  logFile: string,
  work: () => Promise<unknown>,
): Promise<number> {
  const set = async (what: string) => {
    await sequelize.query(`ALTER SYSTEM SET log_statement = '${what}'`);
    await sequelize.query('SELECT pg_reload_conf()');
    await new Promise((resolve) => setTimeout(resolve, 500));
  };
  await set('mod');
  const from = statSync(logFile).size;
  await work();
  // What waits to be stored is stored within a second or two.
  await new Promise((resolve) => setTimeout(resolve, 3_000));
  const log = readFrom(logFile, from);
  await set('none');
  const writes = new RegExp(`\\b(INSERT INTO|UPDATE|DELETE FROM)\\s+"?(${OF_POLLS.join('|')})\\b`, 'i');
  return log.split(/^\d{4}-\d\d-\d\d [\d:.]+ \S+ \[\d+\] /m).filter((entry) => writes.test(entry)).length;
}

function readFrom(file: string, from: number): string {
  const bytes = Buffer.alloc(statSync(file).size - from);
  const handle = openSync(file, 'r');
  readSync(handle, bytes, 0, bytes.length, from);
  closeSync(handle);
  return bytes.toString();
}
