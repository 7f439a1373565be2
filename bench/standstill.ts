import { EMPTY_CONTENT } from '@zonal/core/entries';
import { TestClient, windowInput } from '@zonal/server/testing';
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { Agent, request } from 'node:http';
import type { Figure } from './main';

const ACCOUNT = { name: 'Ida', email: 'ida@ostrel.example', password: 'tide-and-time', role: 'steward' };
/** The thread that answers polls may stand still for so many milliseconds. */
const STANDSTILL = 50;

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

/** Polls a feed again and again, and returns how long each answer took, in milliseconds. */
async function pollsDuring(url: string, act: () => Promise<void>): Promise<number[]> {
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  const took: number[] = [];
  let done = false;
  const poll = () =>
    new Promise<void>((resolve, reject) => {
      const began = performance.now();
      request(url, { agent }, (res) => {
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
  `median ${at(sorted, 0.5).toFixed(1)}, 99 % ${at(sorted, 0.99).toFixed(1)}, longest ${at(sorted, 1).toFixed(1)} ms`;

/** Measures how long polls of a small feed wait while hostile input is sent, and while what nobody sees is edited. */
export async function standstillFigures(env: NodeJS.ProcessEnv): Promise<Figure[]> {
  await once(fork(env['SEED_MAIN']!, { env: { ...env, DEMO_ACCOUNTS: JSON.stringify([ACCOUNT]) } }), 'exit');
  const server = fork(env['SERVER_MAIN']!, { env });
  await once(server, 'message');
  try {
    const base = `http://127.0.0.1:${env['PORT']}`;
    const client = new TestClient(base);
    await client.signIn(ACCOUNT.password, ACCOUNT.email);
    const calendar = async (name: string) =>
      (
        await client.call('POST', '/calendars', {
          name,
          description: '',
          zone: 'America/Halifax',
          plate: 'BB',
          colour: 'teal',
        })
      ).body.id as string;
    const shown = await calendar('Shown elsewhere');
    const { keys } = (await client.call('POST', '/windows', windowInput(shown, 'clear', { name: 'Small' })))
      .body;
    const busy = await calendar('Written to');
    await client.call('POST', '/windows', windowInput(busy, 'clear', { name: 'Large' }));
    const feed = `${base}/feed/${keys[0].token}.ics`;
    const quiet = await pollsDuring(feed, () => new Promise((resolve) => setTimeout(resolve, 3000)));
    const hostile = await pollsDuring(feed, async () => {
      for (const one of HOSTILE) await client.call('POST', `/calendars/${busy}/entries`, one);
      const nested = {
        all: Array.from({ length: 26 }, (_, i) => ({
          any: [
            { field: 'label', value: `a${i}` },
            { field: 'label', value: `b${i}` },
          ],
        })),
      };
      await client.call('POST', '/windows', windowInput(busy, 'clear', { name: 'Nested', filter: nested }));
    });
    const hidden = await pollsDuring(feed, async () => {
      for (let i = 0; i < 60; i++)
        await client.call(
          'POST',
          `/calendars/${busy}/entries`,
          entry({ title: `Kept ${i}`, hold: 'keep-in' }),
        );
    });
    const longest = at(hostile, 1);
    return [
      {
        what: 'longest wait of a poll of a small feed while hostile input is sent, of 50 ms',
        measured: `${told(hostile)}; with nothing else ${told(quiet)}; while 60 entries that nobody sees are written ${told(hidden)}`,
        ratio: longest / STANDSTILL,
        budget: '≤ 1',
        kept: longest <= STANDSTILL,
      },
    ];
  } finally {
    server.kill();
    await once(server, 'exit');
  }
}
