/** Generated pairs of insides: 2,000 in `npm test`, fewer in `npm run check`, more at night. */
export const PAIRS = Number(process.env['PAIRS'] ?? 2000);

/** Returns as many other cases as go with that many pairs, and no more than in `npm test`. */
export function cases(usual: number): number {
  return Math.ceil(usual * Math.min(1, PAIRS / 2000));
}
