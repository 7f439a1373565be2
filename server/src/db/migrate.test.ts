import { QueryTypes, type Sequelize } from 'sequelize';
import { afterEach, expect, it } from 'vitest';
import { freshDatabase } from '../testing';
import { connect } from './connect';
import { MIGRATIONS, migrate } from './migrate';
import * as first from './migrations/001-first';
import * as calendars from './migrations/002-calendars';
import * as windows from './migrations/003-windows';
import * as keysAndLabels from './migrations/004-keys-and-labels';
import * as rights from './migrations/013-rights';

let sequelize: Sequelize | null = null;
afterEach(() => sequelize?.close());

it('a filter that had lost a label before goes on showing less', async () => {
  sequelize = connect(await freshDatabase());
  await sequelize.transaction(async (t) => {
    for (const { up } of [first, calendars, windows]) await up(sequelize!, t);
  });
  await sequelize.query(`INSERT INTO labels (name) VALUES ('Works')`);
  const open = (slug: string, filter: object | null) =>
    sequelize!.query(
      `INSERT INTO windows (id, slug, name, settings, secret, listed, version, created_at, updated_at)
       VALUES (gen_random_uuid(), :slug, :slug, :settings, 'secret', false, 1, now(), now())`,
      { replacements: { slug, settings: JSON.stringify({ filter }) } },
    );
  await open('all', null);
  await open('known', { field: 'label', value: 'works' });
  await open('lost', {
    any: [{ not: { field: 'label', value: 'Tour' } }, { field: 'calendar', value: 'x' }],
  });
  await sequelize.transaction((t) => keysAndLabels.up(sequelize!, t));
  const rows = await sequelize.query('SELECT slug, lost_labels FROM windows ORDER BY slug', {
    type: QueryTypes.SELECT,
  });
  expect(rows).toEqual([
    { slug: 'all', lost_labels: [] },
    { slug: 'known', lost_labels: [] },
    { slug: 'lost', lost_labels: ['label:tour'] },
  ]);
});

it('whoever had an account before there were rights keeps what they could do, with the calendars that there were', async () => {
  sequelize = connect(await freshDatabase());
  const before = MIGRATIONS.slice(0, MIGRATIONS.indexOf(rights));
  await sequelize.transaction(async (t) => {
    for (const { up } of before) await up(sequelize!, t);
  });
  for (const [name, role] of [
    ['Ida', 'steward'],
    ['Jon', 'publisher'],
    ['Ebba', 'editor'],
  ])
    await sequelize.query(
      `INSERT INTO users (id, name, email, password_hash, role, created_at, updated_at)
       VALUES (gen_random_uuid(), :name, lower(:name), 'x', :role, now(), now())`,
      { replacements: { name, role } },
    );
  await sequelize.query(
    `INSERT INTO calendars (id, name, description, zone, plate, colour, version, created_at, updated_at)
     VALUES (gen_random_uuid(), 'Quay', '', 'UTC', 'QU', 'teal', 1, now(), now())`,
  );
  await sequelize.transaction((t) => rights.up(sequelize!, t));
  const rows = await sequelize.query(
    `SELECT u.name, u.role, s.standing, s.glass, c.house_glass FROM users u JOIN standings s ON s.user_id = u.id
     JOIN calendars c ON c.id = s.calendar_id ORDER BY u.name`,
    { type: QueryTypes.SELECT },
  );
  const kept = { standing: 'publisher', glass: null, house_glass: 'shut' };
  expect(rows).toEqual([
    { name: 'Ebba', role: 'member', ...kept },
    { name: 'Ida', role: 'steward', ...kept },
    { name: 'Jon', role: 'member', ...kept },
  ]);
});

it('several processes may bring the same tables up to date', async () => {
  const url = await freshDatabase();
  const many = Array.from({ length: 3 }, () => connect(url));
  await Promise.all(many.map(migrate));
  const done = await many[0]!.query('SELECT name FROM migrations ORDER BY name', { type: QueryTypes.SELECT });
  expect(done).toEqual(MIGRATIONS.map(({ name }) => ({ name })));
  await Promise.all(many.map((one) => one.close()));
});

it('a migration that is broken off leaves nothing behind, and is done whole the next time', async () => {
  const url = await freshDatabase();
  sequelize = connect(url);
  await migrate(sequelize);
  const last = MIGRATIONS.at(-1)!;
  await sequelize.query(`DELETE FROM migrations WHERE name = '${last.name}'`);
  // What it would do stands there already, so it fails in its middle.
  await expect(migrate(sequelize)).rejects.toThrow();
  const names = await sequelize.query('SELECT name FROM migrations', { type: QueryTypes.SELECT });
  expect(names).toHaveLength(MIGRATIONS.length - 1);
  await sequelize.query('DROP SCHEMA public CASCADE; CREATE SCHEMA public');
  await migrate(sequelize);
  expect(await sequelize.query('SELECT name FROM migrations', { type: QueryTypes.SELECT })).toHaveLength(
    MIGRATIONS.length,
  );
});

it('tables of a newer program are refused with a sentence', async () => {
  sequelize = connect(await freshDatabase());
  await migrate(sequelize);
  await sequelize.query(`INSERT INTO migrations (name) VALUES ('999-from-the-future')`);
  await expect(migrate(sequelize)).rejects.toThrow(
    'brought up to date by a newer program (999-from-the-future)',
  );
});
