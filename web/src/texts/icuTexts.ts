import { messageReader, type Messages, type RichValuesOf, type Text } from '@zonal/core/texts';
import { createElement, Fragment, type ReactNode } from 'react';
import { germanTextsOf, type Room } from './germanTexts';
import { LANGUAGE } from './language';

/** Returns the text of a message in the language of the page; `rich` returns it with its tags as elements. */
export type IcuTexts<English extends Messages> = Text<English> & {
  rich<Key extends keyof English & string>(
    key: Key,
    values: RichValuesOf<English[Key], ReactNode>,
  ): ReactNode;
};

/**
 * Returns the texts of a room. German ones must have been registered before the module that calls this is imported.
 *
 * @example
 * export const t = icuTexts('inside', en);
 * t('entriesImported', { count: 2, calendar: 'Quay' });
 * t.rich('signInAs', { name: 'Ida', strong: (text) => <strong>{text}</strong> });
 */
export function icuTexts<const English extends Messages>(room: Room, english: English): IcuTexts<English> {
  const reader = messageReader((LANGUAGE === 'de' && germanTextsOf(room)) || english, LANGUAGE);
  const text: Text<English> = (key, ...[values]) => reader.text(key, values);
  return Object.assign(text, {
    rich: (key: string, values: object): ReactNode =>
      createElement(Fragment, null, ...reader.parts<ReactNode>(key, values)),
  });
}
