import type { InsideLanguage } from '../texts/languages';
import { insideTexts } from '../words/texts';

/** Letters of a password. */
export const PASSWORD_LIMITS = { least: 10, most: 200, different: 5 } as const;

/** What can be wrong with a password. */
export type PasswordTrouble = 'short' | 'long' | 'simple' | 'personal';

/** Returns what is wrong with a password, in a sentence that says what to do. */
export function passwordWords(trouble: PasswordTrouble, language: InsideLanguage = 'en'): string {
  const { least, most } = PASSWORD_LIMITS;
  const t = insideTexts(language);
  if (trouble === 'short') return t('passwordShort', { least });
  if (trouble === 'long') return t('passwordLong', { most });
  return trouble === 'simple' ? t('passwordSimple') : t('passwordPersonal');
}

/** Returns what is wrong with a password of an account, or null if it is good enough. */
export function passwordTrouble(
  password: string,
  own: { readonly name: string; readonly email: string },
): PasswordTrouble | null {
  const { least, most, different } = PASSWORD_LIMITS;
  if (password.length < least) return 'short';
  if (password.length > most) return 'long';
  if (new Set(password.toLowerCase()).size < different) return 'simple';
  const said = password.toLowerCase();
  const known = [own.email.toLowerCase(), own.email.split('@')[0]!.toLowerCase(), own.name.toLowerCase()];
  if (known.some((word) => word.length > 3 && said.includes(word) && said.length < word.length + 6))
    return 'personal';
  return null;
}
