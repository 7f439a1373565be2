import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { COUNT_TABLES, queryDatabase, runPostgres, withHouseDatabase } from './lib/database.mjs';
import { Refusal, main, say } from './lib/say.mjs';

const RUNNING_SERVERS = 'SELECT count(*) FROM processes WHERE serves_until > now()';

const EMPTY_DATABASE = `
  DROP SCHEMA IF EXISTS pgboss CASCADE;
  DROP SCHEMA public CASCADE;
  CREATE SCHEMA public;`;

/** What was on its way when the back-up was made may have arrived since: a steward decides whether it is sent again. */
const AFTER_RESTORE = `
  UPDATE public.mails SET state = 'unsure', trouble = 'A back-up was restored. This may have been sent before.'
  WHERE state = 'waiting';
  DELETE FROM public.processes;
  DELETE FROM public.untold;
  DELETE FROM public.moved_keys;`;

/**
 * Replaces the house's database by a back-up in one transaction. Refuses while a server runs, and, unless `--replace` is given, if
 * there is anything in the database.
 */
await main(async () => {
  const args = process.argv.slice(2);
  const isReplacing = args.includes('--replace');
  const [file] = args.filter((arg) => !arg.startsWith('--'));
  if (!file || !existsSync(file)) throw new Refusal('Name the file: npm run restore -- house.backup');
  const folder = mkdtempSync(join(tmpdir(), 'zonal-restore-'));
  try {
    await withHouseDatabase(async (url) => {
      const isEmpty = queryDatabase(url, COUNT_TABLES) === '0';
      if (!isEmpty && !isReplacing)
        throw new Refusal(
          'This database has a house in it. To replace it: npm run restore -- --replace FILE',
        );
      const servers = isEmpty ? 0 : Number(queryDatabase(url, RUNNING_SERVERS));
      if (servers)
        throw new Refusal(
          `Servers that run on this database, or were killed within ten minutes: ${servers}. Stop them, and try again.`,
        );
      const steps = { before: EMPTY_DATABASE, restore: null, after: AFTER_RESTORE };
      const fileOf = (step) => join(folder, `${step}.sql`);
      for (const [step, sql] of Object.entries(steps)) if (sql) writeFileSync(fileOf(step), sql);
      await runPostgres('pg_restore', ['--no-owner', `--file=${fileOf('restore')}`, resolve(file)]);
      const files = Object.keys(steps).flatMap((step) => ['-f', fileOf(step)]);
      await runPostgres('psql', [
        '-X',
        '-q',
        '-v',
        'ON_ERROR_STOP=1',
        '--single-transaction',
        ...files,
        '-d',
        url,
      ]);
    });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  say(
    'Restored. What was withdrawn, narrowed or deleted after the back-up is open again: check it before you start.',
  );
});
