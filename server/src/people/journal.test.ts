import type { CallName } from '@zonal/core/api';
import { DEMANDS } from '@zonal/core/glass';
import { JOURNAL_KINDS } from '@zonal/core/journal';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { UserRow } from '../db/models';
import { colleague, makeTo, quayServer, windowInput } from '../testing';

let quay: Awaited<ReturnType<typeof quayServer>>;
beforeAll(async () => {
  quay = await quayServer();
});
afterAll(() => quay.server.close());

const journal = async (query = '') => (await quay.client.call('GET', `/journal${query}`)).body;
/** Returns what is noted while something is done, oldest first, as it is read. */
async function noted(work: () => Promise<unknown>) {
  const last = (await journal()).lines[0]?.id ?? 0;
  await work();
  const { lines } = await journal();
  return lines
    .filter((l: any) => l.id > last)
    .reverse()
    .map((l: any) => ({
      said: [l.kind, l.turn, l.about].join(' | '),
      by: l.by,
      changes: Object.fromEntries(l.changes.map((c: any) => [c.what, `${c.from} → ${c.to}`])),
    }));
}
const call = (name: CallName | string, body?: unknown) => {
  const [method, path] = name.split(' ') as [string, string];
  return quay.client.call(method, path, body);
};

describe('the journal', () => {
  it('notes who changed the people of a calendar, from what to what; who stays as they were is not noted', async () => {
    const { id } = await colleague(quay.server.base, 'Per');
    const [ida] = await UserRow.findAll({ where: { role: 'steward' } });
    const people = (glass: string | null, standing = 'reader') => [
      { userId: ida!.id, standing: 'publisher', glass: null },
      { userId: id, standing, glass },
    ];
    const put = (list: object[], version: number, houseGlass = 'shut') =>
      call(`PUT /calendars/${quay.calendarId}/people`, {
        people: list,
        houseGlass,
        known: false,
        labelHolds: [],
        version,
      });
    expect(await noted(() => put(people('tinted'), 1))).toEqual([
      {
        said: 'standings | made | Per · Quay',
        by: 'Ida',
        changes: { right: '– → reader', glass: '– → tinted' },
      },
    ]);
    expect(await noted(() => put(people('frosted'), 2, 'frosted'))).toEqual([
      { said: 'calendars | changed | Quay', by: 'Ida', changes: { 'glass for the House': 'shut → frosted' } },
      { said: 'standings | changed | Per · Quay', by: 'Ida', changes: { glass: 'tinted → frosted' } },
    ]);
    expect(await noted(() => put(people('frosted').slice(0, 1), 3, 'frosted'))).toEqual([
      {
        said: 'standings | gone | Per · Quay',
        by: 'Ida',
        changes: { right: 'reader → –', glass: 'frosted → –' },
      },
    ]);
  });

  it('notes windows, keys, ceilings, accounts and the house', async () => {
    const input = windowInput(quay.calendarId, 'tinted', { name: 'On the quay' });
    let window: any;
    const opened = await noted(async () => (window = (await call('POST /windows', input)).body));
    expect(opened.map((l: any) => l.said).sort()).toEqual([
      expect.stringMatching(/^keys \| made \| .* · On the quay$/),
      'window_sources | made | Quay · On the quay',
      'windows | made | On the quay',
    ]);
    const changed = {
      ...input,
      version: 1,
      busyWord: 'Booked',
      sources: [{ ...input.sources[0], glass: 'frosted' }],
    };
    expect(await noted(() => call(`PUT /windows/${window.id}`, changed))).toEqual([
      {
        said: 'windows | changed | On the quay',
        by: 'Ida',
        changes: { 'word for busy time': 'Taken → Booked' },
      },
      {
        said: 'window_sources | changed | Quay · On the quay',
        by: 'Ida',
        changes: { glass: 'tinted → frosted' },
      },
    ]);
    const key = window.keys[0];
    const [turned] = await noted(() => call(`POST /keys/${key.id}/turn`, { graceDays: 3 }));
    expect(turned.said).toBe(`turned_tokens | made | ${key.madeOutTo}`);
    const [withdrawn] = await noted(() => call(`POST /keys/${key.id}/withdraw`));
    expect(withdrawn).toMatchObject({ said: `keys | changed | ${key.madeOutTo} · On the quay` });
    expect(withdrawn.changes.withdrawn).toMatch(/^– → \d{4}-.* UTC$/);
    const ceiling = {
      calendarId: quay.calendarId,
      audience: 'street',
      confirmed: [...DEMANDS],
    };
    await call('PUT /ceilings', { ...ceiling, glass: 'clear' });
    expect(await noted(() => call('PUT /ceilings', { ...ceiling, glass: 'tinted' }))).toEqual([
      { said: 'ceilings | changed | Street · Quay', by: 'Ida', changes: { glass: 'clear → tinted' } },
    ]);
    const house = (await call('GET /house')).body;
    expect(await noted(() => call('PUT /house', { ...house, watchWords: ['salary'] }))).toEqual([
      { said: 'house | changed | ', by: 'Ida', changes: { 'sensitive words': '– → salary' } },
    ]);
    const jon = await colleague(quay.server.base, 'Jon');
    const [rested] = await noted(() => call(`PUT /people/${jon.id}/rest`, { rested: true }));
    expect([rested.said, rested.by]).toEqual(['users | changed | Jon', 'Ida']);
    await call(`PUT /people/${jon.id}/rest`, { rested: false });
    await jon.client.signIn(undefined, jon.email);
    const own = { password: 'tide-and-time', next: 'another of my own' };
    const [password] = await noted(() => jon.client.call('PUT', '/account/password', own));
    expect([password.said, password.by, Object.keys(password.changes)]).toEqual([
      'users | changed | Jon',
      'Jon',
      ['password changed'],
    ]);
    // What is refused is not noted, and nothing that says nothing.
    expect(await noted(() => call(`PUT /windows/${window.id}`, { ...changed, version: 1 }))).toEqual([]);
    expect(await noted(() => call('PUT /house', { ...house, watchWords: ['salary'], version: 2 }))).toEqual(
      [],
    );
  });

  it('keeps names of what is gone, and tells no secret', async () => {
    const { body } = await call('POST /calendars', {
      ...{ name: 'Short-lived', plate: 'SL', colour: 'teal', zone: 'UTC', description: '' },
    });
    const { id } = await colleague(quay.server.base, 'Mara');
    await makeTo(body.id, id, 'editor');
    await call(`DELETE /calendars/${body.id}`);
    const { lines } = await journal(`?about=${body.id}`);
    expect(lines.map((l: any) => l.about)).toContain('Mara · Short-lived');
    expect(lines.filter((l: any) => l.turn === 'gone').map((l: any) => l.about)).toContain('Short-lived');
    const [rows] = await UserRow.sequelize!.query('SELECT json_agg(j)::text AS all FROM journal j');
    const [secrets] = (await UserRow.sequelize!.query(
      `SELECT token AS secret FROM keys UNION SELECT secret FROM windows UNION SELECT password_hash FROM users
       UNION SELECT token FROM turned_tokens`,
    )) as any;
    expect(secrets.length).toBeGreaterThan(3);
    for (const { secret } of secrets) expect(JSON.stringify(rows)).not.toContain(secret);
  });

  it('is filtered by area, person and time, page by page', async () => {
    const { lines, people } = await journal('?area=ceilings');
    expect(new Set(lines.map((l: any) => l.area))).toEqual(new Set(['ceilings']));
    const jon = people.find((p: any) => p.name === 'Jon');
    expect((await journal(`?by=${jon.id}`)).lines.map((l: any) => l.by)).toEqual(['Jon']);
    expect((await journal('?by=nobody')).lines).toEqual([]);
    expect((await journal('?to=2001-01-01T00:00:00Z')).lines).toEqual([]);
    expect((await journal('?from=yesterday')).code).toBe('time-invalid');
    for (let n = 0; n < 130; n++)
      await UserRow.sequelize!.query(
        `UPDATE calendars SET known = NOT known WHERE id = '${quay.calendarId}'`,
      );
    const first = await journal('?area=calendars');
    expect([first.lines.length, first.more]).toEqual([100, true]);
    const rest = await journal(`?area=calendars&before=${first.lines.at(-1).id}`);
    expect(rest.lines[0].id).toBeLessThan(first.lines.at(-1).id);
  });

  it('cannot be changed, by whatever route or statement', async () => {
    const said = (statement: string) => UserRow.sequelize!.query(statement);
    await expect(said(`UPDATE journal SET user_name = 'Nobody'`)).rejects.toThrow(
      /the journal is not changed/,
    );
    await expect(said('DELETE FROM journal')).rejects.toThrow(/the journal is not changed/);
    await expect(said('TRUNCATE journal')).rejects.toThrow(/the journal is not changed/);
  });

  it('has a line for every table that decides who sees or may do something', async () => {
    const [tables] = (await UserRow.sequelize!.query(
      `SELECT table_name AS name FROM information_schema.tables WHERE table_schema = 'public' AND table_type = 'BASE TABLE'`,
    )) as any;
    const plain = [
      // What is in calendars has its own history, that of windows too.
      ...[
        'entries',
        'edits',
        'edit_entries',
        'labels',
        'ceiling_requests',
        'window_drafts',
        'window_versions',
      ],
      // What is worked out, or counted.
      ...[
        'views',
        'view_items',
        'view_gone',
        'ledger',
        'changes',
        'done_changes',
        'key_uses',
        'key_readers',
        'subscribers',
        'polls',
        'poll_sums',
        'spreads',
        'reader_salts',
        'forecasts',
        'alerts',
        'urgent_changes',
        'untold',
        'push_tries',
      ],
      // What people have for themselves, and what is on its way.
      ...[
        'session',
        'passes',
        'mails',
        'notices',
        'off_desk',
        'alert_mutes',
        'migrations',
        'journal',
        'processes',
        'moved_keys',
        'sign_in_tries',
        'calendar_labels',
        'images',
      ],
    ];
    const left = tables
      .map((t: any) => t.name)
      .filter((n: string) => !plain.includes(n) && !(n in JOURNAL_KINDS));
    expect(left, 'tables that are neither noted nor named here').toEqual([]);
  });
});
