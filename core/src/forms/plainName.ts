/** Returns a name in small plain letters and digits with `-` between its words, or the fallback when none is left. */
export function plainName(name: string, fallback: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  return plain || fallback;
}
