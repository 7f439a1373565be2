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
  kept: 500,
  /** Of a text that may be long; titles and the like have less. */
  letters: 50_000,
} as const;
