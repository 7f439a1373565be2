import { expect, it } from 'vitest';
import { LANGUAGES } from '../forms/speech/catalogue';
import { occurrencesOfView, outwardView } from '../glass';
import type { ToldChange } from '../reach';
import { RANGE } from '../testing/arbitraries';
import { STREET, entry, rulesOf, zoned } from '../testing/samples';
import { digestLetter, noticeConfirmLetter } from './digest';
import { letterText } from './letter';

const NOW = Date.UTC(2026, 5, 10, 15);
const rules = rulesOf('tinted');
const translated = {
  ...rules,
  wording: {
    ...rules.wording,
    name: 'Locks',
    translations: [{ language: 'fr', name: 'Écluses', description: '', topic: '' }],
  },
};
const view = outwardView(
  [entry({ title: 'Rope lift', start: zoned('2026-06-12T10:00') })],
  translated,
  RANGE,
  STREET,
);
const [one] = occurrencesOfView(view);
const change: ToldChange = { uid: 'u', kind: 'new', one: one!, was: null, parts: [], more: 0 };
const setting = {
  reading: { lang: 'en' },
  ...{ since: NOW, see: 'https://w.example/see/k', stop: 'https://w.example/notices/stop/x' },
};

it('a digest is written in every language, by the name that the window has in it, and says how it is stopped', () => {
  const subjects = LANGUAGES.map((lang) => {
    const letter = digestLetter(view, { changes: [change], gone: 2 }, { ...setting, reading: { lang } })!;
    expect(letterText(letter)).toContain('- Rope lift\n');
    expect(letterText(letter).trimEnd()).toMatch(/https:\/\/w\.example\/notices\/stop\/x$/);
    expect(letter.language!.startsWith(lang)).toBe(true);
    expect(letter.subject).toContain('3');
    expect(letter.subject).toContain(lang === 'fr' ? 'Écluses' : 'Locks');
    return letter.subject;
  });
  expect(new Set(subjects).size).toBe(LANGUAGES.length);
  const { subject } = noticeConfirmLetter(view, { reading: { lang: 'fr' }, href: 'https://w.example/x' });
  expect(subject).toContain('Écluses');
});

it('a digest tells forty changes one by one and counts the rest, and none where there are too many', () => {
  const changes = Array.from({ length: 43 }, () => change);
  const text = letterText(digestLetter(view, { changes, gone: 0 }, setting)!);
  expect(text.match(/- Rope lift/g)).toHaveLength(40);
  expect(text).toContain('3 more changes are in the calendar.');
  const much = digestLetter(view, null, setting)!;
  expect(much.subject).toBe('“Locks”: much has changed');
  expect(letterText(much)).not.toContain('Rope lift');
  expect(digestLetter(view, { changes: [], gone: 0 }, setting)).toBe(null);
});

it('a digest carries the new address where the old one was turned', () => {
  const to = { see: 'https://w.example/see/new', feed: 'https://w.example/feed/new.ics' };
  const notice = { to, at: NOW, until: NOW + 86_400_000 };
  expect(letterText(digestLetter(view, { changes: [change], gone: 0 }, { ...setting, notice })!)).toContain(
    to.see,
  );
});
