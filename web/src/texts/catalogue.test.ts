import { parse, TYPE, type MessageFormatElement } from '@formatjs/icu-messageformat-parser';
import { describe, expect, it } from 'vitest';

type Catalogue = Readonly<Record<string, string>>;

const all = <T>(files: Record<string, T>): [string, T][] => Object.entries(files);
const english = all(import.meta.glob<{ en: Catalogue }>('./en/*.ts', { eager: true }));
const german = import.meta.glob<{ de: Catalogue }>('./de/*.ts', { eager: true });
const sources = all(
  import.meta.glob<string>('../**/*.{ts,tsx}', { eager: true, query: '?raw', import: 'default' }),
)
  .filter(([file]) => !/\.test\.|^\.\/(en|de)\//.test(file))
  .map(([, text]) => text)
  .join('\n');

const CATALOGUES = english.map(([file, { en }]) => {
  const room = file.slice('./en/'.length, -'.ts'.length);
  return { room, en, de: german[`./de/${room}.ts`]!.de };
});

/** Returns the arguments and tags of a message. */
function namesIn(elements: readonly MessageFormatElement[]): string[] {
  return elements.flatMap((e) => {
    if (e.type === TYPE.tag) return [`<${e.value}>`, ...namesIn(e.children)];
    if (e.type === TYPE.plural || e.type === TYPE.select)
      return [e.value, ...Object.values(e.options).flatMap((option) => namesIn(option.value))];
    return e.type === TYPE.literal || e.type === TYPE.pound ? [] : [e.value];
  });
}

const sorted = (text: string) => [...new Set(namesIn(parse(text)))].sort();

/** Returns how many words a message has besides its arguments. */
const wordCount = (text: string) => text.replace(/\{[^}]*\}|<[^>]*>/g, '').match(/\p{L}{3,}/gu)?.length ?? 0;

describe.each(CATALOGUES)('the texts of $room', ({ en, de }) => {
  it('have the same keys, arguments and tags in German, none of them empty', () => {
    expect(Object.keys(de)).toEqual(Object.keys(en));
    for (const [key, text] of Object.entries(en)) {
      expect(text.trim() && de[key]!.trim(), key).not.toBe('');
      expect(sorted(de[key]!), key).toEqual(sorted(text));
    }
  });

  it('are translated: only names, units and single words are the same in both languages', () => {
    const same = Object.keys(en).filter((key) => en[key] === de[key]);
    expect(same.filter((key) => wordCount(en[key]!) > 2)).toEqual([]);
    expect(same.length).toBeLessThan(4 + Object.keys(en).length / 10);
  });

  it('are all used', () => {
    expect(Object.keys(en).filter((key) => !sources.includes(`'${key}'`))).toEqual([]);
  });
});

it('the page to sign in has no plurals and no tags, because it does without the parser', () => {
  const { en, de } = CATALOGUES.find(({ room }) => room === 'base')!;
  for (const text of [...Object.values(en), ...Object.values(de)])
    expect(
      parse(text).every((e) => e.type === TYPE.literal || e.type === TYPE.argument),
      text,
    ).toBe(true);
});
