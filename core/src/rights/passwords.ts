/** Letters of a password. */
export const PASSWORD_LIMITS = { least: 10, most: 200, different: 5 } as const;

/** Returns what a password lacks, as a sentence that says what to do, or null where it will do. */
export function passwordTrouble(
  password: string,
  own: { readonly name: string; readonly email: string },
): string | null {
  const { least, most, different } = PASSWORD_LIMITS;
  if (password.length < least)
    return `A password has at least ${least} letters. Three or four words make a good one.`;
  if (password.length > most) return `A password has at most ${most} letters.`;
  if (new Set(password.toLowerCase()).size < different)
    return 'This password repeats the same few letters. Choose one that is harder to guess.';
  const said = password.toLowerCase();
  const known = [own.email.toLowerCase(), own.email.split('@')[0]!.toLowerCase(), own.name.toLowerCase()];
  if (known.some((word) => word.length > 3 && said.includes(word) && said.length < word.length + 6))
    return 'This password is little more than your name or address. Choose one that is harder to guess.';
  return null;
}
