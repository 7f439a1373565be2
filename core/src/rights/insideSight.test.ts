import { describe, expect, it } from 'vitest';
import { NO_CEILINGS, withCeiling } from '../glass';
import { insideSight } from './insideSight';

const people = [
  { name: 'Per', standing: 'reader', glass: 'clear' },
  { name: 'Ebba', standing: 'editor', glass: null },
  { name: 'Ida', standing: 'publisher', glass: null },
] as const;
const said = { people, stewards: ['Ida'], houseGlass: 'frosted' } as const;

describe('who sees a calendar from inside', () => {
  it('are those who were named, the stewards, and the whole house, each with the reason', () => {
    const { crew, house } = insideSight('c', said, NO_CEILINGS);
    expect(crew.ways.map((w) => [w.name, w.standing, w.sight, w.why])).toEqual([
      ['Ebba', 'editor', 'all', 'as editor'],
      ['Ida', 'steward', 'all', 'as steward'],
      ['Per', 'reader', 'clear', 'glass given by name: clear'],
    ]);
    expect([house.sight, house.ways[0]!.why]).toEqual(['frosted', 'glass of the whole house: frosted']);
  });

  it('is no clearer than the ceilings, and readers have at least what the house has', () => {
    const low = withCeiling(NO_CEILINGS, { calendarId: 'c', audience: 'crew', glass: 'tinted' });
    expect(insideSight('c', said, low).crew.ways.at(-1)).toMatchObject({
      sight: 'tinted',
      why: 'ceiling of the calendar: tinted, glass given by name: clear',
    });
    const shut = withCeiling(NO_CEILINGS, { calendarId: null, audience: 'crew', glass: 'shut' });
    expect(insideSight('c', said, shut).crew.ways.at(-1)).toMatchObject({
      sight: 'frosted',
      why: 'glass of the whole house: frosted',
    });
  });

  it('tells nobody where nobody sees it', () => {
    const none = insideSight('c', { people: [], stewards: [], houseGlass: 'shut' }, NO_CEILINGS);
    expect([none.crew, none.house]).toEqual([
      { sight: 'shut', ways: [] },
      { sight: 'shut', ways: [] },
    ]);
  });
});
