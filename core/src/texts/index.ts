export { firstInsideLanguage, INSIDE_LANGUAGES, isInsideLanguage, LOCALES } from './languages';
export type { InsideLanguage } from './languages';
export type { Messages, RichValuesOf, Text, Translation, Value, ValuesOf } from './message';
export { messageReader, textsByLanguage } from './readMessages';
export type { MessageReader } from './readMessages';
export { weekdayNames } from './weekdays';
