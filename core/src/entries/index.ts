export {
  CONTENT_FIELDS,
  EMPTY_CONTENT,
  ENTRY_FIELDS,
  SAID_FIELDS,
  fieldWord,
  storedContent,
  textsOf,
  type SaidField,
  type Shape,
  type ShapeValues,
} from './contentFields';
export { HOLD_WORDS, KIND_WORDS, SHOWS_WORDS, STATUS_WORDS, statusWord } from './stateWords';
export { imageNamesOf, isImage, isImageName } from './image';
export {
  HOLDS,
  KINDS,
  SHOWS,
  STATUSES,
  contentOf,
  type Attachment,
  type EntryImage,
  type Content,
  type Entry,
  type Hold,
  type Imported,
  type Kind,
  type KeptProperty,
  type Override,
  type Person,
  type PropertyValue,
  type Recurrence,
  type Shows,
  type Status,
} from './entry';
export {
  instantOfWhen,
  sameWhen,
  showsLike,
  utcWhen,
  wallOf,
  whenLike,
  zoneOfWhen,
  type DateWhen,
  type FloatingWhen,
  type When,
  type ZonedWhen,
} from './when';
export {
  FREQUENCIES,
  WEEKDAY_CODES,
  ruleFromText,
  type Frequency,
  type Rule,
  type WeekdayPart,
} from './rule';
export { expandRule, expansionBudget } from './expandRule';
export {
  MOST_A_YEAR,
  checkRecurrence,
  extentOf,
  localRule,
  occurrencesOf,
  slotsOf,
  type Occurrence,
  type Range,
} from './occurrences';
export {
  SIMPLE_KINDS,
  isInLastWeek,
  simpleRuleOf,
  textOfSimpleRule,
  type RuleEnd,
  type SimpleKind,
  type SimpleRule,
} from './simpleRule';
export { ruleWords } from './ruleWords';
export { moveSeries } from './moveSeries';
export {
  SCOPES,
  changeDate,
  changeOnward,
  cutSeries,
  skipDate,
  usualAt,
  type AtDate,
  type Cut,
  type Scope,
} from './editSeries';
export { continuedLineages, lineageOf, type Step } from './lineage';
export { checkedEntry, checkedWhen } from './checkEntry';
export { ENTRY_LIMITS } from './limits';
export { fitKind } from './kind';
export { hasSlipped, slipOf, workingDaysBetween, type Slip } from './slip';
export { FIND_IN, compareText, finder, found, plainText, wordsOf, type FindIn, type FindQuery } from './find';
export {
  PROPERTY_KINDS,
  PROPERTY_KIND_WORDS,
  checkProperty,
  type PropertyDefinition,
  type PropertyKind,
} from './properties';
export { driftsBetween, oddTimesOf, phasesFor, type OddTime, type Phase } from './clockNotes';
export { REZONES, rezone, type Rezone, type Rezoned } from './rezone';
export { canonical, fieldsApart, printOfEntry, sequenceOf } from './fingerprintEntry';
export { untilText } from './until';
export { quickMoment, readQuickLine, type QuickLine } from './quickLine';
export { capital } from './capital';
