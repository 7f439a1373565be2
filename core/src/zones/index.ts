export { MONTH_NAMES, WEEKDAY_NAMES } from './names';
export {
  DAY,
  HOUR,
  MINUTE,
  SECOND,
  dayFromParts,
  dayFromText,
  dayOfWall,
  dayToText,
  instantOfUtc,
  daysInMonth,
  isoOffset,
  isoWeekOf,
  partsOfDay,
  timeOfWall,
  utcWall,
  wallFromText,
  wallToText,
  weekdayOf,
  type Day,
  type Instant,
  type Wall,
} from './wall';
export { packRows } from './packRows';
export { zonesLike, zonesMeant } from './zoneMatch';
export { allZones, requireZone, zoneNamed, zoneOfWindowsName, type ZoneName } from './zoneNames';
export {
  clockChanges,
  dayAt,
  instantBy,
  instantOf,
  meetingOf,
  nextClockChange,
  offsetAt,
  offsetBy,
  wallAt,
  type ClockChange,
  type Clocks,
  type Meeting,
} from './zoneOffsets';
