import { DAY } from '../zones';

/** What an entry may hold at most, and why there is a limit at all: everything that is written is worked out for every reader. */
export const ENTRY_LIMITS = {
  /** Years that can be written with four digits in every form, with room for a clock's offset on either side. */
  firstYear: 1,
  lastYear: 9998,
  /** The longest single time, in milliseconds: longer ones are several entries, or none. */
  span: 3660 * DAY,
  /** The longest time of an entry that recurs: each date is looked for this far back. */
  recurringSpan: 366 * DAY,
  /** Dates given one by one, and exceptions. */
  dates: 5_000,
  overrides: 2_000,
  people: 1_000,
  attachments: 100,
  labels: 100,
  properties: 100,
  /** Letters of the text that stands for an image. */
  altLetters: 500,
  /** Pixels of a stored image on its longer side. */
  imageSide: 1600,
  kept: 500,
  /** Letters of a text that may be long. */
  letters: 50_000,
  /** Letters of a title, a place and the like: they stand on one line. */
  lineLetters: 500,
  linkLetters: 2_000,
  /** Letters of the name of a person or an attachment, and of a mail address. */
  nameLetters: 300,
  labelLetters: 200,
  propertyNameLetters: 120,
  propertyLetters: 2_000,
} as const;
