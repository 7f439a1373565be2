/** The languages that the application speaks inside, each by its tag (RFC 5646). The first is the one that texts are written in. */
export const INSIDE_LANGUAGES = ['en', 'de'] as const;
export type InsideLanguage = (typeof INSIDE_LANGUAGES)[number];

/** English with no region is read by the customs of most of the world: days before months, 24 hours. */
export const LOCALES: Readonly<Record<InsideLanguage, string>> = { en: 'en-GB', de: 'de-DE' };

export const isInsideLanguage = (language: unknown): language is InsideLanguage =>
  INSIDE_LANGUAGES.some((one) => one === language);

/** Returns the first of some tags (RFC 5646), best first, whose language the application speaks, or undefined. */
export const firstInsideLanguage = (tags: readonly string[]): InsideLanguage | undefined =>
  tags.map((tag) => tag.split('-')[0]).find(isInsideLanguage);
