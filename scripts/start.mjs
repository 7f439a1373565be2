import { ACCOUNTS } from './lib/accounts.mjs';
import { OUTSIDE_FOLDER, SERVER_MAIN, WEB_FOLDER, build } from './lib/build.mjs';
import { Programs, checkPort, claim, keptSecret } from './lib/launch.mjs';
import { ensureDebianPackages, ensureNpmPackages } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { Refusal, main, say } from './lib/say.mjs';

/** Secrets that stand in the sources or in documents: everybody can know them. */
const KNOWN_SECRETS = ['a secret for developing only', 'a secret of the tests', 'openssl rand -base64 32'];

function refuseKnown(names) {
  const known = names.filter((name) => KNOWN_SECRETS.includes(process.env[name]?.trim()));
  if (known.length)
    throw new Refusal(
      `${known.join(' and ')} stands in the sources, so everybody can know it. Leave it out, and one is made and kept; or set it to what “openssl rand -base64 32” prints.`,
    );
}

/**
 * Runs the application for real use: with the database that DATABASE_URL names, or else one of this checkout's own. With no
 * account yet the server prints the address at which the first steward begins.
 */
await main(async () => {
  const port = Number(process.env.PORT ?? 4310);
  refuseKnown(['SESSION_SECRET', 'KEYS_SECRET']);
  await checkPort(port, 'npm start');
  const release = claim('start.mjs');
  await ensureNpmPackages();
  const own = !process.env.DATABASE_URL;
  if (own) await ensureDebianPackages(['postgresql']);
  await build();

  const postgres = own ? await startPostgres('house', { durable: true }) : null;
  const programs = new Programs(async () => {
    await postgres?.stop();
    release();
  });
  try {
    postgres?.createDatabase('zonal');
    const { DEMO_ACCOUNTS: _demo, ...given } = process.env;
    const env = {
      ...given,
      DATABASE_URL: process.env.DATABASE_URL ?? postgres.url('zonal'),
      PORT: String(port),
      SESSION_SECRET: process.env.SESSION_SECRET ?? keptSecret('house-secret'),
      // Their passwords stand in the sources.
      REFUSED_ACCOUNTS: JSON.stringify(ACCOUNTS),
      WEB_FOLDER,
      OUTSIDE_FOLDER,
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
    };
    await programs.start(SERVER_MAIN, env);
    say(`Zonal Window is at ${process.env.PUBLIC_URL ?? `http://127.0.0.1:${port}`}`);
    if (own) say(`Its database and its secret are in .data/; keep copies of both.`);
    say('Ctrl-C stops it.');
  } catch (error) {
    console.error(error instanceof Refusal ? error.message : error);
    await programs.stop(1);
  }
});
