/** Prints one line. */
export function line(text = ''): void {
  process.stdout.write(`${text}\n`);
}

/** Prints rows under their headings, the first column to the left and all others to the right. */
export function table(headings: readonly string[], rows: readonly (readonly (string | number)[])[]): void {
  const all = [headings, ...rows.map((row) => row.map(String))];
  const widths = headings.map((_, i) => Math.max(...all.map((row) => row[i]!.length)));
  for (const row of all)
    line(row.map((cell, i) => (i ? cell.padStart(widths[i]!) : cell.padEnd(widths[i]!))).join('  '));
}

/** Returns a share as a percentage with one decimal. */
export function percent(share: number): string {
  return `${(share * 100).toFixed(1)} %`;
}

/** Prints what was aimed for and whether it was reached; the report fails where it was not. */
export function verdict(what: string, reached: boolean): void {
  line(`${reached ? 'reached' : 'MISSED '}  ${what}`);
  if (!reached) process.exitCode = 1;
}
