import { Temporal } from 'temporal-polyfill';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Problem } from '../problems';
import {
  HOUR,
  MINUTE,
  allZones,
  clockChanges,
  dayAt,
  dayFromParts,
  dayFromText,
  dayToText,
  instantOf,
  instantOfUtc,
  isoWeekOf,
  meetingOf,
  nextClockChange,
  offsetAt,
  partsOfDay,
  utcWall,
  wallAt,
  wallFromText,
  wallToText,
  weekdayOf,
  zoneNamed,
  zoneOfWindowsName,
  type Day,
  type Instant,
} from './index';

const HALIFAX = 'America/Halifax';

describe('days', () => {
  it('agree with an independent calendar from 1600 to 2400', () => {
    fc.assert(
      fc.property(fc.integer({ min: -135_000, max: 157_000 }), (day) => {
        const date = Temporal.PlainDate.from('1970-01-01').add({ days: day });
        expect(dayToText(day)).toBe(date.toString());
        expect(dayFromText(date.toString())).toBe(day);
        expect(partsOfDay(day)).toEqual({ year: date.year, month: date.month, date: date.day });
        expect(weekdayOf(day)).toBe(date.dayOfWeek - 1);
        expect(isoWeekOf(day)).toBe(date.weekOfYear);
      }),
      { numRuns: 2000 },
    );
  });

  it('carry months over', () => {
    expect(dayToText(dayFromParts(2026, 14, 1))).toBe('2027-02-01');
    expect(dayToText(dayFromParts(2026, 0, 31))).toBe('2025-12-31');
  });

  it('refuse what is no day or time, with a code', () => {
    for (const text of ['2026-02-29', '2026-13-01', '26-01-01', 'tomorrow']) {
      expect(() => dayFromText(text)).toThrowError(
        expect.objectContaining({ code: 'date-invalid' }) as Problem,
      );
    }
    expect(() => wallFromText('2026-01-01T24:00:00')).toThrowError(Problem);
    expect(wallToText(wallFromText('2026-01-01T23:59'))).toBe('2026-01-01T23:59:00');
  });
});

