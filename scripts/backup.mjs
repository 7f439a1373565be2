import { existsSync, renameSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { COUNT_TABLES, queryDatabase, runPostgres, withHouseDatabase } from './lib/database.mjs';
import { Refusal, main, say } from './lib/say.mjs';

/**
 * Writes a back-up of the house's database into a file: everything as of one moment, while servers go on. Waiting jobs are left
 * out, so that nothing is sent twice after it was restored.
 */
await main(async () => {
  const [file] = process.argv.slice(2);
  if (!file) throw new Refusal('Name the file: npm run backup -- house.backup');
  const path = resolve(file);
  if (existsSync(path)) throw new Refusal(`${path} is there already. Choose another name.`);
  const unfinished = `${path}.part`;
  try {
    await withHouseDatabase(async (url) => {
      if (queryDatabase(url, COUNT_TABLES) === '0')
        throw new Refusal('There is no house in this database yet.');
      await runPostgres('pg_dump', [
        '--format=custom',
        '--exclude-schema=pgboss',
        `--file=${unfinished}`,
        url,
      ]);
    });
    renameSync(unfinished, path);
  } finally {
    rmSync(unfinished, { force: true });
  }
  say(`Backed up into ${path}. Keep the secrets too: without them no address in it can be read.`);
});
