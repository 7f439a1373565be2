/** Returns words with a capital at their start. */
export function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}
