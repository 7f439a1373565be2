/**
 * How much one account may have at a time, so that nobody takes from others what a house shares. Whoever needs more deletes what
 * is no longer used, or has a colleague do the rest.
 */
export const ACCOUNT_LIMITS = {
  /** Calendars that somebody made and publishes. */
  calendars: 500,
  /** Windows that somebody opened. */
  windows: 2_000,
  linkSheets: 100,
  /** Images uploaded within a day. */
  imagesPerDay: 300,
  /** Edits that are prepared and not applied; each ends after a day. */
  stagedEdits: 50,
  /** Requests for access that wait for an answer. */
  accessRequests: 50,
  /** Requests for a higher ceiling that wait for an answer. */
  ceilingRequests: 20,
} as const;
