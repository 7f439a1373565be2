import fc from 'fast-check';
import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import { MINUTE, instantOf, meetingOf, wallFromText, wallToText, type Instant, type Wall } from '../zones';
import { timeZoneLines } from './icsTimeZone';
import { joinLines } from './icsText';

const ZONES = [
  'Africa/Casablanca',
  'America/Halifax',
  'America/Los_Angeles',
  'America/Nuuk',
  'America/Santiago',
  'America/St_Johns',
  'Asia/Gaza',
  'Asia/Kathmandu',
  'Australia/Lord_Howe',
  'Europe/Dublin',
  'Europe/Lisbon',
  'Pacific/Apia',
  'Pacific/Chatham',
];
const FROM = Date.UTC(2024, 0, 1);
const TO = Date.UTC(2031, 0, 1);

interface Onset {
  readonly at: Wall;
  readonly offset: number;
}

/** Reads a VTIMEZONE as a program does that knows the dates of its observances and nothing else. */
function onsetsIn(lines: readonly string[]): Onset[] {
  const onsets: { at: Wall; offset: number }[] = [];
  for (const line of lines) {
    const [name, value] = line.split(':') as [string, string];
    if (name === 'DTSTART') {
      const [, y, mo, d, h, mi, s] = /^(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)$/.exec(value)!;
      onsets.push({ at: wallFromText(`${y}-${mo}-${d}T${h}:${mi}:${s}`), offset: NaN });
    }
    if (name === 'TZOFFSETTO') {
      const [, sign, h, m] = /^([+-])(\d\d)(\d\d)$/.exec(value)!;
      onsets.at(-1)!.offset = (sign === '-' ? -1 : 1) * (Number(h) * 60 + Number(m)) * MINUTE;
    }
    expect(['RDATE', 'RRULE']).not.toContain(name);
  }
  return onsets.sort((a, b) => a.at - b.at);
}

function instantBy(onsets: readonly Onset[], wall: Wall): Instant {
  return wall - onsets.filter((o) => o.at <= wall).at(-1)!.offset;
}

describe('a VTIMEZONE', () => {
  it.each(ZONES)('of %s gives every hour of seven years, to a plain reader and to ical.js', (zone) => {
    const lines = timeZoneLines(zone, FROM, TO);
    const onsets = onsetsIn(lines);
    const component = ICAL.parse(`BEGIN:VCALENDAR\r\nVERSION:2.0\r\n${joinLines(lines)}END:VCALENDAR\r\n`);
    const calendar = new ICAL.Component(component as never);
    const read = new ICAL.Timezone(calendar.getFirstSubcomponent('vtimezone')!);
    let asked = 0;
    fc.assert(
      fc.property(fc.integer({ min: FROM / (30 * MINUTE), max: TO / (30 * MINUTE) - 1 }), (half) => {
        const wall = half * 30 * MINUTE;
        // Hours that do not exist or come twice stand in UTC in what is written.
        if (meetingOf(zone, wall) !== 'once') return;
        asked++;
        expect(instantBy(onsets, wall)).toBe(instantOf(zone, wall));
        const offset = read.utcOffset(ICAL.Time.fromDateTimeString(wallToText(wall)));
        expect(wall - offset * 1000).toBe(instantOf(zone, wall));
      }),
      { numRuns: 600 },
    );
    expect(asked).toBeGreaterThan(500);
  });
});
