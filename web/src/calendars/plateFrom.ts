/** Returns letters for a plate from a name: first letters of its words, or its first letters. */
export function plateFrom(name: string): string {
  const words =
    name
      .normalize('NFKD')
      .replace(/[\u0300-\u036f]/g, '')
      .toUpperCase()
      .match(/[A-Z0-9]+/g) ?? [];
  const letters = words.length > 1 ? words.map((w) => w[0]).join('') : (words[0] ?? '');
  return letters.slice(0, 3).padEnd(2, 'X');
}
