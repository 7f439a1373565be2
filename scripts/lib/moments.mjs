import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { Refusal } from './say.mjs';

/**
 * Moments at which the tests run under a simulated clock. Together they cover every weekday in Halifax, the last day of a
 * month, a month of six weeks, 31 December, 29 February, the nights of both clock changes in Halifax, and 23:50 and 00:10
 * in Halifax and in UTC. A run takes a quarter of an hour, so one that begins at ten to passes the hour.
 */
export const MOMENTS = [
  { name: 'new-year', at: '2027-01-01T00:10:00Z', what: 'Thursday 31 December in Halifax, 00:10 UTC' },
  { name: 'late-evening', at: '2027-01-05T03:50:00Z', what: 'Monday, 23:50 in Halifax' },
  { name: 'after-midnight', at: '2027-02-03T04:10:00Z', what: 'Wednesday, 00:10 in Halifax' },
  { name: 'clocks-forward', at: '2027-03-14T05:50:00Z', what: 'Sunday, 10 minutes before clocks go forward' },
  { name: 'month-end', at: '2027-04-30T23:50:00Z', what: 'Friday, last day of a month, 23:50 UTC' },
  { name: 'six-weeks', at: '2027-05-29T15:00:00Z', what: 'Saturday in a month of six weeks' },
  { name: 'clocks-back', at: '2027-11-07T04:50:00Z', what: 'Sunday, 10 minutes before clocks go back' },
  { name: 'leap-day', at: '2028-02-29T16:00:00Z', what: 'Tuesday 29 February' },
];

const DAY_MS = 86_400_000;

/** Returns the moment whose turn it is on the day of `now`, in epoch milliseconds: the list is repeated day by day. */
export function momentForDay(now) {
  return MOMENTS[Math.floor(now / DAY_MS) % MOMENTS.length];
}

/** Returns the moment with this name. Throws a Refusal that lists the names if there is none. */
export function momentNamed(name) {
  const moment = MOMENTS.find((m) => m.name === name);
  if (moment) return moment;
  const names = MOMENTS.map((m) => m.name).join(', ');
  throw new Refusal(`There is no moment “${name}”. Choose one of: ${names}.`);
}

/** Returns the path of libfaketime's library for programs with threads, or null if it is not installed. */
export function fakeTimeLibrary() {
  const folders = readdirSync('/usr/lib').map((name) => join('/usr/lib', name, 'faketime'));
  const files = folders.map((folder) => join(folder, 'libfaketimeMT.so.1'));
  return files.find((file) => existsSync(file)) ?? null;
}

/**
 * Returns the environment in which a program and everything that it starts believes that it is `at` (an ISO 8601 instant)
 * now. Clocks run on at their usual speed; times of files stay real.
 */
export function environmentAt(at) {
  const seconds = Math.round((Date.parse(at) - Date.now()) / 1000);
  return {
    LD_PRELOAD: fakeTimeLibrary(),
    FAKETIME: `${seconds < 0 ? '' : '+'}${seconds}s`,
    NO_FAKE_STAT: '1',
  };
}

/** How far a program's clock may be from the simulated one: the programs are started one after the other. */
const TOLERANCE_MS = 120_000;

/** Throws a Refusal if a clock does not follow the simulated one; `readings` are epoch milliseconds by program. */
export function checkClocks(at, readings) {
  for (const [program, reading] of Object.entries(readings)) {
    if (!(Math.abs(reading - Date.parse(at)) < TOLERANCE_MS))
      throw new Refusal(`The clock of ${program} does not follow the simulated one: it reads ${reading}.`);
  }
}

/** Returns what Node's and a browser's clocks read in an environment, in epoch milliseconds. */
export function readClocks(env, browser) {
  const read = (command, args) =>
    Number(/\d{13}/.exec(spawnSync(command, args, { env, encoding: 'utf8' }).stdout)?.[0]);
  const page = 'data:text/html,<script>document.write(Date.now())</script>';
  return {
    Node: read(process.execPath, ['-p', 'Date.now()']),
    Chromium: read(browser, ['--headless', '--no-sandbox', '--dump-dom', page]),
  };
}
