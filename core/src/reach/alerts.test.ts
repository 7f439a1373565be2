import { expect, it } from 'vitest';
import { alertsOf, type Watched } from './alerts';

const quiet: Watched = { name: 'Works', trouble: null, keys: [], urgent: null };
const key = { id: 'k', madeOutTo: 'Agents', silent: 0, pushFailing: false, passedOn: null };
const kinds = (watched: Partial<Watched>, now = 100) =>
  alertsOf({ ...quiet, ...watched }, now).map((r) => r.kind);

it('says nothing where all is well', () => {
  expect(kinds({ keys: [key], urgent: { by: 200, readers: 10, holding: 2, expected: 9 } })).toEqual([]);
  expect(kinds({ urgent: { by: 50, readers: 10, holding: 10, expected: 10 } })).toEqual([]);
  expect(kinds({ urgent: { by: 50, readers: 0, holding: 0, expected: 0 } })).toEqual([]);
});

it('tells of what cannot be worked out, who is silent, what was passed on, and who is late', () => {
  expect(kinds({ trouble: 'a rule is too long.' })).toEqual(['feed-failing']);
  const [silent, shared] = alertsOf(
    { ...quiet, keys: [{ ...key, silent: 1, passedOn: { readers: 40, meantFor: 6 } }] },
    100,
  );
  expect(silent).toMatchObject({ kind: 'silent', keyId: 'k' });
  expect(silent!.say).toContain('has 1 reader whose program has gone silent');
  expect(shared!.say).toContain('made out for 6, and 40 came');
  const [given] = alertsOf({ ...quiet, keys: [{ ...key, pushFailing: true }] }, 100);
  expect(given).toMatchObject({ kind: 'push-failing', keyId: 'k' });
  expect(kinds({ urgent: { by: 200, readers: 10, holding: 2, expected: 8.9 } })).toEqual(['late']);
  const [late] = alertsOf({ ...quiet, urgent: { by: 100, readers: 10, holding: 7, expected: 7 } }, 100);
  expect(late!.say).toBe('The urgent change of “Works” is not with 3 of 10 readers yet.');
});
