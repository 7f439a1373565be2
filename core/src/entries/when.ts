import {
  DAY,
  dayFromText,
  dayToText,
  instantOf,
  wallFromText,
  wallToText,
  type Instant,
  type Wall,
  type ZoneName,
  utcWall,
} from '../zones';

/** A whole day, the same day in every zone. `date` is written `2026-05-31`. */
export interface DateWhen {
  readonly kind: 'date';
  readonly date: string;
}

/** A clock reading that is meant wherever the reader is. `at` is written `2026-05-31T14:30:00`. */
export interface FloatingWhen {
  readonly kind: 'floating';
  readonly at: string;
}

/** A clock reading in a zone of the IANA database. */
export interface ZonedWhen {
  readonly kind: 'zoned';
  readonly at: string;
  readonly zone: ZoneName;
}

/** When something starts or ends: a date, a floating time, or a time in a zone. */
export type When = DateWhen | FloatingWhen | ZonedWhen;

/** Returns the clock reading of a moment; a date counts as its midnight. */
export function wallOf(when: When): Wall {
  return when.kind === 'date' ? dayFromText(when.date) * DAY : wallFromText(when.at);
}

/** Returns a moment of the same kind and zone as `like` that shows another clock reading. */
export function whenLike(like: When, wall: Wall): When {
  switch (like.kind) {
    case 'date':
      return { kind: 'date', date: dayToText(Math.floor(wall / DAY)) };
    case 'floating':
      return { kind: 'floating', at: wallToText(wall) };
    case 'zoned':
      return { kind: 'zoned', at: wallToText(wall), zone: like.zone };
  }
}

/** Returns the instant of a moment; dates and floating times are taken by the clocks of `hostZone`. */
export function instantOfWhen(when: When, hostZone: ZoneName): Instant {
  return instantOf(zoneOfWhen(when, hostZone), wallOf(when));
}

/** Returns the zone whose clocks a moment is read on: its own, or `hostZone` when it names none. */
export function zoneOfWhen(when: When, hostZone: ZoneName): ZoneName {
  return when.kind === 'zoned' ? when.zone : hostZone;
}

/** Returns whether two moments are written alike: same kind, same reading, same zone. */
export function sameWhen(a: When, b: When): boolean {
  return a === b || (a.kind === b.kind && wallOf(a) === wallOf(b) && zoneOfWhen(a, '') === zoneOfWhen(b, ''));
}

/** Returns whether a moment is the one of the same kind and zone as `like` that shows a clock reading. */
export function showsLike(when: When, like: When, wall: Wall): boolean {
  return when.kind === like.kind && wallOf(when) === wall && zoneOfWhen(when, '') === zoneOfWhen(like, '');
}

/** Returns an instant as a moment in UTC. */
export function utcWhen(instant: Instant): ZonedWhen {
  return { kind: 'zoned', at: wallToText(utcWall(instant)), zone: 'UTC' };
}
