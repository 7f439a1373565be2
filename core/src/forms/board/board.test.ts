import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { describe, expect, it } from 'vitest';
import type { BoardWindow, Order } from './board';
import { boardAtom, boardOpml, sitemap } from './boardFiles';
import { boardPage } from './boardPage';

const ORIGIN = 'https://w.example';
const window = (name: string, topic: string, parts: Partial<BoardWindow> = {}): BoardWindow => {
  const slug = name.toLowerCase().replace(/\W+/g, '-');
  return {
    wording: { name, topic, description: `About ${name}`, language: 'en', colour: 'teal', translations: [] },
    zone: 'America/Halifax',
    listedAt: Date.UTC(2026, 5, 1),
    see: `${ORIGIN}/see/${slug}`,
    feed: `${ORIGIN}/feed/${slug}.ics`,
    ...parts,
  };
};
const french = { language: 'fr', name: 'Heures du pont', description: '', topic: 'Trafic' };
const BRIDGE = window('Bridge times', 'Traffic');
const QUAY = window('Quay <events>', 'Events');
const ALL = [
  {
    ...QUAY,
    zone: 'Pacific/Pago_Pago',
    listedAt: Date.UTC(2026, 5, 9),
    wording: { ...QUAY.wording, place: 'Old quay' },
  },
  { ...BRIDGE, wording: { ...BRIDGE.wording, translations: [french] } },
  window('Anything', ''),
];
const page = (
  query: { find?: string; skip?: number; order?: Order; lang?: string; accepted?: string[] } = {},
  windows = ALL,
) =>
  boardPage(windows, {
    find: '',
    skip: 0,
    order: 'topic',
    accepted: [],
    origin: ORIGIN,
    assets: '/o/',
    ...query,
  });
const order = (text: string) =>
  [...text.matchAll(/<a href="https:\/\/w\.example\/see\/([^"/]+)">/g)].map((m) => m[1]);

describe('the board', () => {
  it('tells windows by topic, those with none last, each with its place, page and way to follow', () => {
    const text = page();
    expect(order(text)).toEqual(['quay-events-', 'bridge-times', 'anything']);
    expect(text).toContain('>Quay &lt;events&gt;</a>');
    expect(text).toContain('<bdi>Events</bdi> · <bdi>Old quay</bdi> · Times in Pacific/Pago Pago');
    expect(text).toContain('<h2 dir="auto">Other calendars</h2>');
    expect(text).toContain('href="https://w.example/see/bridge-times/follow"');
  });

  it('tells them by place too, those with none last', () => {
    const text = page({ order: 'place', find: 'a', lang: 'de' });
    expect(order(text)).toEqual(['quay-events-', 'anything', 'bridge-times']);
    expect(text).toContain('<h2 dir="auto">Old quay</h2>');
    expect(text).toContain(
      '<a href="/board?find=a&amp;lang=de&amp;by=place" aria-current="true">Nach Ort</a>',
    );
    expect(text).toContain('<a href="/board?find=a&amp;lang=de">Nach Thema</a>');
    expect(text).toContain('<input type="hidden" name="by" value="place">');
  });

  it('speaks the reader’s language, and names windows in it where they do', () => {
    const text = page({ accepted: ['fr-FR'] });
    expect(text).toContain('Tableau d’affichage');
    expect(text).toContain('<h3 lang="fr" dir="ltr">');
    expect(text).toContain('>Heures du pont</a>');
    expect(text).toContain('<h2 dir="auto">Trafic</h2>');
  });

  it('finds by name, description, topic and place, in any language of the window', () => {
    expect(order(page({ find: 'PAGO events' }))).toEqual(['quay-events-']);
    expect(order(page({ find: 'heures trafic' }))).toEqual(['bridge-times']);
    expect(order(page({ find: 'halifax' }))).toHaveLength(2);
    expect(order(page({ find: 'old quay' }))).toEqual(['quay-events-']);
    expect(page({ find: '<nothing>' })).toContain('No calendar found for “&lt;nothing&gt;”.');
    expect(page({}, [])).toContain('No calendar is listed here yet.');
  });

  it('shows a hundred at once', () => {
    const many = Array.from({ length: 130 }, (_, i) => window(`Window ${i}`, 'Many'));
    expect(order(page({ find: 'window', lang: 'de' }, many))).toHaveLength(100);
    expect(page({ find: 'window', lang: 'de' }, many)).toContain(
      'href="/board?find=window&amp;lang=de&amp;skip=100" rel="next"',
    );
    expect(order(page({ skip: 100 }, many))).toHaveLength(30);
    expect(order(page({ skip: 1e9 }, many))).toHaveLength(0);
  });
});

describe('its files', () => {
  const read = (text: string) => {
    expect(XMLValidator.validate(text)).toBe(true);
    return new XMLParser({ ignoreAttributes: false, isArray: (name) => name === 'outline' }).parse(text);
  };

  it('are an OPML with the feeds by topic', () => {
    const { outline } = read(boardOpml(ALL)).opml.body;
    expect(outline.map((o: Record<string, string>) => o['@_text'])).toEqual([
      'Events',
      'Traffic',
      'Anything',
    ]);
    expect(outline[0].outline[0]['@_xmlUrl']).toBe('https://w.example/feed/quay-events-.ics');
  });

  it('an Atom feed of new windows, newest first', () => {
    const { feed } = read(boardAtom(ALL, ORIGIN));
    expect(feed.updated).toBe('2026-06-09T00:00:00Z');
    expect(feed.entry.map((e: { title: string }) => e.title)).toEqual([
      'Quay <events>',
      'Anything',
      'Bridge times',
    ]);
    expect(read(boardAtom([], ORIGIN)).feed.updated).toBe('1970-01-01T00:00:00Z');
  });

  it('and a sitemap of what may be found', () => {
    const { url } = read(sitemap(ALL, ORIGIN)).urlset;
    expect(url.map((u: { loc: string }) => u.loc)).toEqual([`${ORIGIN}/board`, ...ALL.map((w) => w.see)]);
  });
});
