import { compareText } from '../../entries';
import { opmlFile, opmlLine } from '../opml';
import { html, type Html } from '../page/html';
import { XML_HEAD, momentOf, xmlSafe } from '../xml';
import { grouped, type BoardWindow } from './board';

/** The newest windows that the feed tells of. */
const MOST_NEW = 50;
/** A sitemap holds no more addresses (sitemaps.org protocol 0.9). */
const MOST_ADDRESSES = 50_000;

/** Returns all listed windows as an OPML 2.0 file, by topic. */
export function boardOpml(windows: readonly BoardWindow[]): string {
  return opmlFile(
    'Notice board',
    grouped(windows, []).map(({ heading, windows: own }) =>
      heading
        ? html`<outline text="${xmlSafe(heading)}">
${own.map(opmlLine)}</outline>
`
        : html`${own.map(opmlLine)}`,
    ),
  );
}

/** Returns the windows that were listed last as an Atom feed (RFC 4287), newest first. */
export function boardAtom(windows: readonly BoardWindow[], origin: string): string {
  const newest = [...windows]
    .sort((a, b) => b.listedAt - a.listedAt || compareText(a.see, b.see))
    .slice(0, MOST_NEW);
  const entry = (w: BoardWindow): Html => html`<entry>
<id>${w.see}</id>
<title>${xmlSafe(w.wording.name)}</title>
<updated>${momentOf(w.listedAt)}</updated>
<link rel="alternate" type="text/html" href="${w.see}"/>
<summary>${xmlSafe([w.wording.topic, w.wording.place, w.wording.description].filter(Boolean).join(' · '))}</summary>
</entry>
`;
  return `${XML_HEAD}${
    html`<feed xmlns="http://www.w3.org/2005/Atom">
<id>${origin}/board</id>
<title>Notice board</title>
<updated>${momentOf(newest[0]?.listedAt ?? 0)}</updated>
<author><name>Notice board</name></author>
<link rel="self" type="application/atom+xml" href="${origin}/board.atom"/>
<link rel="alternate" type="text/html" href="${origin}/board"/>
${newest.map(entry)}</feed>
`.text
  }`;
}

/** Returns the addresses that search engines may list (sitemaps.org protocol 0.9): the board, and each listed window. */
export function sitemap(windows: readonly BoardWindow[], origin: string): string {
  const addresses = [`${origin}/board`, ...windows.map((w) => w.see)].slice(0, MOST_ADDRESSES);
  return `${XML_HEAD}${
    html`<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">
${addresses.map(
  (a) => html`<url><loc>${a}</loc></url>
`,
)}</urlset>
`.text
  }`;
}
