import { EMPTY_CONTENT } from '@zonal/core/entries';
import { TestClient, windowInput } from '@zonal/server/testing';
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { Agent, request } from 'node:http';
import { fileURLToPath } from 'node:url';
import type { Figure } from './figure';

const ACCOUNT = { name: 'Ida', email: 'ida@ostrel.example', password: 'tide-and-time', role: 'steward' };
/** The thread that answers polls may stand still for so many milliseconds. */
const STANDSTILL = 10;

const day = (n: number) => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);
const list = (low: number, high: number) =>
  Array.from({ length: high - low + 1 }, (_, i) => low + i).join(',');
const EVERY_SECOND = `BYHOUR=${list(0, 23)};BYMINUTE=${list(0, 59)};BYSECOND=${list(0, 59)}`;

function entry(parts: object) {
  const at = (hour: number) => ({ kind: 'zoned', at: `${day(3)}T${hour}:00:00`, zone: 'America/Halifax' });
  return {
    ...EMPTY_CONTENT,
    title: 'Lock',
    start: at(10),
    end: at(11),
    recurrence: null,
    overrides: [],
    ...parts,
  };
}
const ruled = (rule: string, exceptDates: unknown[] = []) =>
  entry({ recurrence: { rule, dates: [], exceptDates } });

/** What somebody could write to keep a server busy. */
const HOSTILE: readonly object[] = [
  ruled('FREQ=SECONDLY;BYSECOND=60;COUNT=1'),
  ruled(`FREQ=YEARLY;INTERVAL=3;BYMONTH=1;${EVERY_SECOND};BYDAY=MO,TU,WE,TH,FR,SA,SU`),
  ruled('FREQ=MINUTELY;INTERVAL=2;BYMINUTE=1'),
  ruled('FREQ=DAILY;UNTIL=99991231T235959Z'),
  ruled('FREQ=HOURLY'),
  ruled(
    'FREQ=HOURLY',
    Array.from({ length: 40_000 }, () => ({ kind: 'date', date: day(9) })),
  ),
  entry({ description: 'a'.repeat(50_000) }),
  entry({ description: 'http://'.repeat(7_000) }),
  ...Array.from({ length: 12 }, (_, n) =>
    entry({ people: Array.from({ length: 1000 }, (_p, i) => ({ name: `Somebody ${n} ${i}`, address: '' })) }),
  ),
];

/** Polls an address again and again, and returns how long each answer took, in milliseconds. */
async function pollsDuring(
  url: string,
  headers: Readonly<Record<string, string>>,
  act: () => Promise<unknown>,
): Promise<number[]> {
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  const took: number[] = [];
  let done = false;
  const poll = () =>
    new Promise<void>((resolve, reject) => {
      const began = performance.now();
      request(url, { agent, headers }, (res) => {
        res.resume();
        res.on('end', () => {
          took.push(performance.now() - began);
          resolve();
        });
      })
        .on('error', reject)
        .end();
    });
  const polling = (async () => {
    while (!done) {
      await poll();
      await new Promise((resolve) => setTimeout(resolve, 2));
    }
  })();
  await act();
  done = true;
  await polling;
  agent.destroy();
  return took.sort((a, b) => a - b);
}

