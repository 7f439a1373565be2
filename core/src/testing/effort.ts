/** Generated pairs of insides: 2,000 in `npm test`, fewer in `npm run check`, more at night. */
export const PAIRS = Number(process.env['PAIRS'] ?? 2000);

/** Returns how many other cases go with that many pairs; `usual` are tried in `npm test`. */
export function cases(usual: number): number {
  return Math.ceil((usual * PAIRS) / 2000);
}
