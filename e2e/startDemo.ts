import { fork } from 'node:child_process';
import { once } from 'node:events';

function need(name: string): string {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set: run the tests with npm test.`);
  return value;
}

/** Free ports for what the demo consists of. */
const PORTS = JSON.parse(need('E2E_PORTS')) as readonly number[];
const [port, secondPort, firstPort, hostSite, postbox, smtp, followers] = PORTS;

/** The addresses of the demo: its server, a second server of the same house, the stand-ins, its database. */
export const OWN = {
  port,
  base: `http://127.0.0.1:${port}`,
  secondPort,
  firstPort,
  hostSite: `http://127.0.0.1:${hostSite}`,
  postbox: `http://127.0.0.1:${postbox}`,
  smtp: `smtp://127.0.0.1:${smtp}`,
  followers: `http://127.0.0.1:${followers}`,
  databaseUrl: need('E2E_DATABASE_URL'),
};
export const BASE = OWN.base;
export const HOST_SITE = OWN.hostSite;
export const POSTBOX = OWN.postbox;
export const FOLLOWERS = OWN.followers;
export const ACCOUNT = {
  name: 'Ida Maren',
  email: 'ida@ostrel.example',
  password: 'ebb-and-flow',
  role: 'steward',
};

/** Nothing in particular to any calendar. */
const COLLEAGUE = {
  name: 'Siri Holme',
  email: 'siri@ostrel.example',
  password: 'sand-and-tide',
  role: 'colleague',
};

/** Seeds an empty database with the demo and starts the built server on it; returns what stops it. */
export default async function startDemo(): Promise<() => Promise<void>> {
  const env = {
    ...process.env,
    DATABASE_URL: OWN.databaseUrl,
    PORT: String(OWN.port),
    PUBLIC_URL: OWN.base,
    HOST_SITE_URL: OWN.hostSite,
    POSTBOX_URL: OWN.postbox,
    SMTP_URL: OWN.smtp,
    FOLLOWERS_URL: OWN.followers,
    // They look when a test has them look.
    FOLLOWERS_PACE: '0',
    MAIL_FROM: 'calendars@ostrel.example',
    JOB_LOOK_SECONDS: '1',
    NOTICE_SETTLE_SECONDS: '0',
    NOTICE_GAP_SECONDS: '0',
    SESSION_SECRET: 'a secret of the tests',
    DEMO_ACCOUNTS: JSON.stringify([ACCOUNT, COLLEAGUE]),
  };
  const [seeded] = (await once(fork(need('SEED_MAIN'), { env }), 'exit')) as [number];
  if (seeded !== 0) throw new Error('The demo data could not be written.');
  const running = [fork(need('STANDINS_MAIN'), { env }), fork(need('SERVER_MAIN'), { env })];
  await Promise.all(
    running.map((child) =>
      Promise.race([
        once(child, 'message'),
        once(child, 'exit').then(() => Promise.reject(new Error('The demo did not start.'))),
      ]),
    ),
  );
  return async () => {
    for (const child of running) {
      child.kill('SIGTERM');
      await once(child, 'exit');
    }
  };
}
