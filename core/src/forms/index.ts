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
export {
  EMBED_WAYS,
  USUAL_HEIGHT,
  USUAL_WIDTH,
  embedCode,
  embedHeight,
  fitScript,
  type EmbedCode,
  type EmbedWay,
} from './embed/code';
export { ORDERS, type BoardWindow, type Order } from './board/board';
export { boardAtom, boardOpml, sitemap } from './board/boardFiles';
export { boardPage, type BoardOptions } from './board/boardPage';
export { outwardSheet, type LinkSheet, type SheetLink } from './sheet/linkSheet';
export { sheetCsv, sheetJson, sheetMail, sheetOpml } from './sheet/sheetFiles';
export { sheetPage, type SheetPageOptions } from './sheet/sheetPage';
export { MOST_HOSTS, hostNamed } from './embed/hosts';
export {
  LOOK_NAMES,
  lookAddress,
  readEmbed,
  unfitInLook,
  type EmbedLook,
  type EmbedRead,
  type LookName,
} from './embed/look';
export { oEmbed, oEmbedXml, type OEmbed } from './embed/oEmbed';
export { NOTICE_WAYS, type NoticeWay } from './page/noticesPage';
export { noticeWords, type Notice } from './notice';
export { wholeOf, type Parts } from './parts';
export { entryFile, type EntryFile } from './entryFile';
export { PRODUCT, type CalendarOptions } from './icsCalendar';
export { differenceParts, knowsSince } from './difference';
export { pushEvent, type PushEvent } from './pushEvent';
export { DAV_METHODS, davAnswer, davForbidden, type DavAnswer, type DavAsked } from './dav/collection';
export type { DavSetting } from './dav/members';
export { busyTimes } from './freeBusy';
export { readCalendar } from './read/readCalendar';
export { OUTCOMES, type DraftEntry, type Outcome, type ReadItem, type ReadResult } from './read/report';
export { writeEntries, writeJCal, type FileSetting } from './insideCalendar';
export { MERGE_KINDS, mergePlan, type MergeItem, type MergeKind } from './merge';
export {
  CSV_FIELDS,
  columnWord,
  guessMapping,
  type CsvField,
  type CsvFieldName,
  type CsvMapping,
} from './csv/csvFields';
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
export type { Finding } from './lint/finding';
export { lintCalendar } from './lint/lintCalendar';
export { journalTable } from './csv/journalTable';
export { ledgerTable, type LedgerOfView } from './csv/ledgerTable';
export { reasonWords, sightlineTable } from './csv/sightlineTable';
export { reachTable } from './csv/reachTable';
export { plainName } from './plainName';
export { writePage, writtenPage } from './page/page';
export {
  PARTS,
  QUERY_NAMES,
  THEMES,
  USUAL_PARTS,
  type PageAddresses,
  type PageKind,
  type PageOptions,
  type PageQuery,
  type Part,
  type Theme,
} from './page/choice';
export { refusalWords, type Closing, type Refusal } from './page/refusal';
export { plainPage } from './page/plainPage';
export { CLOCKS, FIRST_DAYS, readingOf, type Reading } from './speech/reading';
export { LANGUAGES, type Language, type Message } from './speech/catalogue';
export { speechFor, speechOf, type Speech } from './speech/speech';
export { clockChangeText, slipText } from './insideWords';
export {
  dayText,
  monthText,
  offsetText,
  spanWords,
  timeText,
  whenWords,
  zoneText,
  zoneWithOffset,
} from './page/words';
