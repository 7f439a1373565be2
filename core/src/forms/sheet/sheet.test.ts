import { XMLParser, XMLValidator } from 'fast-xml-parser';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { LANGUAGES } from '../speech/catalogue';
import { speechFor } from '../speech/speech';
import type { LinkSheet, SheetLink } from './linkSheet';
import { sheetCsv, sheetJson, sheetMail, sheetOpml } from './sheetFiles';
import { sheetPage } from './sheetPage';

const ORIGIN = 'https://w.example';
const link = (name: string, parts: Partial<SheetLink> = {}): SheetLink => ({
  wording: {
    ...{ name, topic: 'Harbour', description: `About ${name}`, language: 'en', colour: 'teal' },
    translations: [{ language: 'fr', name: `${name} (fr)`, description: '', topic: '' }],
  },
  zone: 'Pacific/Pago_Pago',
  shows: 'entries',
  see: `${ORIGIN}/see/${name}`,
  feed: `${ORIGIN}/feed/${name}.ics`,
  ...parts,
});
const SHEET: LinkSheet = {
  name: 'For new colleagues',
  note: 'What agents ask for.',
  address: `${ORIGIN}/links/secret`,
  links: [link('bridge'), link('locks', { shows: 'busy' }), link('quay', { shows: 'nothing' })],
};
const none: LinkSheet = { ...SHEET, note: '', links: [] };
const page = (sheet: LinkSheet, lang?: string) => sheetPage(sheet, { lang, accepted: [], assets: '/o/' });

describe('a link sheet', () => {
  it('is a page with each address in its order, and what is to be known of it', () => {
    const text = page(SHEET);
    expect([...text.matchAll(/<a href="([^"]+\/see\/\w+)">/g)].map((m) => m[1])).toEqual(
      SHEET.links.map((l) => l.see),
    );
    expect(text).toContain('Times in Pacific/Pago Pago');
    expect(text.match(/Shows busy times only\./g)).toHaveLength(1);
    expect(text.match(/Nothing is shown there at the moment\./g)).toHaveLength(1);
    expect(text).toContain('content="noindex, nofollow"');
    expect(page(none)).toContain('There is no calendar on this sheet at the moment.');
  });

  it('speaks the reader’s language, and names windows in it where they do', () => {
    const text = page(SHEET, 'fr');
    expect(text).toContain('<html lang="fr"');
    expect(text).toContain('>bridge (fr)</a>');
    expect(text).toContain('N’indique que les heures occupées.');
  });

  it('is a table, an OPML and JSON with the same addresses', () => {
    const { data } = Papa.parse<Record<string, string>>(sheetCsv(SHEET), {
      header: true,
      skipEmptyLines: true,
    });
    expect(data).toEqual(JSON.parse(sheetJson(SHEET)).links);
    expect(data.map((d) => [d['page'], d['feed'], d['shows']])).toEqual(
      SHEET.links.map((l) => [l.see, l.feed, l.shows]),
    );
    expect(XMLValidator.validate(sheetOpml(SHEET))).toBe(true);
    const { outline } = new XMLParser({ ignoreAttributes: false }).parse(sheetOpml(SHEET)).opml.body;
    expect(outline.map((o: Record<string, string>) => o['@_xmlUrl'])).toEqual(SHEET.links.map((l) => l.feed));
  });

  it('is the text of a mail', () => {
    const text = sheetMail({ ...SHEET, links: SHEET.links.slice(1, 2) }, speechFor('en'));
    expect(text).toBe(`For new colleagues

What agents ask for.

locks
About locks
Times in Pacific/Pago Pago.
Shows busy times only.
Page: https://w.example/see/locks
Feed, for calendar programs: https://w.example/feed/locks.ics

This sheet is kept up to date at https://w.example/links/secret

These addresses are for you. Whoever has them sees the same as you, so share them with care.
`);
    for (const language of LANGUAGES)
      expect(sheetMail(none, speechFor(language))).toContain(speechFor(language).say('sheetEmpty'));
  });
});
