export { COLOURS, COLOUR_CODES, type Colour } from './colours';
export { PLATE_PATTERNS, PLATE_SHAPES, type PlatePattern, type PlateShape } from './plates';
export {
  AUDIENCES,
  OUTSIDERS,
  READ_THROUGH,
  GLASSES,
  LIMITERS,
  atLeast,
  effectiveGlass,
  lesser,
  type Audience,
  type EffectiveGlass,
  type Glass,
  type Limit,
  type Limiter,
  type Reason,
} from './glass';
export { LOCKED_DOWN, NO_CEILINGS, withCeiling, type CeilingSet, type Ceilings } from './ceilings';
export {
  CUT_FIELDS,
  FIELD_RULES,
  SWITCHED_FIELDS,
  USUAL_SWITCHES,
  contentThrough,
  fieldsThrough,
  fieldsThroughCut,
  glassOfCut,
  type CutField,
  type OutwardContent,
  type OutwardField,
  type EntryField,
  type SwitchedField,
  type Switches,
} from './fields';
export {
  CONDITION_FIELDS,
  PROPERTY_TESTS,
  conditionsOf,
  fieldsOfFilter,
  filterTest,
  goneFrom,
  isContradictory,
  readFilter,
  type Condition,
  type Filter,
  type KnownNames,
  type PropertyTest,
} from './filter';
export { outwardText, safeUri } from './outwardText';
export { filterWords } from './filterWords';
export {
  PLAIN_TITLE,
  TITLE_PARTS,
  readPattern,
  titleFrom,
  type TitlePart,
  type TitlePattern,
} from './titlePattern';
export {
  DUE_FORMS,
  LETTING_GO,
  REMINDERS,
  USUAL_LETTING_GO,
  INCLUDE_ALL,
  ROUNDINGS,
  FIRST_VIEWS,
  SHOWINGS,
  type FirstView,
  type Showing,
  SOURCE_GLASSES,
  labelHoldOf,
  rangeOfHorizon,
  type DueForm,
  type Horizon,
  type Include,
  type LabelHold,
  type Reader,
  type Rounding,
  type SourceGlass,
  type SourceRule,
  type WindowRules,
  type Wording,
  type WordingText,
} from './rules';
export {
  compareTimes,
  occurrencesOfItems,
  occurrencesOfView,
  type OutwardBusy,
  type OutwardItem,
  type OutwardOccurrence,
  type OutwardOverride,
  type OutwardSeries,
  type OutwardSingle,
  type OutwardTime,
  type OutwardView,
} from './view';
export { mergeSpans, timeOfSpan, type Span } from './busySpans';
export {
  fieldsOfSource,
  glassOfSource,
  limitsFor,
  outwardView,
  outwardWording,
  sourceLimits,
  takenBy,
  tellsAlike,
  emptyMemo,
  type TellingMemo,
} from './outwardView';
export {
  differenceOf,
  itemOf,
  timesOf,
  type ItemChange,
  type ItemPart,
  type ViewDifference,
} from './difference';
export {
  EXPOSURE_KINDS,
  NOTHING_WATCHED,
  exposuresOf,
  groupedExposures,
  newlyExposed,
  type Exposure,
  type ExposureGroup,
  type ExposureKind,
  type Watch,
} from './exposure';
export {
  DEMANDS,
  isQuiet,
  PUBLIC_READERS,
  rehearse,
  rehearsedWindow,
  rehearseKey,
  type Demand,
  type Rehearsal,
  type RehearsedState,
  type RehearsedView,
  type RehearsedWindow,
} from './rehearsal';
export {
  SIGHT_MARKS,
  sightlines,
  whoSees,
  type EntryPath,
  type EntrySight,
  type SightCell,
  type SightMark,
  type SightPath,
  type SightRow,
  type SightedWindow,
} from './sightlines';
export { checkRules } from './checkRules';
export { FILTER_LIMITS, KEY_LIMITS, SHEET_LIMITS, WINDOW_LIMITS } from './limits';
export {
  BLANK_WINDOW,
  ceilingsInForce,
  lackOf,
  rulesOfSaid,
  saidByRules,
  saidOf,
  settingsOf,
  unfitIn,
  type RuleSetting,
  type WindowInput,
  type WindowSaid,
  type WindowSettings,
} from './windowSaid';
export { WINDOW_TEMPLATES, type TemplateSettings, type WindowTemplate } from './windowTemplates';
export { pseudonym, quickPrint } from './pseudonym';
export { inferRule, type InferredRule } from './inferRule';
export { checkLink, leadsOn, type LinkNote, type LinkState, type ShowsBehind } from './linkCheck';
export {
  PUBLIC_ADDRESS_GRACE_DAYS,
  canComeBack,
  endOf,
  keyState,
  listingAfter,
  publicAddressEnd,
  type Ending,
  type KeyState,
  type PublicAddress,
} from './keyState';
export {
  AUDIENCE_WORDS,
  GLASS_WORDS,
  LIMITER_WORDS,
  LINK_NOTE_WORDS,
  SIGHT_MARK_WORDS,
  SWITCH_WORDS,
  TEST_WORDS,
  WORDING_WORDS,
  partWord,
} from './words';
export { isOdd, slotsApart, spelledOut } from './spelledOut';
