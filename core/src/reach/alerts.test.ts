import { expect, it } from 'vitest';
import { alertWords, alertsOf, type Watched } from './alerts';

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
  const trouble = { code: 'rule-invalid', details: { reason: 'it is too long' } } as const;
  const [failing] = alertsOf({ ...quiet, trouble }, 100);
  expect(alertWords(failing!)).toBe(
    'What readers should see of “Works” cannot be computed: The recurrence rule cannot be read: it is too long.',
  );
  const [silent, shared] = alertsOf(
    { ...quiet, keys: [{ ...key, silent: 1, passedOn: { readers: 40, meantFor: 6 } }] },
    100,
  );
  expect(silent).toMatchObject({ kind: 'silent', keyId: 'k' });
  expect(alertWords(silent!)).toBe('1 reader with the Agents key of “Works” has gone silent.');
  expect(alertWords(shared!)).toContain(
    '40 readers used the Agents key of “Works” this week; you expected 6.',
  );
  expect(alertWords(shared!, 'de')).toContain(
    '40 Personen haben in dieser Woche den Schlüssel Agents von „Works“',
  );
  const [given] = alertsOf({ ...quiet, keys: [{ ...key, pushFailing: true }] }, 100);
  expect(given).toMatchObject({ kind: 'push-failing', keyId: 'k' });
  expect(kinds({ urgent: { by: 200, readers: 10, holding: 2, expected: 8.9 } })).toEqual(['late']);
  const [late] = alertsOf({ ...quiet, urgent: { by: 100, readers: 10, holding: 7, expected: 7 } }, 100);
  expect(alertWords(late!)).toBe('3 of 10 readers do not have the urgent change of “Works” yet.');
});
