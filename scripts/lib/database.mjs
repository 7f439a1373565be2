import { join } from 'node:path';
import { claim } from './launch.mjs';
import { ensureDebianPackages, postgresFolder } from './packages.mjs';
import { runningDatabase, startPostgres } from './postgres.mjs';
import { probe, run } from './run.mjs';
import { Refusal } from './say.mjs';

/**
 * Does some work with the house's database: the one that DATABASE_URL names, or else the one of this checkout, whose server is
 * started if it does not run. `work` gets its address.
 */
export async function withHouseDatabase(work) {
  await ensureDebianPackages(['postgresql']);
  const known = process.env.DATABASE_URL ?? runningDatabase('house', 'zonal');
  if (known) return work(known);
  const release = claim('start.mjs');
  const postgres = await startPostgres('house', { durable: true });
  try {
    postgres.createDatabase('zonal');
    return await work(postgres.url('zonal'));
  } finally {
    await postgres.stop();
    release();
  }
}

/** Asks how many tables there are: none before a server has started on the database. */
export const COUNT_TABLES = `SELECT count(*) FROM pg_tables WHERE schemaname = 'public'`;

/** Runs one of PostgreSQL's programs. Throws a Refusal when it fails. */
export function runPostgres(program, args) {
  return run(join(postgresFolder(), program), args);
}

/** Runs a statement and returns what it answers, one line a row. Throws a Refusal when it fails. */
export function queryDatabase(url, sql) {
  const args = ['-X', '-q', '-t', '-A', '-v', 'ON_ERROR_STOP=1', '-c', sql, url];
  const { ok, stdout, stderr } = probe(join(postgresFolder(), 'psql'), args);
  if (!ok) throw new Refusal(`The database refused:\n${stderr}`);
  return stdout.trim();
}
