import { de } from './de';
import { en } from './en';
import { es } from './es';
import { fr } from './fr';
import { pt } from './pt';

/** The messages of one language. */
export type Words = Readonly<Record<keyof typeof en, string>>;
export type Message = keyof Words;

/** The languages that the outside speaks, each by its tag (RFC 5646). */
export const CATALOGUE = { en, fr, de, es, pt } as const satisfies Readonly<Record<string, Words>>;
export type Language = keyof typeof CATALOGUE;
export const LANGUAGES = Object.keys(CATALOGUE) as Language[];
