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
  daysInMonth,
  isoWeekOf,
  partsOfDay,
  timeOfWall,
  wallFromText,
  wallToText,
  weekdayOf,
  type Day,
  type Instant,
  type Wall,
} from './wall';
export { zonesMatching, type OffsetSample } from './zoneMatch';
export { allZones, requireZone, zoneNamed, zoneOfWindowsName, type ZoneName } from './zoneNames';
export {
  clockChanges,
  instantOf,
  meetingOf,
  nextClockChange,
  offsetAt,
  wallAt,
  type ClockChange,
  type Meeting,
} from './zoneOffsets';
