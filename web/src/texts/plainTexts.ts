import type { Messages, Text, Translation, Value } from '@zonal/core/texts';
import { LANGUAGE } from './language';

/**
 * Returns the texts of a room whose messages have arguments, but no plurals and no tags: the page to sign in does without the
 * parser of ICU messages.
 */
export function plainTexts<const English extends Messages>(texts: {
  readonly en: English;
  readonly de: Translation<English>;
}): Text<English> {
  const messages: Messages = texts[LANGUAGE];
  return (key, ...[values]) => {
    const named: Readonly<Record<string, Value>> = values ?? {};
    return messages[key]!.replace(/\{(\w+)\}/g, (_, name: string) => String(named[name]));
  };
}
