/** What a window may hold at most, and why there is a limit at all: everything in it is worked out for every reader. */
export const WINDOW_LIMITS = {
  /** Calendars that it is cut from: each of their entries is looked at. */
  sources: 100,
  /** Days of a horizon with fixed ends: ten years. */
  fixedDays: 3660,
  /** Days of a horizon to each side of today: five years. */
  rollingDays: 1830,
  /** Single times that it shows, so that no reader's program is sent more than it can take in. */
  times: 500_000,
  /** Busy times of single entries that are merged, so that nothing that somebody writes takes all memory. */
  spans: 2_000_000,
  /** Letters of its name, of a calendar's name as it is told, of its topic and place: they stand on one line. */
  nameLetters: 120,
  descriptionLetters: 2_000,
  contactLetters: 300,
  busyWordLetters: 60,
  patternLetters: 200,
  /** Letters of a language tag (RFC 5646 section 4.4.1 names 35). */
  languageLetters: 35,
  translations: 20,
  labelHolds: 50,
  labelLetters: 200,
  /** Letters of a draft as it is sent: no window takes more. */
  draftLetters: 200_000,
} as const;

/** What a key may hold at most. */
export const KEY_LIMITS = {
  /** Keys of one window: each is told apart whenever somebody looks. */
  keys: 2_000,
  nameLetters: 120,
  contactLetters: 300,
  noteLetters: 2_000,
  /** Readers that one is made out for. */
  meantFor: 1_000_000,
  /** Days for which an address that was turned leads on. */
  graceDays: 90,
} as const;

/** What a link sheet may hold at most: each of its addresses is looked at whenever somebody opens it. */
export const SHEET_LIMITS = {
  /** Sheets in use in a house. One account has fewer (`ACCOUNT_LIMITS`). */
  sheets: 5_000,
  links: 200,
  nameLetters: 120,
  noteLetters: 2_000,
} as const;

/** What a filter may ask for at most: all of it is asked of every entry. */
export const FILTER_LIMITS = {
  conditions: 50,
  /** Groups within groups. */
  depth: 6,
  /** Letters of one value. */
  letters: 200,
  /** Words that are looked for in texts, all conditions together: each is sought in every text. */
  words: 40,
  /** Ways that are tried out to see whether it contradicts itself. */
  steps: 100_000,
} as const;
