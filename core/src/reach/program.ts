/** A program says no larger number of readers than this; what is larger is no count. */
const MOST_BEHIND = 1_000_000;
const LONGEST_NAME = 120;

/**
 * Returns what a program calls itself (User-Agent, RFC 9110 section 10.1.5) without its versions and its count of readers,
 * in small letters: an update makes no other reader of it.
 */
export function programOf(userAgent: string): string {
  return userAgent
    .replace(/\d+ subscribers?/gi, '')
    .replace(/[\d._]+/g, ' ')
    .replace(/[^\p{L}]+/gu, ' ')
    .trim()
    .toLowerCase()
    .slice(0, LONGEST_NAME);
}

/** Returns for how many readers a program says that it looks: `… 37 subscribers …` in its User-Agent; 1 unless it says so. */
export function readersBehind(userAgent: string): number {
  const [, count] = /(\d+) subscribers?\b/i.exec(userAgent) ?? [];
  const said = Number(count ?? 1);
  return said >= 1 && said <= MOST_BEHIND ? said : 1;
}

/** A few people read on several devices and from several places: fewer readers than this are never said to be too many. */
const FEW = 10;
const TIMES = 4;

/** Returns whether far more readers came than a key was made out for; null where it is not said for how many. */
export function isPassedOn(readers: number, meantFor: number | null): boolean {
  return meantFor !== null && readers >= Math.max(FEW, TIMES * meantFor);
}
