import { expect, it } from 'vitest';
import { unconfirmedIn, unconfirmedSlice, unconfirmedChanged, unconfirmedWords } from './unconfirmedSlice';

it('reads what a server says of others, and says it in a sentence', () => {
  const until = '2026-06-10T14:32:00.000Z';
  const told = unconfirmedIn(`servers=1; until=${until}`);
  expect(told).toEqual({ servers: 1, until });
  expect(unconfirmedWords(told!)).toMatch(
    /^Saved\. One server has not confirmed it yet .* until \d\d:32 at the latest\.$/,
  );
  expect(unconfirmedWords({ servers: 2, until })).toContain('2 servers have not confirmed');
  for (const odd of [null, '', 'servers=x; until=y', 'until=now']) expect(unconfirmedIn(odd)).toBeNull();
});

it('is forgotten with the next change that is confirmed', () => {
  const { reducer } = unconfirmedSlice;
  const some = reducer(null, unconfirmedChanged({ servers: 1, until: '' }));
  expect(some).not.toBeNull();
  expect(reducer(some, unconfirmedChanged(null))).toBeNull();
});
