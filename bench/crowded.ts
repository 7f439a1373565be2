import { EMPTY_CONTENT } from '@zonal/core/entries';
import { TestClient, windowInput } from '@zonal/server/testing';
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Figure } from './figure';

const ACCOUNT = { name: 'Ida', email: 'ida@ostrel.example', password: 'tide-and-time', role: 'steward' };
const [READERS, SECONDS, ENTRIES, ROUNDS] = [48, 60, 2_000, 12];

function entryOn(day: number, title: string) {
  const date = new Date(Date.now() + day * 86_400_000).toISOString().slice(0, 10);
  const at = (hour: number) => ({ kind: 'zoned', at: `${date}T${hour}:00:00`, zone: 'America/Halifax' });
  return { ...EMPTY_CONTENT, title, start: at(10), end: at(11), recurrence: null, overrides: [] };
}

const median = (times: readonly number[]) => times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)]!;

/** Measures how long an organiser waits for an edit and for a withdrawal, alone and while readers of a page search it. */
export async function crowdedFigures(env: NodeJS.ProcessEnv): Promise<Figure[]> {
  await once(fork(env['SEED_MAIN']!, { env: { ...env, DEMO_ACCOUNTS: JSON.stringify([ACCOUNT]) } }), 'exit');
  const server = fork(env['SERVER_MAIN']!, { env });
  await once(server, 'message');
  const folder = mkdtempSync(join(tmpdir(), 'crowded-'));
  try {
    const client = new TestClient(`http://127.0.0.1:${env['PORT']}`);
    await client.signIn(ACCOUNT.password, ACCOUNT.email);
    const send = async (method: string, path: string, body: object = {}) => {
      const answer = await client.call(method, path, body);
      if (answer.status >= 400) throw new Error(`${path}: ${answer.status} ${JSON.stringify(answer.body)}`);
      return answer.body;
    };
    const input = { name: 'Bridge', description: '', zone: 'America/Halifax', plate: 'BR', colour: 'teal' };
    const { id: calendarId } = await send('POST', '/calendars', input);
    const edit = await send('POST', '/edits', { label: 'Many', staged: true, changes: [] });
    for (let i = 0; i < ENTRIES; i += 500) {
      const changes = Array.from({ length: 500 }, (_, n) => ({
        version: 0,
        calendarId,
        entry: entryOn((i + n) % 300, `Vessel ${i + n}`),
      }));
      await send('POST', `/edits/${edit.id}/changes`, { changes });
    }
    await send('POST', `/edits/${edit.id}/apply`);
    const opened = await send(
      'POST',
      '/windows',
      windowInput(calendarId, 'clear', { name: 'Bridge', listed: true }),
    );
    let serial = 0;
    const timed = async (work: () => Promise<unknown>) => {
      const began = performance.now();
      await work();
      return performance.now() - began;
    };
    const measure = async () => {
      const [edits, withdrawals]: [number[], number[]] = [[], []];
      for (let i = 0; i < ROUNDS; i++) {
        const written = entryOn(3, `Added ${serial++}`);
        edits.push(await timed(() => send('POST', `/calendars/${calendarId}/entries`, written)));
        const key = { madeOutTo: `Reader ${serial}`, audience: 'street', contact: '', notes: '' };
        const issued = await send('POST', `/windows/${opened.id}/keys`, {
          ...{ ...key, cap: null, expiresAt: null },
          confirmed: ['sensitive-on-street', 'first-listed', 'most-vanishes'],
        });
        const { id } = issued.keys.at(-1);
        withdrawals.push(await timed(() => send('POST', `/keys/${id}/withdraw`)));
      }
      return { edit: median(edits), withdrawal: median(withdrawals) };
    };
    await measure();
    const quiet = await measure();
    const file = join(folder, 'searches.json');
    const searches = Array.from({ length: 5_000 }, (_, n) => ({
      path: `/see/${opened.slug}?find=vessel+${n}`,
      tag: '',
    }));
    writeFileSync(file, JSON.stringify(searches));
    const args = [env['PORT']!, file, READERS, SECONDS, 0].map(String);
    const readers = fork(fileURLToPath(new URL('mixed.js', import.meta.url)), args);
    const done = once(readers, 'message');
    await new Promise((resolve) => setTimeout(resolve, 2_000));
    const crowded = await measure();
    readers.kill();
    await Promise.race([done, once(readers, 'exit')]);
    const figure = (what: 'edit' | 'withdrawal'): Figure => ({
      what: `an answer to ${what === 'edit' ? 'an edit' : 'a withdrawal'} while ${READERS} readers search a page, against a quiet server`,
      measured: `${crowded[what].toFixed(0)} ms against ${quiet[what].toFixed(0)} ms`,
      ratio: crowded[what] / quiet[what],
      budget: '≤ 2',
      kept: crowded[what] <= 2 * quiet[what],
    });
    return [figure('edit'), figure('withdrawal')];
  } finally {
    rmSync(folder, { recursive: true });
    server.kill();
    await once(server, 'exit');
  }
}
