import { fork } from 'node:child_process';
import { once } from 'node:events';

export const BASE = 'http://127.0.0.1:4399';
/** A site of somebody else. */
export const HOST_SITE = 'http://127.0.0.1:4396';
export const ACCOUNT = {
  name: 'Ida Maren',
  email: 'ida@ostrel.example',
  password: 'ebb-and-flow',
  role: 'steward',
};

/** Nothing in particular to any calendar. */
export const COLLEAGUE = {
  name: 'Siri Holme',
  email: 'siri@ostrel.example',
  password: 'sand-and-tide',
  role: 'colleague',
};

/** Seeds an empty database with the demo and starts the built server on it; returns what stops it. */
export default async function startDemo(): Promise<() => Promise<void>> {
  const need = (name: string) => {
    const value = process.env[name];
    if (!value) throw new Error(`${name} is not set: run the tests with npm test.`);
    return value;
  };
  const env = {
    ...process.env,
    DATABASE_URL: need('E2E_DATABASE_URL'),
    PORT: '4399',
    PUBLIC_URL: BASE,
    HOST_SITE_URL: HOST_SITE,
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
