export {
  FORMS,
  FORM_NAMES,
  fileNameOf,
  formAt,
  writeForm,
  type Form,
  type FormName,
  type FormSetting,
} from './formTable';
export { embedCode, oEmbed, oEmbedXml, type OEmbed } from './oEmbed';
export { noticeWords, type Notice } from './notice';
export type { Parts } from './parts';
export { PRODUCT, type CalendarOptions } from './icsCalendar';
export { busyTimes } from './freeBusy';
export { readCalendar } from './read/readCalendar';
export { OUTCOMES, type DraftEntry, type Outcome, type ReadItem, type ReadResult } from './read/report';
export { writeEntries, writeJCal, type FileSetting } from './insideCalendar';
export { MERGE_KINDS, mergePlan, type MergeItem, type MergeKind } from './merge';
export { CSV_FIELDS, guessMapping, type CsvField, type CsvFieldName, type CsvMapping } from './csv/csvFields';
export {
  DATE_ORDERS,
  checkMapping,
  csvTable,
  guessDateOrder,
  readCsv,
  type CsvSetting,
  type CsvTable,
  type DateOrder,
} from './csv/readCsv';
export { tableText, writeCsv } from './csv/writeCsv';
export { fieldText } from './fieldText';
export { lintCalendar, type Finding } from './lint/lintCalendar';
export { reasonWords, sightlineTable } from './csv/sightlineTable';
export { plainName } from './plainName';
export {
  SHOWINGS,
  writePage,
  type PageAddresses,
  type PageOptions,
  type PageQuery,
  type Showing,
} from './page/page';
export { plainPage } from './page/plainPage';
export {
  clockChangeText,
  kindText,
  slipText,
  whenWords,
  dayText,
  monthText,
  offsetText,
  timeText,
  zoneText,
  zoneWithOffset,
} from './page/words';
