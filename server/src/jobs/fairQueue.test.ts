import { expect, it } from 'vitest';
import { FairQueue } from './fairQueue';

it('takes lanes in turn, and refuses what one lane has too much of', async () => {
  const queue = new FairQueue({ maxWaiting: 3 });
  const done: string[] = [];
  const task = (name: string) => () => Promise.resolve(void done.push(name));
  // The first is started at once, so three more may wait.
  const greedy = [1, 2, 3, 4].map((n) => queue.add('greedy', task(`greedy ${n}`)));
  expect(queue.add('greedy', task('greedy 5'))).toBeNull();
  const modest = queue.add('modest', task('modest'));
  await Promise.all([...greedy, modest]);
  expect(done).toEqual(['greedy 1', 'greedy 2', 'modest', 'greedy 3', 'greedy 4']);
});

it('runs one task at a time, also after one has failed', async () => {
  const queue = new FairQueue({ maxWaiting: 10 });
  let [running, most] = [0, 0];
  const task = (fails: boolean) => async () => {
    most = Math.max(most, ++running);
    await Promise.resolve();
    running--;
    if (fails) throw new Error('No');
    return 'yes';
  };
  const results = ['a', 'b', 'a', 'b', 'c'].map((lane, n) => queue.add(lane, task(n === 1)));
  const settled = await Promise.allSettled(results);
  expect(settled.map((s) => s.status)).toEqual([
    'fulfilled',
    'rejected',
    'fulfilled',
    'fulfilled',
    'fulfilled',
  ]);
  expect(most).toBe(1);
});