describe('zones', () => {
  it('tell the offset of any year that can be written, in a bounded table', () => {
    const zones = [
      'America/Halifax',
      'Europe/Dublin',
      'Africa/Casablanca',
      'America/Santiago',
      'Australia/Lord_Howe',
      'Asia/Gaza',
    ];
    fc.assert(
      fc.property(
        fc.constantFrom(...zones),
        fc.integer({ min: Date.UTC(1, 0, 2) / 60_000 - 998_000_000, max: Date.UTC(9998, 11, 30) / 60_000 }),
        (zone, minute) => {
          const at = minute * 60_000;
          const there = Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(zone);
          expect(offsetAt(zone, at)).toBe(Math.round(there.offsetNanoseconds / 1e6));
          // What the clocks show then leads back, but for the hours that are shown twice.
          if (meetingOf(zone, wallAt(zone, at)) === 'once')
            expect(instantOf(zone, wallAt(zone, at))).toBe(at);
        },
      ),
      { numRuns: 2000 },
    );
    const changes = clockChanges('America/Halifax', Date.UTC(9000, 0, 1), Date.UTC(9002, 0, 1));
    expect(changes).toHaveLength(4);
    for (const { at, before, offset } of changes) {
      expect([offsetAt('America/Halifax', at - 1), offsetAt('America/Halifax', at)]).toEqual([
        before,
        offset,
      ]);
    }
  });

  it('have one name each, and abbreviations of clocks are none', () => {
    for (const name of [
      'PST',
      'CST',
      'BST',
      'IST',
      'ACT',
      'AST',
      'JST',
      '+04:00',
      'Nowhere/Land',
      'x'.repeat(500),
    ])
      expect(zoneNamed(name)).toBeNull();
    for (const [name, zone] of [
      ['us/pacific', 'America/Los_Angeles'],
      ['EUROPE/KIEV', 'Europe/Kyiv'],
      ['GB', 'Europe/London'],
      ['Etc/GMT+5', 'Etc/GMT+5'],
      ['etc/gmt0', 'UTC'],
    ] as const)
      expect(zoneNamed(name)).toBe(zone);
    for (const zone of allZones()) {
      expect(zoneNamed(zone)).toBe(zone);
      expect(zoneNamed(zone.toLowerCase())).toBe(zone);
      // Both that know zones take every one of them.
      expect(() => new Intl.DateTimeFormat('en', { timeZone: zone })).not.toThrow();
      expect(() => Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(zone)).not.toThrow();
    }
  });

  it('give the offsets and clock readings of an independent implementation', () => {
    const zone = fc.constantFrom(
      HALIFAX,
      'Europe/London',
      'Pacific/Apia',
      'Africa/Casablanca',
      'Australia/Lord_Howe',
      'UTC',
    );
    const instant = fc.integer({ min: Date.UTC(1985, 0, 1), max: Date.UTC(2040, 0, 1) });
    fc.assert(
      fc.property(zone, instant, (z, i) => {
        const at = Temporal.Instant.fromEpochMilliseconds(i).toZonedDateTimeISO(z);
        expect(offsetAt(z, i)).toBe(at.offsetNanoseconds / 1e6);
        const wall = Math.floor(wallAt(z, i) / 1000) * 1000;
        const resolved = Temporal.PlainDateTime.from(wallToText(wall)).toZonedDateTime(z, {
          disambiguation: 'compatible',
        });
        expect(instantOf(z, wall)).toBe(resolved.epochMilliseconds);
      }),
      { numRuns: 1500 },
    );
  });

  it('resolve times that do not exist or happen twice as RFC 5545 says', () => {
    const skipped = wallFromText('2026-03-08T02:30');
    expect(meetingOf(HALIFAX, skipped)).toBe('never');
    expect(new Date(instantOf(HALIFAX, skipped)).toISOString()).toBe('2026-03-08T06:30:00.000Z');
    expect(wallToText(wallAt(HALIFAX, instantOf(HALIFAX, skipped)))).toBe('2026-03-08T03:30:00');
    const twice = wallFromText('2026-11-01T01:30');
    expect(meetingOf(HALIFAX, twice)).toBe('twice');
    expect(new Date(instantOf(HALIFAX, twice)).toISOString()).toBe('2026-11-01T04:30:00.000Z');
    expect(meetingOf(HALIFAX, wallFromText('2026-03-08T03:00'))).toBe('once');
    expect(meetingOf(HALIFAX, wallFromText('2026-11-01T02:00'))).toBe('once');
  });

  it('know the next clock change, also of zones whose tables were asked for far away before', () => {
    expect(offsetAt(HALIFAX, Date.UTC(1999, 6, 1))).toBe(-3 * HOUR);
    const change = nextClockChange(HALIFAX, Date.UTC(2026, 10, 23))!;
    expect(new Date(change.at).toISOString()).toBe('2027-03-14T06:00:00.000Z');
    expect([change.before, change.offset]).toEqual([-4 * HOUR, -3 * HOUR]);
    expect(nextClockChange('Asia/Tokyo', 0)).toBeNull();
    expect(clockChanges(HALIFAX, Date.UTC(2026, 0, 1), Date.UTC(2027, 0, 1))).toHaveLength(2);
  });

  it('give the same whatever was asked for before, however far away', () => {
    const far = [Date.UTC(1900, 0, 1), Date.UTC(2400, 6, 1), Date.UTC(1960, 6, 1), Date.UTC(9000, 6, 1)];
    const near = [Date.UTC(2026, 0, 1), Date.UTC(2026, 6, 1), Date.UTC(2027, 2, 14, 7)];
    for (const zone of ['Europe/Paris', 'America/Santiago', 'Asia/Tehran']) {
      // Each zone is asked for nothing else in this file: what is near comes first here, and far away in the next one.
      const before = near.map((at) => offsetAt(zone, at));
      for (const at of far) offsetAt(zone, at);
      expect(near.map((at) => offsetAt(zone, at))).toEqual(before);
    }
    for (const [zone, at, hours] of [
      ['America/Denver', Date.UTC(2026, 6, 1), -6],
      ['Australia/Sydney', Date.UTC(2026, 0, 1), 11],
    ] as const) {
      for (const one of far) offsetAt(zone, one);
      expect(offsetAt(zone, at)).toBe(hours * HOUR);
    }
  });

  it('skip a day where the date line moved', () => {
    // Samoa had no 30 December 2011.
    const noon = wallFromText('2011-12-30T12:00');
    expect(meetingOf('Pacific/Apia', noon)).toBe('never');
    expect(wallToText(wallAt('Pacific/Apia', instantOf('Pacific/Apia', noon)))).toBe('2011-12-31T12:00:00');
  });

  it('meet a reading as often as there are instants that show it', () => {
    const zones = [
      HALIFAX,
      'Europe/London',
      'Australia/Lord_Howe',
      'America/St_Johns',
      'Pacific/Apia',
      'Africa/Casablanca',
    ];
    const met = { once: 0, never: 0, twice: 0 };
    for (const zone of zones) {
      for (const { at, before, offset } of clockChanges(zone, Date.UTC(2008, 0, 1), Date.UTC(2028, 0, 1))) {
        for (let quarter = -12; quarter <= 12; quarter++) {
          const wall = at + Math.min(before, offset) + quarter * 15 * MINUTE;
          // Every instant that could show it lies within a day of it.
          const offsets = new Set<number>();
          for (let h = -26; h <= 26; h++) offsets.add(offsetAt(zone, wall + h * HOUR));
          const shows = [...offsets].filter((o) => wallAt(zone, wall - o) === wall).length;
          const meeting = meetingOf(zone, wall);
          expect([zone, wallToText(wall), meeting]).toEqual([
            zone,
            wallToText(wall),
            (['never', 'once', 'twice'] as const)[shows],
          ]);
          met[meeting]++;
        }
      }
    }
    for (const count of Object.values(met)) expect(count).toBeGreaterThan(200);
  });

  it('are found by their names of today, in any spelling, and by Windows names', () => {
    expect(zoneNamed('america/halifax')).toBe(HALIFAX);
    expect(zoneNamed('Asia/Calcutta')).toBe('Asia/Kolkata');
    expect(zoneNamed('Etc/UTC')).toBe('UTC');
    for (const no of ['+04:00', 'Moon/Base', '', 'A'.repeat(200)]) expect(zoneNamed(no)).toBeNull();
    expect(zoneOfWindowsName('Atlantic Standard Time')).toBe(HALIFAX);
    expect(zoneOfWindowsName('No Such Time')).toBeNull();
    expect(allZones()).toContain('Asia/Kolkata');
    expect(allZones()).not.toContain('Asia/Calcutta');
    expect(allZones().every((z) => zoneNamed(z) === z)).toBe(true);
  });
});

it('an instant, a clock reading and a day are not taken for one another', () => {
  const instant: Instant = Date.UTC(2026, 5, 10, 12);
  const wall = wallAt('America/Halifax', instant);
  // @ts-expect-error -- a clock reading is no instant
  wallAt('America/Halifax', wall);
  // @ts-expect-error -- an instant is no day
  const day: Day = instant;
  // @ts-expect-error -- and a day no clock reading
  expect(() => wallToText(dayAt('UTC', instant))).not.toThrow();
  expect([instantOfUtc(utcWall(instant)), day]).toEqual([instant, instant]);
  expect(dayToText(dayAt('Pacific/Auckland', instant))).toBe('2026-06-11');
});
