import { GLASS_WORDS } from '@zonal/core/glass';
import { PRODUCT_WORDS, TRADE_WORDS, glossaryDocument } from '@zonal/core/glossary';
import { readFileSync, writeFileSync } from 'node:fs';
import { expect, it } from 'vitest';

const FILE = new URL('glossary.md', import.meta.url);

it('the document of words is the list that the application shows', () => {
  if (process.env['WRITE_GLOSSARY']) writeFileSync(FILE, glossaryDocument());
  expect(readFileSync(FILE, 'utf8')).toBe(glossaryDocument());
});

it('explains every word once, each glass by its name, in one or two sentences', () => {
  const all = [...Object.values(PRODUCT_WORDS), ...Object.values(TRADE_WORDS)];
  expect(new Set(all.map(({ word }) => word)).size).toBe(all.length);
  for (const { word } of Object.values(GLASS_WORDS)) expect(PRODUCT_WORDS.glass.meaning).toContain(word);
  for (const { word, meaning } of all)
    expect(meaning.match(/[.](?= [A-Z]|$)/g)?.length, word).toBeGreaterThan(0);
});
