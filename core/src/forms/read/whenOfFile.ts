import { instantOfWhen, wallOf, whenLike, zoneOfWhen, type When, utcWhen } from '../../entries';
import { Problem } from '../../problems';
import {
  DAY,
  HOUR,
  MINUTE,
  SECOND,
  dayOfWall,
  instantBy,
  wallAt,
  wallFromText,
  wallToText,
  type Clocks,
  type Wall,
  type ZoneName,
} from '../../zones';
import type { InsideLanguage } from '../../texts/languages';
import { parameter, type Property } from './components';
import { FileNotes } from './fileNotes';
import type { FileZone } from './zoneOfFile';

/** Reads the dates and times of one component and collects what had to be changed. */
export class WhenReader {
  readonly notes: FileNotes;

  constructor(
    private readonly zoneOf: (tzid: string) => FileZone,
    language: InsideLanguage,
  ) {
    this.notes = new FileNotes(language);
  }

  /** Returns all moments of a property; a period counts by its start. Throws `date-invalid` or `time-invalid`. */
  whens(property: Property): When[] {
    return property.text.split(',').map((text) => this.when(property, text.trim()));
  }

  /** Returns the clocks that a property is read by where only the file defines them, or null. */
  clocksOf(property: Property): Clocks | null {
    const tzid = parameter(property, 'tzid');
    const zone = tzid === undefined || /Z\s*$/i.test(property.text) ? null : this.zoneOf(tzid);
    return zone?.kind === 'defined' ? zone.clocks : null;
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
      this.notes.add('leapSecond');
      second = '59';
    }
    if (hour === '24' && minute === '00') {
      this.notes.add('hour24');
      return wallFromText(`${date}T00:00:00`) + DAY;
    }
    return wallFromText(`${date}T${hour}:${minute}:${second}`);
  }

  private inFileZone(tzid: string, wall: Wall): When {
    const found = this.zoneOf(tzid);
    if (found.kind === 'broken') throw new Problem('zone-undefined', { reason: found.note });
    if (found.note) this.notes.addText(found.note);
    switch (found.kind) {
      case 'zone':
        return { kind: 'zoned', at: wallToText(wall), zone: found.zone };
      case 'defined':
        return utcWhen(instantBy(found.clocks, wall));
      case 'unknown':
        return { kind: 'floating', at: wallToText(wall) };
    }
  }
}

/** A DURATION (RFC 5545 section 3.3.6): days, which go by the clock, and an exact time besides, in milliseconds. */
export interface Duration {
  readonly days: number;
  readonly exact: number;
}

const DURATION =
  /^([+-])?P(?:(\d{1,5})W)?(?:(\d{1,6})D)?(?:T(?:(\d{1,7})H)?(?:(\d{1,8})M)?(?:(\d{1,9})S)?)?$/i;

/** Returns a DURATION, or null when the text is none. */
export function durationFromText(text: string): Duration | null {
  const m = DURATION.exec(text.trim());
  if (!m || m.slice(2).every((part) => part === undefined)) return null;
  const [weeks, days, hours, minutes, seconds] = m.slice(2).map((part) => Number(part ?? 0)) as [
    number,
    number,
    number,
    number,
    number,
  ];
  const sign = m[1] === '-' ? -1 : 1;
  return {
    days: sign * (weeks * 7 + days),
    exact: sign * (hours * HOUR + minutes * MINUTE + seconds * SECOND),
  };
}

/**
 * Returns the moment a duration after another one: days by the clock, then the rest exactly (RFC 5545 sections 3.3.6 and
 * 3.8.2.5). A whole day ends with a whole day. The result is in UTC if no clock of the zone shows it unmistakably.
 */
export function after(when: When, { days, exact }: Duration, home: ZoneName): When {
  const wall = wallOf(when) + days * DAY;
  if (when.kind === 'date') return whenLike(when, wall + Math.ceil(exact / DAY) * DAY);
  if (!exact) return whenLike(when, wall);
  const at = instantOfWhen(whenLike(when, wall), home) + exact;
  const local = whenLike(when, wallAt(zoneOfWhen(when, home), at));
  // Where clocks go back an hour is shown twice; only UTC can name the second one.
  return when.kind === 'zoned' && instantOfWhen(local, home) !== at ? utcWhen(at) : local;
}

/**
 * Returns a moment fitted to the kind of another one: a date stands for the time of day of a timed one, a time for its
 * day where whole days are meant. The same object comes back where it is of that kind already.
 */
export function fitted(when: When, like: When): When {
  if (when.kind === like.kind || (when.kind !== 'date' && like.kind !== 'date')) return when;
  if (like.kind === 'date') return { kind: 'date', date: wallToText(wallOf(when)).slice(0, 10) };
  return whenLike(like, dayOfWall(wallOf(when)) * DAY + (wallOf(like) - dayOfWall(wallOf(like)) * DAY));
}
