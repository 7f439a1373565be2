export { FORMS, FORM_NAMES, fileNameOf, type Form, type FormName, type FormSetting } from './formTable';
export { PRODUCT, writeCalendar, type CalendarOptions } from './icsCalendar';
export { busyTimes, writeFreeBusy } from './freeBusy';
export { readCalendar } from './read/readCalendar';
export { OUTCOMES, type DraftEntry, type Outcome, type ReadItem, type ReadResult } from './read/report';
export { plainName } from './plainName';
export { safeUri } from './icsText';
export {
  SHOWINGS,
  writePage,
  type PageAddresses,
  type PageOptions,
  type PageQuery,
  type Showing,
} from './page/page';
export {
  clockChangeText,
  dayText,
  monthText,
  offsetText,
  timeText,
  zoneText,
  zoneWithOffset,
} from './page/words';
