import { EMPTY_CONTENT } from '@zonal/core/entries';
import { connect } from '@zonal/server/db/connect';
import { TestClient } from '@zonal/server/testing';
import { fork, spawnSync, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { QueryTypes } from 'sequelize';
import type { Figure } from './figure';
import { statementsOf } from './statements';
import { EMAIL, PASSWORD, answered, fill, prepare, started } from './store';

const [WINDOWS, KEYS] = [1_000, 50];
/** Keys of each window that are polled, how many in a hundred hold what is new, for so many seconds on so many connections. */
const [POLLED, HELD, SECONDS, CONNECTIONS] = [2, 0.8, 6, 32];

interface Load {
  readonly answers: number;
  readonly p50: number;
  readonly p99: number;
  readonly all: number;
}

/** Polls at random from another process. */
async function polled(port: number, file: string): Promise<Load> {
  const args = [port, file, CONNECTIONS, SECONDS, HELD].map(String);
  const client = fork(fileURLToPath(new URL('mixed.js', import.meta.url)), args);
  const [load] = (await Promise.race([
    once(client, 'message'),
    once(client, 'exit').then(() => Promise.reject(new Error('The load met an error.'))),
  ])) as [Load];
  return load;
}

/** Megabytes that a process takes. */
function memoryOf({ pid }: ChildProcess): number {
  return Number(spawnSync('ps', ['-o', 'rss=', '-p', String(pid)], { encoding: 'utf8' }).stdout) / 1024;
}

/** Measures the poll path of a house with 1,000 windows and 50,000 keys, counting on, with edits beside it. */
export async function loadFigures(env: NodeJS.ProcessEnv): Promise<Figure[]> {
  const sequelize = connect(env['DATABASE_URL']!, { patient: true });
  const port = Number(env['PORT']);
  const base = `http://127.0.0.1:${port}`;
  await prepare(sequelize);
  const calendar = await fill(sequelize, 40, WINDOWS - 20, KEYS);
  const edited = await fill(sequelize, 40, 20, KEYS);
  const rows = await sequelize.query<{ token: string }>(
    `SELECT token FROM (
       SELECT k.token, row_number() OVER (PARTITION BY k.window_id ORDER BY k.id) AS n FROM keys k
       JOIN window_sources s USING (window_id) WHERE s.calendar_id IN (:calendar, :edited)
     ) AS ranked WHERE n <= ${POLLED}`,
    { replacements: { calendar, edited }, type: QueryTypes.SELECT },
  );
  const first = rows[0]!.token;
  const folder = mkdtempSync(join(tmpdir(), 'bench-'));
  const file = join(folder, 'asked.json');
  // The first start seals the keys, and works out what was never worked out.
  const early = await started(env);
  await answered(`${base}/feed/${first}.ics`);
  await early.ready;
  early.server.kill();
  await once(early.server, 'exit');

  const { server, ready, began } = await started(env);
  try {
    await answered(`${base}/feed/${first}.ics`);
    const startTook = performance.now() - began;
    await ready;
    const bare = memoryOf(server);
    const documents = new Map<string, { tag: string; headers: Headers; body: Buffer }>();
    const asked: { path: string; tag: string }[] = [];
    for (const { token } of rows) {
      const path = `/feed/${token}.ics`;
      await answered(`${base}${path}`);
      const answer = await fetch(base + path, { headers: { 'accept-encoding': 'gzip' } });
      const tag = answer.headers.get('etag')!;
      documents.set(path, { tag, headers: answer.headers, body: Buffer.from(await answer.arrayBuffer()) });
      asked.push({ path, tag });
    }
    writeFileSync(file, JSON.stringify(asked));
    const full = memoryOf(server);

    const reference = createServer((req, res) => {
      const { tag, headers, body } = documents.get(req.url!)!;
      const held = req.headers['if-none-match'] === tag;
      res.writeHead(held ? 304 : 200, {
        etag: tag,
        vary: headers.get('vary')!,
        'cache-control': 'public, no-cache',
      });
      res.end(held ? undefined : body);
    });
    await new Promise<void>((resolve) => reference.listen(0, '127.0.0.1', resolve));
    const away = (reference.address() as AddressInfo).port;
    const [a, b] = [await polled(away, file), await polled(port, file)];
    const [c, d] = [await polled(port, file), await polled(away, file)];
    reference.close();
    const ratio = (b.answers + c.answers) / (a.answers + d.answers);

    let noted = 0;
    const statements = await statementsOf(sequelize, env['STORE_LOG']!, async () => {
      noted = (await polled(port, file)).answers * SECONDS;
    });
    const each = (100 * statements) / noted;

    const client = new TestClient(base);
    await client.signIn(PASSWORD, EMAIL);
    let [editing, edits] = [true, 0];
    const editor = (async () => {
      const when = (hour: number) => ({ kind: 'floating', at: `2027-01-0${1 + (edits % 9)}T${hour}:00:00` });
      while (editing) {
        const times = { start: when(10), end: when(11), recurrence: null, overrides: [] };
        const entry = { ...EMPTY_CONTENT, title: `Edit ${edits++}`, ...times };
        const answer = await client.call('POST', `/calendars/${edited}/entries`, entry);
        if (answer.status >= 500) throw new Error(JSON.stringify(answer.body));
        await new Promise((resolve) => setTimeout(resolve, 200));
      }
    })();
    const busy = await polled(port, file);
    editing = false;
    await editor;
    const told = ({ answers, p50, p99, all }: Load) =>
      `${Math.round(answers)} a second, half within ${p50.toFixed(1)}, 99 % ${p99.toFixed(1)}, all ${all.toFixed(0)} ms`;
    return [
      {
        what: `polls of ${rows.length} keys of ${WINDOWS} windows, four in five told that nothing is new, against bare node:http`,
        measured: `${told(b)}; bare ${told(a)}; ${WINDOWS * KEYS} keys in the store, counting on`,
        ratio,
        budget: '≥ 0.9',
        kept: ratio >= 0.9,
      },
      {
        what: 'statements that write what polls say, for each hundred polls',
        measured: `${statements} for ${noted} polls, by the log of the database`,
        ratio: each,
        budget: '≤ 1',
        // None at all would mean that nothing was counted.
        kept: statements > 0 && each <= 1,
      },
      {
        what: `the slowest of a hundred polls while entries are written, against without`,
        measured: `${told(busy)}; ${edits} edits in a calendar behind 20 windows`,
        ratio: busy.p99 / c.p99,
        budget: '≤ 5',
        kept: busy.p99 / c.p99 <= 5,
      },
      {
        what: `start to the first answer with ${WINDOWS} windows and ${WINDOWS * KEYS} keys, in seconds`,
        measured: `${Math.round(startTook)} ms; ${Math.round(bare)} MB then, ${Math.round(full)} MB with all windows fetched: ${(((full - bare) * 1024) / WINDOWS).toFixed(0)} kB a window with ${POLLED} keys polled`,
        ratio: startTook / 1000,
        budget: '≤ 10',
        kept: startTook <= 10_000,
      },
    ];
  } finally {
    if (server.exitCode === null) {
      server.kill();
      await once(server, 'exit');
    }
    await sequelize.close();
    rmSync(folder, { recursive: true, force: true });
  }
}
