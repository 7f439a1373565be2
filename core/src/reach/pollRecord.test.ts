import fc from 'fast-check';
import { expect, it } from 'vitest';
import { DAY, SECOND } from '../zones';
import { POLL_FORMS, packPolls, unpackPolls } from './pollRecord';

const TODAY = Date.UTC(2026, 5, 10);
const revision = fc.oneof(fc.nat(300), fc.nat(2 ** 31 - 1));
const poll = fc.record({
  at: fc.nat(86_399).map((second) => TODAY + second * SECOND),
  form: fc.constantFrom(...POLL_FORMS),
  had: revision,
  has: revision,
});

it('polls come back as they were, also where they were put one behind the other', () => {
  fc.assert(
    fc.property(fc.array(poll), fc.array(poll), (first, second) => {
      const bytes = new Uint8Array([...packPolls(first), ...packPolls(second)]);
      expect(unpackPolls(bytes, TODAY)).toEqual([...first, ...second]);
    }),
  );
});

it('a day of hourly polls that find nothing new takes some hundred bytes', () => {
  const polls = Array.from({ length: 24 }, (_, hour) => ({
    ...{ at: TODAY + (hour * DAY) / 24, form: 'feed' as const, had: 900, has: 900 },
  }));
  expect(packPolls(polls).length).toBeLessThanOrEqual(120);
});
