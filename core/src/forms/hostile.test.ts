import ICAL from 'ical.js';
import { XMLValidator } from 'fast-xml-parser';
import Papa from 'papaparse';
import { parse, type DefaultTreeAdapterTypes } from 'parse5';
import { describe, expect, it } from 'vitest';
import { outwardView, type OutwardView } from '../glass';
import { nextRevision } from '../reach';
import { STREET, entry, rulesOf, zoned, source } from '../testing/samples';
import { boardAtom, boardOpml, sitemap } from './board/boardFiles';
import { boardPage } from './board/boardPage';
import { entryFile } from './entryFile';
import { FORM_NAMES, fileNameOf, writeForm } from './formTable';
import { lintCalendar } from './lint/lintCalendar';
import { oEmbed, oEmbedXml } from './embed/oEmbed';
import type { PageOptions } from './page/choice';
import { writePage } from './page/page';
import { outwardSheet } from './sheet/linkSheet';
import { sheetCsv, sheetJson, sheetMail, sheetOpml } from './sheet/sheetFiles';
import { sheetPage } from './sheet/sheetPage';
import { speechFor } from './speech/speech';

/** Texts as somebody might write them who means ill, or whose program does. */
const HOSTILE = [
  'a\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nSUMMARY:b',
  'a\nATTENDEE:mailto:b@c.example',
  'a\u2028BEGIN:VALARM\u2029b\u0085c',
  '\u0000\u0001\u001b[31m\u007f\u009b',
  '\ud800 half \udfff',
  '</script><script>alert(1)</script>',
  '"><img src=x onerror=alert(1)>',
  "' onmouseover='alert(1)",
  '<!-- a --> <![CDATA[ b ]]>',
  '&lt;b&gt; &amp; &#60;i&#62;',
  '=HYPERLINK("x";"y")',
  '+1-2',
  '@SUM(A1)',
  '\tTabbed,semi;colon\\back\\n"quoted"',
  '{name} {count, plural, one {x}} {{ }} ${1} %s',
  '\u202eright to left\u202c \u2066isolated',
  'x'.repeat(3000),
  'é'.repeat(80) + '👩‍👩‍👧‍👦'.repeat(20),
  '\ufeffmark \ufffe\uffff',
  '__proto__',
];

const RANGE = { from: Date.UTC(2026, 0, 1), to: Date.UTC(2027, 0, 1) };
const NOW = Date.UTC(2026, 5, 10, 15);
const SEE = 'https://w.example/see/k';
const ADDRESSES = { see: SEE, feed: 'https://w.example/feed/k.ics' };
const SWITCHES = { joinLink: true, people: true, contact: true, planned: true };

/** A view in which a text stands wherever somebody can write one. */
function viewWith(text: string): OutwardView {
  const sources = ['a', 'b'].map((id) => ({ ...source(id, 'clear'), as: `${id} ${text}` }));
  const rules = rulesOf('clear', { sources, namesCalendars: true });
  const series = { rule: 'FREQ=DAILY;COUNT=3', dates: [], exceptDates: [] };
  const own = entry({
    start: zoned('2026-06-12T14:30'),
    end: zoned('2026-06-12T16:00'),
    title: `a ${text}`,
    place: text,
    description: text,
    labels: [`a ${text}`],
    people: [{ name: `a ${text}`, address: '' }],
    contact: `a ${text}`,
    properties: [{ name: `a ${text}`, value: `a ${text}` }],
    attachments: [{ name: `a ${text}`, href: 'https://ostrel.example/plan.pdf' }],
    recurrence: series,
  });
  const words = { name: `a ${text}`, description: `a ${text}`, topic: `a ${text}` };
  const wording = {
    ...rules.wording,
    ...words,
    contact: `a ${text}`,
    place: `a ${text}`,
    busyWord: `a ${text}`,
    remind: 30,
    translations: [{ ...words, language: 'fr' }],
  };
  return outwardView([own], { ...rules, wording, switches: SWITCHES }, RANGE, STREET);
}

const plain = viewWith('b');
const written = (name: (typeof FORM_NAMES)[number], view: OutwardView) =>
  writeForm(name, view, nextRevision(null, view, NOW), { addresses: ADDRESSES, now: NOW });

function pagesOf(view: OutwardView, text: string): string[] {
  const revision = nextRevision(null, view, NOW);
  const usual = { form: 'page', now: NOW, assets: '/o/', listed: true } as const;
  const addresses = {
    ...ADDRESSES,
    self: '/see/k',
    copy: '/copy/k.ics',
    oEmbed: 'https://w.example/oembed?url=x',
  };
  const write = (parts: Pick<PageOptions, 'query'> & Partial<PageOptions>) =>
    writePage(view, revision, { ...usual, addresses, ...parts });
  const { uid } = view.items[0]!;
  return [
    ...['list', 'week', 'month'].map((show) => write({ query: { show } })),
    write({ query: { show: 'list' }, form: 'embed' }),
    write({
      query: { find: text, tz: text, lang: text, from: text, clock: text, parts: text, accent: text },
    }),
    write({ query: {}, page: { kind: 'entry', uid, on: '' } }),
    write({ query: {}, page: { kind: 'entry', uid: text, on: text } }),
    write({ query: {}, page: { kind: 'follow' }, accepted: [text] }),
    write({ query: { theme: text, show: text }, page: { kind: 'settings' } }),
  ];
}

