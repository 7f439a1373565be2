import type { InsideLanguage } from '../texts/languages';

/** The texts of a table in another language: the same keys, without what is no text. */
export type German<English> = English extends string
  ? string
  : {
      readonly [Key in keyof English as English[Key] extends string | object ? Key : never]: German<
        English[Key]
      >;
    };

type Worded<English> = English extends string
  ? string
  : {
      readonly [Key in keyof English]: English[Key] extends string | object
        ? Worded<English[Key]>
        : English[Key];
    };

/** Returns a table of words in a language. What is no text is the same in each. */
export function inLanguage<English extends object>(
  english: English,
  german: German<English>,
  language: InsideLanguage,
): Worded<English> {
  return (language === 'de' ? merged(english, german) : english) as Worded<English>;
}

function merged(english: object, german: object): object {
  return Object.fromEntries(
    Object.entries(english).map(([key, value]: [string, unknown]) => {
      const own = (german as Readonly<Record<string, unknown>>)[key] ?? value;
      const isTable = typeof value === 'object' && value !== null && typeof own === 'object' && own !== null;
      return [key, isTable ? merged(value, own) : own];
    }),
  );
}
