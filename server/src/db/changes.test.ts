import { EMPTY_CONTENT } from '@zonal/core/entries';
import type { Sequelize } from 'sequelize';
import { expect, it, onTestFinished } from 'vitest';
import { TestClient, freshDatabase, testServer } from '../testing';
import { changeMaker } from './changes';
import { connect } from './connect';
import { readSnapshot } from './snapshot';

it('saves hundreds of changes that come at once, and answers each', async () => {
  const server = await testServer(await freshDatabase());
  onTestFinished(() => server.close());
  const client = new TestClient(server.base);
  await client.signIn();
  const place = { name: 'Quay', description: '', zone: 'UTC', plate: 'QU', colour: 'teal' };
  const calendar = (await client.call('POST', '/calendars', place)).body;
  const answers = await Promise.all(
    Array.from({ length: 300 }, (_, n) =>
      client.call('POST', `/calendars/${calendar.id}/entries`, {
        ...{ ...EMPTY_CONTENT, recurrence: null, overrides: [] },
        title: `Vessel ${n}`,
        start: { kind: 'date', date: '2026-06-12' },
        end: { kind: 'date', date: '2026-06-13' },
      }),
    ),
  );
  expect(answers.filter(({ status }) => status !== 201)).toEqual([]);
});

it('refuses what one account asks for beyond a bound, and nothing of others', async () => {
  const stuck = { transaction: () => new Promise(() => undefined) } as unknown as Sequelize;
  const change = changeMaker(stuck, () => Promise.resolve(null));
  const ask = (userId: string) => change(userId, () => Promise.reject(new Error('It never gets here.')));
  // One is under way, a thousand wait.
  for (let i = 0; i < 1001; i++) void ask('greedy');
  await expect(ask('greedy')).rejects.toMatchObject({ code: 'too-many-changes' });
  const other = await Promise.race([ask('modest'), Promise.resolve('waits')]);
  expect(other).toBe('waits');
});

it('reads a snapshot without holding anything that others wait for, and so without haste', async () => {
  const sequelize = connect(await freshDatabase());
  onTestFinished(() => sequelize.close());
  const idle = await readSnapshot(sequelize, async (transaction) => {
    const [rows] = await sequelize.query('SHOW idle_in_transaction_session_timeout', { transaction });
    return rows;
  });
  expect(idle).toEqual({ idle_in_transaction_session_timeout: '2min' });
  await expect(
    readSnapshot(sequelize, (transaction) => sequelize.query('CREATE TABLE t (a int)', { transaction })),
  ).rejects.toThrow('read-only');
  // The next one on the same connection is an ordinary one again.
  const [rows] = await sequelize.query('SHOW idle_in_transaction_session_timeout');
  expect(rows).toEqual({ idle_in_transaction_session_timeout: '10s' });
});
