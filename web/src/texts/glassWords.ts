import * as glass from '@zonal/core/glass';
import * as german from '@zonal/core/words';
import { LANGUAGE } from './language';
import { ownWords } from './ownWords';

/* The words for windows, glasses and audiences in the language of the page. The names are those of the core. */

export const GLASS_WORDS = ownWords(glass.GLASS_WORDS, german.GLASS_DE);
export const AUDIENCE_WORDS = ownWords(glass.AUDIENCE_WORDS, german.AUDIENCE_DE);
export const SIGHT_MARK_WORDS = ownWords(glass.SIGHT_MARK_WORDS, german.SIGHT_MARK_DE);
export const LINK_NOTE_WORDS = ownWords(glass.LINK_NOTE_WORDS, german.LINK_NOTE_DE);
export const TEST_WORDS = ownWords(glass.TEST_WORDS, german.TEST_DE);
export const SWITCH_WORDS = ownWords(glass.SWITCH_WORDS, german.SWITCH_DE);
export const WORDING_WORDS = ownWords(glass.WORDING_WORDS, german.WORDING_DE);
export const partWord = (part: glass.ItemPart) => glass.partWord(part, LANGUAGE);
export const filterWords = (filter: glass.Filter, nameOf: (calendarId: string) => string) =>
  glass.filterWords(filter, nameOf, LANGUAGE);
export const colourName = (colour: glass.Colour) => (LANGUAGE === 'de' ? german.COLOUR_DE[colour] : colour);
export const plateShapeName = (shape: glass.PlateShape) =>
  LANGUAGE === 'de' ? german.PLATE_SHAPE_DE[shape] : shape;
export const platePatternName = (pattern: glass.PlatePattern) =>
  LANGUAGE === 'de' ? german.PLATE_PATTERN_DE[pattern] : pattern;
export const templateWords = (template: glass.WindowTemplate) =>
  LANGUAGE === 'de' ? german.TEMPLATE_DE[template] : glass.WINDOW_TEMPLATES[template];
