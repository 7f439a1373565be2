import { describe, expect, expectTypeOf, it } from 'vitest';
import type { RichValuesOf, ValuesOf } from './message';
import { firstInsideLanguage } from './languages';
import { messageReader, textsByLanguage } from './readMessages';

const EN = {
  plain: 'Saved.',
  named: '{name} was saved at {time}.',
  counted: '{count, plural, one {# entry of {owner}} other {# entries of {owner}}} in {calendar}',
  chosen: '{who, select, me {you} other {them}}',
  tagged: 'Sign in as <strong>{name}</strong> or <a>somebody else</a>.',
} as const;
const DE = {
  plain: 'Gespeichert.',
  named: '{name} wurde um {time} gespeichert.',
  counted: '{count, plural, one {# Termin von {owner}} other {# Termine von {owner}}} in {calendar}',
  chosen: '{who, select, me {dich} other {sie}}',
  tagged: 'Als <strong>{name}</strong> oder als <a>jemand anderes</a> anmelden.',
};

describe('messages', () => {
  it('are written in the language, with the plural of the number', () => {
    const textsIn = textsByLanguage({ en: EN, de: DE });
    const counted = { owner: 'Ida', calendar: 'Quay' };
    expect(textsIn('en')('counted', { count: 1, ...counted })).toBe('1 entry of Ida in Quay');
    expect(textsIn('de')('counted', { count: 1200, ...counted })).toBe('1.200 Termine von Ida in Quay');
    expect(textsIn('de')('plain')).toBe('Gespeichert.');
    expect(textsIn('de')('chosen', { who: 'me' })).toBe('dich');
  });

  it('have parts where they have tags, and leave what stands in an argument as it is', () => {
    const parts = messageReader(EN, 'en').parts('tagged', {
      name: '<b>{x}</b>',
      strong: (text: readonly string[]) => ({ strong: text.join('') }),
      a: (text: readonly string[]) => ({ a: text.join('') }),
    });
    expect(parts).toEqual(['Sign in as ', { strong: '<b>{x}</b>' }, ' or ', { a: 'somebody else' }, '.']);
  });

  it('ask for the values that their texts name, and for no others', () => {
    expectTypeOf<ValuesOf<(typeof EN)['plain']>>().toEqualTypeOf<[]>();
    expectTypeOf<keyof ValuesOf<(typeof EN)['named']>[0]>().toEqualTypeOf<'name' | 'time'>();
    expectTypeOf<keyof ValuesOf<(typeof EN)['counted']>[0]>().toEqualTypeOf<'count' | 'owner' | 'calendar'>();
    expectTypeOf<keyof ValuesOf<(typeof EN)['chosen']>[0]>().toEqualTypeOf<'who'>();
    expectTypeOf<keyof RichValuesOf<(typeof EN)['tagged'], string>>().toEqualTypeOf<
      'name' | 'strong' | 'a'
    >();
  });
});

describe('the language of a browser', () => {
  it.each([
    [['de-AT', 'en'], 'de'],
    [['nl', 'en-US', 'de'], 'en'],
    [['nl'], undefined],
  ])('%j', (tags, language) => expect(firstInsideLanguage(tags)).toBe(language));
});
