import { IntlMessageFormat } from 'intl-messageformat';
import { LOCALES, type InsideLanguage } from './languages';
import type { Messages, Text, Translation } from './message';

/** What reads the messages of a group in one language. */
export interface MessageReader {
  /** Returns a message with its arguments, as a text. */
  text(key: string, values?: object): string;
  /** Returns a message in parts: texts, and what the functions of `values` make of the texts in tags. */
  parts<Part>(key: string, values: object): readonly (string | Part)[];
}

/** Returns what reads messages in a language. A message is parsed when it is first read. */
export function messageReader(messages: Messages, language: InsideLanguage): MessageReader {
  const parsed = new Map<string, IntlMessageFormat>();
  const messageOf = (key: string): IntlMessageFormat => {
    let message = parsed.get(key);
    if (!message) parsed.set(key, (message = new IntlMessageFormat(messages[key]!, LOCALES[language])));
    return message;
  };
  return {
    text: (key, values) => String(messageOf(key).format(values as Record<string, string>)),
    parts: <Part>(key: string, values: object) =>
      [messageOf(key).format<Part>(values as Record<string, Part>)].flat() as readonly (string | Part)[],
  };
}

/**
 * Returns a function that returns the texts of a group in a language.
 *
 * @example
 * const textsIn = textsByLanguage({ en, de });
 * textsIn('de')('entriesImported', { count: 2 });
 */
export function textsByLanguage<const English extends Messages>(texts: {
  readonly en: English;
  readonly de: Translation<English>;
}): (language: InsideLanguage) => Text<English> {
  const read = new Map<InsideLanguage, Text<English>>();
  return (language) => {
    let text = read.get(language);
    if (!text) {
      const reader = messageReader(texts[language], language);
      read.set(language, (text = (key, ...[values]) => reader.text(key, values)));
    }
    return text;
  };
}
