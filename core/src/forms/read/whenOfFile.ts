import { whenLike, wallOf, type When } from '../../entries';
import { DAY, HOUR, MINUTE, SECOND, wallFromText, wallToText, type Wall } from '../../zones';
import { parameter, type Property } from './components';
import type { FileZone } from './zoneOfFile';

/** Reads the dates and times of one component and collects what had to be changed. */
export class WhenReader {
  readonly notes = new Set<string>();

  constructor(private readonly zoneOf: (tzid: string) => FileZone) {}

  /** Returns all moments of a property; a period counts by its start. Throws `date-invalid` or `time-invalid`. */
  whens(property: Property): When[] {
    return property.text.split(',').map((text) => this.when(property, text.trim()));
  }

  private when(property: Property, text: string): When {
    const m = /^(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})(\d{2})?(Z)?)?(?:\/.*)?$/i.exec(text);
    const date = m ? `${m[1]}-${m[2]}-${m[3]}` : text;
    if (m && m[4] === undefined) {
      // Check that the day exists.
      wallFromText(`${date}T00:00:00`);
      return { kind: 'date', date };
    }
    const wall = m ? this.time(date, m[4]!, m[5]!, m[6] ?? '00') : wallFromText(text);
    const at = wallToText(wall);
    if (m?.[7]) return { kind: 'zoned', at, zone: 'UTC' };
    const tzid = parameter(property, 'tzid');
    return tzid === undefined ? { kind: 'floating', at } : this.inFileZone(tzid, wall);
  }

  /** A leap second and the hour 24 are written by some programs; both are what they mean. */
  private time(date: string, hour: string, minute: string, second: string): Wall {
    if (second === '60') {
      this.notes.add('A leap second was read as the second before it.');
      second = '59';
    }
    if (hour === '24' && minute === '00') {
      this.notes.add('The hour 24 was read as the midnight after.');
      return wallFromText(`${date}T00:00:00`) + DAY;
    }
    return wallFromText(`${date}T${hour}:${minute}:${second}`);
  }

  private inFileZone(tzid: string, wall: Wall): When {
    const found = this.zoneOf(tzid);
    if (found.note) this.notes.add(found.note);
    switch (found.kind) {
      case 'zone':
        return { kind: 'zoned', at: wallToText(wall), zone: found.zone };
      case 'defined':
        return { kind: 'zoned', at: wallToText(found.toInstant(wall)), zone: 'UTC' };
      case 'unknown':
        return { kind: 'floating', at: wallToText(wall) };
    }
  }
}

const DURATION = /^([+-])?P(?:(\d+)W)?(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?$/i;

/** Returns a DURATION (RFC 5545 section 3.3.6) in milliseconds, or null when it is none. */
export function durationFromText(text: string): number | null {
  const m = DURATION.exec(text.trim());
  if (!m || m.slice(2).every((part) => part === undefined)) return null;
  const [weeks, days, hours, minutes, seconds] = m.slice(2).map((part) => Number(part ?? 0)) as [
    number,
    number,
    number,
    number,
    number,
  ];
  const length = (weeks * 7 + days) * DAY + hours * HOUR + minutes * MINUTE + seconds * SECOND;
  return m[1] === '-' ? -length : length;
}

/** Returns a moment later by some milliseconds of clock time. */
export function later(when: When, length: number): When {
  return whenLike(when, wallOf(when) + length);
}
