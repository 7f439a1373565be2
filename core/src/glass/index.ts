export { COLOURS, type Colour } from './colours';
export { PLATE_PATTERNS, PLATE_SHAPES, type PlatePattern, type PlateShape } from './plates';
export {
  AUDIENCES,
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
export {
  FIELD_RULES,
  NO_SWITCHES,
  SWITCHED_FIELDS,
  contentThrough,
  fieldsThrough,
  type OutwardContent,
  type OutwardField,
  type SwitchedField,
  type Switches,
} from './fields';
export {
  DUE_FORMS,
  ROUNDINGS,
  rangeOfHorizon,
  type DueForm,
  type Horizon,
  type Reader,
  type Rounding,
  type SourceRule,
  type WindowRules,
  type Wording,
} from './rules';
export {
  compareText,
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
export { limitsFor, outwardView, type TellingMemo } from './outwardView';
export { fingerprint, pseudonym } from './pseudonym';
export { inferRule, type InferredRule } from './inferRule';
