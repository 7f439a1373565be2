import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  GLASSES,
  NO_CEILINGS,
  effectiveGlass,
  lesser,
  sourceLimits,
  withCeiling,
  type Glass,
} from '../glass';
import { HouseRights, type Made } from './houseRights';
import { ownKeyCap } from './ownKey';

const SEEN = [...GLASSES, 'all'];
const glass = fc.constantFrom<Glass>(...GLASSES);
const made = fc.option(
  fc.oneof(
    glass.map((g): Made => ({ standing: 'reader', glass: g })),
    fc.constant<Made>({ standing: 'editor', glass: null }),
  ),
  { nil: null },
);

describe('a colleague’s own key', () => {
  it('never shows more of a calendar than they see inside, and as much as that allows', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ glass, made, house: glass, ceiling: fc.option(glass) }), {
          minLength: 1,
          maxLength: 4,
        }),
        fc.constantFrom('crew' as const, 'house' as const),
        (parts, audience) => {
          const id = (i: number) => `c${i}`;
          const ceilings = parts.reduce(
            (all, { ceiling }, i) =>
              ceiling ? withCeiling(all, { calendarId: id(i), audience, glass: ceiling }) : all,
            NO_CEILINGS,
          );
          const rights = new HouseRights(
            false,
            new Map(parts.map((p, i) => [id(i), { zone: 'UTC', houseGlass: p.house, known: false }])),
            new Map(parts.flatMap((p, i) => (p.made ? [[id(i), p.made] as const] : []))),
            ceilings,
          );
          const sources = parts.map((p, i) => ({ calendarId: id(i), glass: p.glass, fields: [], as: '' }));
          const cap = ownKeyCap(sources, audience, rights);
          const shown = (at: Glass | null) =>
            sources.map(
              (s) =>
                effectiveGlass(sourceLimits(s.calendarId, { sources, ceilings }, { audience, cap: at }))
                  .glass,
            );
          const within = (glasses: readonly Glass[]) =>
            glasses.every((g, i) => SEEN.indexOf(g) <= SEEN.indexOf(rights.sight(id(i))));
          expect(within(shown(cap))).toBe(true);
          // A clearer one would show too much somewhere.
          for (const other of GLASSES)
            if (lesser(other, cap ?? 'clear') !== other) expect(within(shown(other))).toBe(false);
        },
      ),
      { numRuns: 500 },
    );
  });
});
