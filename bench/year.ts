import { USUAL_KEPT_DAYS, habitAfter, packPolls } from '@zonal/core/reach';
import { DAY, HOUR } from '@zonal/core/zones';
import { connect } from '@zonal/server/db/connect';
import { rollUp } from '@zonal/server/reach/rollUp';
import { QueryTypes } from 'sequelize';
import type { Figure } from './figure';
import { once } from 'node:events';
import { TestClient } from '@zonal/server/testing';
import { EMAIL, PASSWORD, fill, prepare, started } from './store';

/** So many look every hour for a year, by keys of so many windows. */
const [SUBSCRIBERS, WINDOWS, KEYS] = [50_000, 50, 10];
/** What a year of them may take, in megabytes; said in docs/sync.md. */
const MOST = 700;

/** Measures what the store takes for a year of 50,000 subscribers who look every hour, once old polls are summed up. */
export async function yearFigures(env: NodeJS.ProcessEnv): Promise<Figure[]> {
  const sequelize = connect(env['DATABASE_URL']!, { patient: true });
  try {
    await prepare(sequelize);
    const calendar = await fill(sequelize, 1, WINDOWS, KEYS);
    const own = await sequelize.query<{ id: string; window: string }>(
      `SELECT k.id, k.window_id AS window FROM keys k JOIN window_sources s USING (window_id) WHERE s.calendar_id = :calendar`,
      { replacements: { calendar }, type: QueryTypes.SELECT },
    );
    const keys = own.map((k) => k.id);
    const now = Math.floor(Date.now() / DAY) * DAY;
    // A month of looks says what a habit looks like: it stays as large.
    const looks = Array.from({ length: 24 * 40 }, (_, i) => now - i * HOUR - (i % 7) * 9_000).reverse();
    const habit = habitAfter(null, looks);
    const polls = packPolls(
      Array.from({ length: 24 }, (_, i) => ({
        at: now + i * HOUR,
        form: 'feed',
        had: 300,
        has: 300 + (i ? 0 : 1),
      })),
    );
    const replacements = {
      keys: `{${keys.join(',')}}`,
      habit: JSON.stringify(habit),
      polls: Buffer.from(polls).toString('hex'),
      today: new Date(now),
      // One day more than is kept: that is summed up as it is every night.
      days: USUAL_KEPT_DAYS + 1,
      year: 365,
    };
    await sequelize.query(
      `INSERT INTO subscribers (place, key_id, window_id, week, reader, readers, form, view_id, revision, last_at, habit)
       SELECT k.id, k.id, k.window_id, '2026-01-05', decode(md5(n::text), 'hex'), 1, 0, k.window_id || '|street|', 300, :today, :habit
       FROM generate_series(1, ${SUBSCRIBERS}) n
       JOIN keys k ON k.id = (CAST(:keys AS uuid[]))[1 + n % ${keys.length}]`,
      { replacements },
    );
    await sequelize.query(
      `INSERT INTO polls (subscriber_id, day, polls)
       SELECT s.id, (CAST(:today AS date) - d), decode(:polls, 'hex') FROM subscribers s CROSS JOIN generate_series(0, :days) d
       WHERE s.place = ANY (CAST(:keys AS uuid[]))`,
      { replacements },
    );
    await sequelize.query(
      `INSERT INTO poll_sums (place, key_id, window_id, day, form, polls, subscribers)
       SELECT k.id, k.id, k.window_id, (CAST(:today AS date) - d), 0, 2400, 100 FROM keys k
       CROSS JOIN generate_series(:days + 1, :year) d WHERE k.id = ANY (CAST(:keys AS uuid[]))`,
      { replacements },
    );
    const began = performance.now();
    await rollUp(sequelize, now + HOUR);
    const took = performance.now() - began;
    await sequelize.query('VACUUM FULL subscribers, polls, poll_sums');
    const [size] = await sequelize.query<Record<'subscribers' | 'polls' | 'sums' | 'kept', string>>(
      `SELECT pg_total_relation_size('subscribers') AS subscribers, pg_total_relation_size('polls') AS polls,
         pg_total_relation_size('poll_sums') AS sums, (SELECT count(*) FROM polls) AS kept`,
      { type: QueryTypes.SELECT },
    );
    const mega = (bytes: string) => Number(bytes) / 1e6;
    const all = mega(size!.subscribers) + mega(size!.polls) + mega(size!.sums);
    const reach = await reachTimes(env, new Set(own.map((k) => k.window)));
    return [
      {
        what: `a year of ${SUBSCRIBERS} subscribers who look every hour, in hundreds of megabytes`,
        measured: `${Math.round(all)} MB: ${Math.round(mega(size!.polls))} for ${size!.kept} days of single polls (${USUAL_KEPT_DAYS} kept), ${Math.round(mega(size!.subscribers))} for habits, ${Math.round(mega(size!.sums))} for sums; the nightly sums took ${(took / 1000).toFixed(1)} s`,
        ratio: all / 100,
        budget: `≤ ${MOST / 100}`,
        kept: all <= MOST,
      },
      {
        what: `all of Reach with ${SUBSCRIBERS} subscribers of ${WINDOWS} windows, in seconds`,
        measured: `${Math.round(reach.all)} ms, then kept for ten times as long; one window with ${SUBSCRIBERS / WINDOWS} subscribers ${Math.round(reach.one)} ms; meanwhile the slowest of ${reach.polls} polls ${Math.round(reach.slowest)} ms`,
        ratio: reach.all / 1000,
        budget: '≤ 15',
        kept: reach.all <= 15_000,
      },
    ];
  } finally {
    await sequelize.close();
  }
}

/** How long it takes until Reach is answered, and the longest that somebody who polls waits meanwhile; milliseconds. */
async function reachTimes(env: NodeJS.ProcessEnv, windows: ReadonlySet<string>) {
  const base = `http://127.0.0.1:${env['PORT']}`;
  const { server, ready } = await started(env);
  try {
    await ready;
    const client = new TestClient(base);
    await client.signIn(PASSWORD, EMAIL);
    const timed = async (path: string) => {
      const began = performance.now();
      const { status, body } = await client.call('GET', path);
      if (status !== 200) throw new Error(`${path} answers ${status}: ${JSON.stringify(body)}`);
      return { took: performance.now() - began, body };
    };
    let [asking, polls, slowest] = [true, 0, 0];
    const polling = (async () => {
      while (asking) {
        const began = performance.now();
        await (await fetch(`${base}/livez`)).text();
        slowest = Math.max(slowest, performance.now() - began);
        polls++;
        await new Promise((resolve) => setTimeout(resolve, 5));
      }
    })();
    const all = await timed('/reach');
    const lines = (all.body.windows as { id: string; readers: number }[]).filter((l) => windows.has(l.id));
    const readers = lines.reduce((sum, line) => sum + line.readers, 0);
    if (readers !== SUBSCRIBERS) throw new Error(`Reach tells of ${readers} readers.`);
    const one = await timed(`/windows/${lines[0]!.id}/reach`);
    asking = false;
    await polling;
    return { all: all.took, one: one.took, polls, slowest };
  } finally {
    server.kill();
    await once(server, 'exit');
  }
}