/** Returns the elements of a document with the names of their attributes: what is text in it is left away. */
function skeleton(html: string): string[] {
  const out: string[] = [];
  const walk = (node: DefaultTreeAdapterTypes.Node) => {
    if ('tagName' in node) out.push(`${node.tagName} ${node.attrs.map((a) => a.name).join(' ')}`);
    if ('childNodes' in node) node.childNodes.forEach(walk);
  };
  // How many hours a week has depends on how long its words are.
  walk(parse(html.replace(/<div class="ruler".*?<\/div>/s, '')));
  return out;
}

/** Names of components and properties, in their order. */
function lines(text: string): string[] {
  const tell = (component: ICAL.Component): string[] => [
    component.name,
    ...component.getAllProperties().map((p) => p.name),
    ...component.getAllSubcomponents().flatMap(tell),
  ];
  return tell(new ICAL.Component(ICAL.parse(text) as never));
}

describe.each(HOSTILE.map((text) => [JSON.stringify(text).slice(0, 40), text] as const))(
  '%s',
  (_name, text) => {
    const view = viewWith(text);

    it.each(['feed', 'copy', 'freeBusy'] as const)('is text and nothing else in the %s', (name) => {
      const document = written(name, view);
      expect(lines(document)).toEqual(lines(written(name, plain)));
      expect(lintCalendar(document)).toEqual([]);
      for (const line of document.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
      expect(fileNameOf(name, view, NOW)).toMatch(/^[a-z0-9-]+\.(ics|ifb)$/);
    });

    it('is text in the file of one entry', () => {
      const file = entryFile(
        view,
        nextRevision(null, view, NOW),
        { uid: view.items[0]!.uid, on: '' },
        SEE,
        NOW,
      )!;
      expect(lintCalendar(file.text)).toEqual([]);
      expect(file.name).toMatch(/^[a-z0-9-]+\.ics$/);
    });

    it('is text in jCal, in the table and in the feed of changes', () => {
      const names = (jCal: string) =>
        JSON.stringify(JSON.parse(jCal), (key, value) =>
          typeof value === 'string' && key !== '0' ? '' : value,
        );
      expect(names(written('jCal', view))).toBe(names(written('jCal', plain)));
      const rows = Papa.parse<string[]>(written('table', view), { skipEmptyLines: true });
      expect(rows.errors).toEqual([]);
      expect(rows.data.map((r) => r.length)).toEqual(
        Papa.parse<string[]>(written('table', plain), { skipEmptyLines: true }).data.map((r) => r.length),
      );
      for (const cell of rows.data.flat()) expect(cell).not.toMatch(/^[=+\-@\t\r]/);
      expect(XMLValidator.validate(written('changes', view))).toBe(true);
    });

    it('is text on every page, also where it comes in the address', () => {
      const [own, other] = [pagesOf(view, text), pagesOf(plain, 'b')];
      for (const [i, html] of own.entries()) {
        // What is found by it, and whether it is known, is another matter.
        if (i !== 4) expect(skeleton(html)).toEqual(skeleton(other[i]!));
        expect(
          skeleton(html).filter((e) => /^script(?! (src defer|type))|^img|onmouse|onerror/.test(e)),
        ).toEqual([]);
        expect(html).not.toMatch(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/);
      }
    });

    it('is text where the window is told of elsewhere', () => {
      const { name, description, topic, translations, colour, place = '' } = view.wording;
      const window = {
        wording: { name, description, topic, translations, colour, place, language: '' },
        zone: 'America/Halifax',
        listedAt: NOW,
        ...ADDRESSES,
      };
      const board = (words: string) =>
        boardPage([window], {
          find: words,
          skip: 0,
          order: 'place',
          lang: words,
          accepted: [words],
          origin: 'https://w.example',
          assets: '/o/',
        });
      expect(skeleton(board(text)).filter((e) => /^(script|img|b|i)\b|onmouse|onerror/.test(e))).toEqual([]);
      for (const xml of [
        boardOpml([window]),
        boardAtom([window], 'https://w.example'),
        sitemap([window], 'https://w.example'),
      ])
        expect(XMLValidator.validate(xml)).toBe(true);
      const sheet = (words: string) =>
        outwardSheet({ name: words, note: words, address: SEE, links: [{ ...window, shows: 'busy' }] });
      const { lang, accepted } = { lang: text, accepted: [text] };
      expect(skeleton(sheetPage(sheet(text), { lang, accepted, assets: '/o/' }))).toEqual(
        skeleton(sheetPage(sheet('b'), { lang, accepted, assets: '/o/' })),
      );
      expect(XMLValidator.validate(sheetOpml(sheet(text)))).toBe(true);
      expect(JSON.parse(sheetJson(sheet(text))).links).toHaveLength(1);
      for (const cell of Papa.parse<string[]>(sheetCsv(sheet(text))).data.flat())
        expect(cell).not.toMatch(/^[=+\-@\t\r]/);
      expect(sheetMail(sheet(text), speechFor('en'))).not.toMatch(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/);
      const told = oEmbed(
        { name, embed: 'https://w.example/embed/k', see: SEE, script: '', origin: 'https://w.example' },
        600,
        400,
      );
      expect(XMLValidator.validate(oEmbedXml(told))).toBe(true);
      expect(skeleton(String(told['html']))).toEqual([
        'html ',
        'head ',
        'body ',
        'iframe src title width height style loading',
      ]);
    });
  },
);
