import { describe, expect, it } from 'vitest';
import { dayFromText, dayToText, wallAt, wallToText } from '../zones';
import { holidaysOf, moonPhases, sunTimes } from './index';

const day = dayFromText;

describe('ready-made calendars', () => {
  it('have public holidays by country and region', () => {
    const canada = holidaysOf({ country: 'CA', region: '' }, day('2026-01-01'), day('2027-01-01'));
    expect(canada.get(day('2026-07-01'))).toContain('Canada');
    expect(canada.has(day('2026-07-02'))).toBe(false);
    const scotia = holidaysOf({ country: 'CA', region: 'NS' }, day('2026-02-01'), day('2026-03-01'));
    expect([...scotia.keys()].map(dayToText)).toEqual(['2026-02-16']);
    expect(holidaysOf({ country: '', region: '' }, 0, 1000).size).toBe(0);
  });

  it('have the phases of the moon, on the day of the zone that is asked for', () => {
    // Full moon on 3 January 2026 at 10:03 UTC, new moon on 18 January at 19:52 UTC.
    const halifax = moonPhases(day('2026-01-01'), day('2026-02-01'), 'America/Halifax');
    const found = [...halifax].map(([d, { phase }]) => `${dayToText(d)} ${phase}`);
    expect(found).toEqual([
      '2026-01-03 full moon',
      '2026-01-10 last quarter',
      '2026-01-18 new moon',
      '2026-01-26 first quarter',
    ]);
    expect(
      [...moonPhases(day('2026-01-01'), day('2026-02-01'), 'Pacific/Auckland').keys()].map(dayToText),
    ).toContain('2026-01-19');
  });

  it('have sunrise and sunset at a place, and none where the sun stays away', () => {
    const zone = 'America/Halifax';
    const { rise, set } = sunTimes({ latitude: 44.65, longitude: -63.57 }, day('2026-06-21'), zone);
    const clock = (at: number | null) => wallToText(wallAt(zone, at!)).slice(11, 16);
    expect(clock(rise)).toMatch(/^05:(2|3)\d$/);
    expect(clock(set)).toMatch(/^21:0\d$/);
    expect(sunTimes({ latitude: 78, longitude: 15 }, day('2026-12-21'), 'Europe/Oslo')).toEqual({
      rise: null,
      set: null,
    });
  });
});
