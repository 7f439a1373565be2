/** A stretch that something takes, of time or of room. */
export interface Taking {
  readonly from: number;
  /** Not included. */
  readonly to: number;
}

/** Returns for each stretch the row in which it can be drawn without covering another one. Give them in order. */
export function packRows(stretches: readonly Taking[]): { rows: number[]; count: number } {
  const taken: number[] = [];
  const rows = stretches.map(({ from, to }) => {
    let row = taken.findIndex((until) => until <= from);
    if (row < 0) row = taken.length;
    taken[row] = Math.max(to, from + 1e-9);
    return row;
  });
  return { rows, count: taken.length };
}