const at = (sorted: readonly number[], share: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!;
const told = (sorted: readonly number[]) =>
  `${sorted.length} polls, 25 % within ${at(sorted, 0.25).toFixed(2)}, 50 % ${at(sorted, 0.5).toFixed(2)}, 75 % ${at(sorted, 0.75).toFixed(2)}, ` +
  `90 % ${at(sorted, 0.9).toFixed(2)}, 99 % ${at(sorted, 0.99).toFixed(1)}, all ${at(sorted, 1).toFixed(1)} ms`;

interface Phase {
  readonly polls: readonly number[];
  readonly longest: number;
  readonly usual: number;
}

/** Measures for how long the thread that answers readers stands still, and how long polls of a small feed wait. */
export async function standstillFigures(env: NodeJS.ProcessEnv): Promise<Figure[]> {
  await once(fork(env['SEED_MAIN']!, { env: { ...env, DEMO_ACCOUNTS: JSON.stringify([ACCOUNT]) } }), 'exit');
  const monitor = fileURLToPath(new URL('monitor.js', import.meta.url));
  const server = fork(env['SERVER_MAIN']!, { env, execArgv: ['--import', monitor] });
  await once(server, 'message');
  try {
    const base = `http://127.0.0.1:${env['PORT']}`;
    const client = new TestClient(base);
    await client.signIn(ACCOUNT.password, ACCOUNT.email);
    const send = async (method: string, path: string, body: object) => {
      const answer = await client.call(method, path, body);
      if (answer.status >= 500) throw new Error(`${path}: ${answer.status} ${JSON.stringify(answer.body)}`);
      return answer.body;
    };
    const calendar = async (name: string) => {
      const input = { name, description: '', zone: 'America/Halifax', plate: 'BB', colour: 'teal' };
      return (await send('POST', '/calendars', input)).id as string;
    };
    const shown = await calendar('Shown elsewhere');
    const { keys } = await send('POST', '/windows', windowInput(shown, 'clear', { name: 'Small' }));
    const busy = await calendar('Written to');
    const large = await send('POST', '/windows', windowInput(busy, 'clear', { name: 'Large' }));
    const feed = `${base}/feed/${keys[0].token}.ics`;
    const phase = async (
      act: () => Promise<unknown>,
      url = feed,
      headers: Readonly<Record<string, string>> = {},
    ): Promise<Phase> => {
      const standing = async () => {
        server.send('standstill');
        return (await once(server, 'message'))[0] as Omit<Phase, 'polls'>;
      };
      await standing();
      const polls = await pollsDuring(url, headers, act);
      return { polls, ...(await standing()) };
    };
    /** Writes many entries in one edit, as the application does with a file. */
    const writeMany = async (count: number) => {
      const edit = await send('POST', '/edits', { label: 'Many', staged: true, changes: [] });
      for (let i = 0; i < count; i += 500) {
        const changes = Array.from({ length: 500 }, (_, n) => ({
          version: 0,
          calendarId: busy,
          entry: entry({ title: `Vessel ${i + n}` }),
        }));
        await send('POST', `/edits/${edit.id}/changes`, { changes });
      }
      await send('POST', `/edits/${edit.id}/apply`, {});
    };
    const wait = () => new Promise((resolve) => setTimeout(resolve, 5000));
    const quiet = await phase(wait);
    const hostile = await phase(async () => {
      for (const one of HOSTILE) await send('POST', `/calendars/${busy}/entries`, one);
      const nested = {
        all: Array.from({ length: 26 }, (_, i) => ({
          any: [
            { field: 'label', value: `a${i}` },
            { field: 'label', value: `b${i}` },
          ],
        })),
      };
      await send('POST', '/windows', windowInput(busy, 'clear', { name: 'Nested', filter: nested }));
    });
    const many = await phase(async () => {
      for (let i = 0; i < 2; i++) await writeMany(5000);
      await fetch(`${base}/see/${large.keys[0].token}`);
      await fetch(`${base}/feed/${large.keys[0].token}.ics`);
    });
    const writeHidden = async () => {
      for (let i = 0; i < 100; i++)
        await send('POST', `/calendars/${busy}/entries`, entry({ title: `Kept ${i}`, hold: 'keep-in' }));
    };
    const hidden = await phase(writeHidden);
    // A reader of the very window behind which it is written, who holds what it shows.
    const own = `${base}/feed/${large.keys[0].token}.ics`;
    const etag = (await fetch(own)).headers.get('etag')!;
    const held = { 'if-none-match': etag };
    const ownQuiet = await phase(wait, own, held);
    const ownHidden = await phase(writeHidden, own, held);
    const figure = (what: string, { polls, longest, usual }: Phase): Figure => ({
      what: `longest standstill of the thread that answers readers ${what}, of ${STANDSTILL} ms`,
      measured: `${longest.toFixed(1)} ms (99 % ${usual.toFixed(1)}); ${told(polls)}`,
      ratio: longest / STANDSTILL,
      budget: '≤ 1',
      kept: longest <= STANDSTILL,
    });
    return [
      figure('while nothing else is asked', quiet),
      figure('while hostile input is sent', hostile),
      figure('while 10,000 entries are written in two edits, and a window of them is read', many),
      figure('while 100 entries that nobody sees are written among them', hidden),
      figure('while nothing is written and that window itself is polled', ownQuiet),
      figure('while 100 more are written and that window itself is polled', ownHidden),
    ];
  } finally {
    server.kill();
    await once(server, 'exit');
  }
}
