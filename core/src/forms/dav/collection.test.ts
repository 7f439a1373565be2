import { XMLParser } from 'fast-xml-parser';
import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import { outwardView, type OutwardView, type WindowRules } from '../../glass';
import { canonical, type Entry } from '../../entries';
import { nextRevision, type Revision } from '../../reach';
import { RANGE } from '../../testing/arbitraries';
import { STREET, date, entry, rulesOf, zoned } from '../../testing/samples';
import type { Notice } from '../notice';
import { davAnswer, davForbidden, type DavAsked } from './collection';
import { Members } from './members';

const NOW = Date.UTC(2026, 5, 10, 15);
const ADDRESSES = {
  dav: 'https://w.example/dav/k/',
  see: 'https://w.example/see/k',
  feed: 'https://w.example/feed/k.ics',
};
const NS = 'xmlns="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav"';

const parser = new XMLParser({
  removeNSPrefix: true,
  ignoreAttributes: false,
  isArray: (name) => ['response', 'propstat', 'report', 'href', 'supported-report'].includes(name),
});

/** Of XML, as it was read. */
type Tree = ReturnType<XMLParser['parse']>;

/** A window over some entries, of which questions can be asked and which can change. */
function collection(entries: Entry[], rules: WindowRules = rulesOf('clear')) {
  let revision: Revision | null = null;
  let [now, all, by] = [NOW, entries, rules];
  let notice: Notice | null = null;
  return {
    change(next: Entry[], nextRules = by) {
      [all, by, now] = [next, nextRules, now + 60_000];
    },
    tell(next: Notice | null) {
      notice = next;
    },
    ask(parts: Partial<DavAsked>) {
      const view = outwardView(all, by, RANGE, STREET);
      revision = nextRevision(revision, view, now);
      const asked: DavAsked = {
        method: 'PROPFIND',
        name: '',
        deep: false,
        body: '',
        minimal: false,
        ...parts,
      };
      const answer = davAnswer(view, revision, { addresses: ADDRESSES, of: 'print', notice }, asked);
      const xml = answer.contentType.startsWith('application/xml') ? parser.parse(answer.text) : null;
      return { ...answer, xml, responses: (xml?.multistatus?.response ?? []) as Tree[], view };
    },
  };
}

const market = entry({ id: 'm', uid: 'm', title: 'Market', start: zoned('2026-06-12T10:00') });
const weekly = entry({
  id: 'w',
  uid: 'w',
  title: 'Tour & <tea>',
  start: zoned('2026-06-01T18:00'),
  recurrence: { rule: 'FREQ=WEEKLY;BYDAY=MO', dates: [], exceptDates: [] },
  overrides: [
    {
      slot: zoned('2026-06-15T18:00'),
      start: zoned('2026-06-16T19:00'),
      end: zoned('2026-06-16T20:00'),
      content: { ...entry({ start: date('2026-01-01') }), title: 'Late tour' },
    },
  ],
});
const regatta = entry({ id: 'r', uid: 'r', title: 'Regatta', start: date('2026-07-04') });

const prop = (inside: string) => `<propfind ${NS}><prop>${inside}</prop></propfind>`;
const sync = (token: string, data = false) =>
  `<sync-collection ${NS}><sync-token>${token}</sync-token><sync-level>1</sync-level><prop><getetag/>${data ? '<C:calendar-data/>' : ''}</prop></sync-collection>`;
const query = (inside: string, data = '<C:calendar-data/>') =>
  `<C:calendar-query ${NS}><prop><getetag/>${data}</prop><C:filter><C:comp-filter name="VCALENDAR">${inside}</C:comp-filter></C:filter></C:calendar-query>`;
const dataOf = (response: Tree) => response.propstat[0].prop['calendar-data'] as string;
const titles = (responses: Tree[]) =>
  responses.map((r) => /SUMMARY:(.*)/.exec(dataOf(r))![1]!.replace('\r', '')).sort();

describe('a collection', () => {
  it('says what it is, and what it does not know comes back as not found', () => {
    const { ask } = collection([market]);
    const body = prop(
      '<resourcetype/><displayname/><sync-token/><C:calendar-home-set/><x xmlns="urn:other"/><supported-report-set/>',
    );
    const { status, responses, learns } = ask({ body });
    expect([status, learns]).toEqual([207, { contents: false, had: null }]);
    const [response] = responses;
    expect(response.href).toEqual(['/dav/k/']);
    const [there, missing] = response.propstat;
    expect(Object.keys(there.prop.resourcetype)).toEqual(['collection', 'calendar']);
    expect(there.prop.displayname).toBe('Bridge times');
    expect(there.prop['calendar-home-set'].href).toEqual(['/dav/k/home/']);
    expect(there.prop['supported-report-set']['supported-report']).toHaveLength(8);
    expect(missing.status).toBe('HTTP/1.1 404 Not Found');
    expect(Object.keys(missing.prop)).toEqual(['x']);
    expect(ask({ body, minimal: true }).responses[0].propstat).toHaveLength(1);
  });

  it('is led to from the account, and lists its members with tags that stand for their bytes', () => {
    const { ask } = collection([market, weekly]);
    for (const name of ['home/', 'account/']) {
      const home = ask({ name, deep: true, body: prop('<resourcetype/>') }).responses;
      expect(home.map((r) => r.href[0])).toEqual([`/dav/k/${name}`, '/dav/k/']);
    }
    const listed = ask({ deep: true, body: prop('<getetag/>') }).responses.slice(1);
    expect(listed).toHaveLength(2);
    for (const { href, propstat } of listed) {
      const name = decodeURIComponent(href[0].split('/').at(-1));
      const { text, tag, status } = ask({ method: 'GET', name });
      expect([status, tag]).toEqual([200, propstat[0].prop.getetag]);
      expect(text).not.toContain('METHOD:');
      const parsed = new ICAL.Component(ICAL.parse(text) as never);
      expect(
        new Set(parsed.getAllSubcomponents('vevent').map((v) => v.getFirstPropertyValue('uid'))).size,
      ).toBe(1);
      expect(parsed.getAllSubcomponents('vtimezone')).toHaveLength(1);
    }
  });

  it('says its colour as programs ask for it', () => {
    const { ask } = collection([market]);
    const body = `<propfind xmlns="DAV:" xmlns:I="http://apple.com/ns/ical/"><prop><I:calendar-color/></prop></propfind>`;
    const [answer] = ask({ body }).responses;
    expect(answer.propstat[0].prop['calendar-color']).toBe('#4682B4');
  });

  it('has tags that depend on nothing but the bytes', () => {
    const tagsAndTexts = (view: OutwardView, revision: Revision) => {
      const members = new Members(view, revision, { addresses: ADDRESSES, of: 'print' }).all();
      return members.map((m) => ({ tag: m.tag, text: m.text() }));
    };
    const viewFrom = (from: number) =>
      outwardView([market, weekly], rulesOf('clear'), { ...RANGE, from }, STREET);
    const view = viewFrom(RANGE.from);
    const revision = nextRevision(null, view, NOW);
    // A view that was loaded from the database may have the keys of its objects in another order.
    const items = view.items.map((item) => JSON.parse(canonical(item)) as (typeof view.items)[number]);
    expect(items.map((i) => JSON.stringify(i))).not.toEqual(view.items.map((i) => JSON.stringify(i)));
    expect(tagsAndTexts({ ...view, items }, revision)).toEqual(tagsAndTexts(view, revision));
    // At New Year definitions of zones begin with another year.
    const years = [2025, 2026].map((year) => {
      const view = viewFrom(Date.UTC(year, 11, 31, 12) - 365 * 86_400_000);
      return tagsAndTexts(view, nextRevision(revision, view, NOW));
    }) as [ReturnType<typeof tagsAndTexts>, ReturnType<typeof tagsAndTexts>];
    for (const [i, { tag, text }] of years[0].entries())
      expect(tag === years[1][i]!.tag).toBe(text === years[1][i]!.text);
    expect(years[0].map((m) => m.text)).not.toEqual(years[1].map((m) => m.text));
  });

  it('refuses what is no request, with a condition that says why', () => {
    const { ask } = collection([market]);
    const bomb = '<!DOCTYPE p [<!ENTITY a "aaaa">]><propfind xmlns="DAV:"><allprop/></propfind>';
    const deep = '<a>'.repeat(50) + '</a>'.repeat(50);
    for (const body of [bomb, '<propfind', '<nothing/>', deep, `<propfind xmlns="DAV:">&x;</propfind>`])
      expect(ask({ body }).status).toBe(400);
    const unknown = ask({ method: 'REPORT', body: `<version-tree ${NS}/>` });
    expect(unknown.status).toBe(403);
    expect(unknown.xml.error).toHaveProperty('supported-report');
    expect(ask({ name: 'none.ics', body: prop('<getetag/>') }).status).toBe(404);
    expect(ask({ method: 'GET', name: 'none.ics' }).status).toBe(404);
    const forbidden = davForbidden('/dav/k/x.ics');
    expect(forbidden.status).toBe(403);
    expect(parser.parse(forbidden.text).error['need-privileges'].resource.href).toEqual(['/dav/k/x.ics']);
  });
});

describe('a query', () => {
  const { ask } = collection([market, weekly, regatta]);
  const asked = (inside: string, data?: string) => ask({ method: 'REPORT', body: query(inside, data) });
  const within = (start: string, end: string) =>
    `<C:comp-filter name="VEVENT"><C:time-range start="${start}" end="${end}"/></C:comp-filter>`;

  it('finds by time: dates of series, moved ones, whole days by the clocks of the host', () => {
    expect(titles(asked(within('20260612T120000Z', '20260612T140000Z')).responses)).toEqual(['Market']);
    // Its slot was moved from Monday to Tuesday.
    expect(titles(asked(within('20260615T120000Z', '20260616T120000Z')).responses)).toEqual([]);
    expect(titles(asked(within('20260616T215900Z', '20260616T220100Z')).responses)).toEqual(['Tour & <tea>']);
    expect(titles(asked(within('20260704T020000Z', '20260704T025900Z')).responses)).toEqual([]);
    expect(titles(asked(within('20260704T030000Z', '20260704T040000Z')).responses)).toEqual(['Regatta']);
    expect(asked('<C:comp-filter name="VTODO"/>').responses).toEqual([]);
    expect(asked('<C:comp-filter name="VTODO"><C:is-not-defined/></C:comp-filter>').responses).toHaveLength(
      3,
    );
  });

  it('reads dates and floating times by the clocks of the zone that it names', () => {
    const atQuay = entry({
      id: 'quay',
      title: 'Horn',
      start: { kind: 'floating', at: '2026-07-04T12:00:00' },
    });
    const { ask } = collection([market, regatta, atQuay]);
    const found = (zone: string, start: string, end: string, inside = '') => {
      const body = query(`<C:comp-filter name="VEVENT">${inside || range(start, end)}</C:comp-filter>`);
      return ask({ method: 'REPORT', body: body.replace('</C:filter>', `</C:filter>${zone}`) });
    };
    const range = (start: string, end: string) => `<C:time-range start="${start}" end="${end}"/>`;
    const named = (zone: string) => `<C:timezone-id>${zone}</C:timezone-id>`;
    const defined = (id: string, offset: string) =>
      `<C:timezone>${[
        ...['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:x', 'BEGIN:VTIMEZONE', `TZID:${id}`, 'BEGIN:STANDARD'],
        ...['DTSTART:19700101T000000', `TZOFFSETFROM:${offset}`, `TZOFFSETTO:${offset}`, 'END:STANDARD'],
        ...['END:VTIMEZONE', 'END:VCALENDAR'],
      ].join('\n')}</C:timezone>`;
    // 4 July in India begins at half past six in the evening before, in UTC; in Halifax at three in the morning.
    const evening = ['20260703T183000Z', '20260703T190000Z'] as const;
    for (const zone of [named('Asia/Kolkata'), defined('Asia/Kolkata', '+0530'), defined('Own', '+0530')])
      expect(titles(found(zone, ...evening).responses)).toEqual(['Regatta']);
    expect(titles(found('', ...evening).responses)).toEqual([]);
    // Noon there is 06:30 in UTC, and 15:00 where the host is. A time with a zone of its own stays where it is.
    const noon = ['20260704T063000Z', '20260704T064500Z'] as const;
    expect(titles(found(named('Asia/Kolkata'), ...noon).responses).sort()).toEqual(['Horn', 'Regatta']);
    expect(titles(found('', ...noon).responses)).toEqual(['Regatta']);
    const market12 = ['20260612T120000Z', '20260612T140000Z'] as const;
    expect(titles(found(named('Asia/Kolkata'), ...market12).responses)).toEqual(['Market']);
    // Where a property lies is asked in the same way.
    const starts = (...at: readonly [string, string]) =>
      `<C:prop-filter name="DTSTART">${range(...at)}</C:prop-filter>`;
    const startOf = (zone: string, ...at: readonly [string, string]) =>
      titles(found(zone, ...at, starts(...at)).responses);
    expect(startOf(named('Asia/Kolkata'), ...noon)).toEqual(['Horn']);
    expect(startOf('', '20260704T150000Z', '20260704T150100Z')).toEqual(['Horn']);
    expect(startOf(named('Asia/Kolkata'), ...evening)).toEqual(['Regatta']);
    for (const zone of [named('Nowhere/Town'), '<C:timezone>none</C:timezone>', defined('Own', '+0517')])
      expect(found(zone, ...noon).xml.error).toHaveProperty('valid-timezone');
  });

  it('finds by what entries say', () => {
    const says = (inside: string) =>
      titles(asked(`<C:comp-filter name="VEVENT">${inside}</C:comp-filter>`).responses);
    const match = (text: string, more = '') =>
      `<C:prop-filter name="SUMMARY"><C:text-match ${more}>${text}</C:text-match></C:prop-filter>`;
    expect(says(match('market'))).toEqual(['Market']);
    expect(says(match('market', 'collation="i;octet"'))).toEqual([]);
    expect(says(match('market', 'negate-condition="yes"'))).toEqual(['Regatta', 'Tour & <tea>']);
    expect(says('<C:prop-filter name="RRULE"/>')).toEqual(['Tour & <tea>']);
    // The date that was moved has none.
    expect(says('<C:prop-filter name="RRULE"><C:is-not-defined/></C:prop-filter>')).toHaveLength(3);
    const zone = '<C:param-filter name="TZID"><C:text-match>halifax</C:text-match></C:param-filter>';
    expect(says(`<C:prop-filter name="DTSTART">${zone}</C:prop-filter>`)).toHaveLength(2);
    expect(says('<C:comp-filter name="VALARM"/>')).toEqual([]);
    expect(asked(match('x', 'collation="i;other"')).xml.error).toHaveProperty('supported-collation');
    expect(asked(within('yesterday', 'today')).xml.error).toHaveProperty('valid-filter');
    expect(asked(within('20260612T120000Z', '20260611T120000Z')).status).toBe(403);
  });

  it('gives dates by themselves in UTC, some dates of a series, or some lines only', () => {
    const range = 'start="20260607T000000Z" end="20260617T000000Z"';
    const expanded = asked(
      within('20260607T000000Z', '20260617T000000Z'),
      `<C:calendar-data><C:expand ${range}/></C:calendar-data>`,
    );
    const tour = dataOf(expanded.responses.find((r) => dataOf(r).includes('Late')));
    expect(tour).not.toMatch(/RRULE|VTIMEZONE|TZID/);
    expect([...tour.matchAll(/RECURRENCE-ID:(\S+)/g)].map((m) => m[1])).toEqual([
      '20260608T210000Z',
      '20260615T210000Z',
    ]);
    expect([...tour.matchAll(/DTSTART:(\S+)/g)].map((m) => m[1])).toEqual([
      '20260608T210000Z',
      '20260616T220000Z',
    ]);

    const early = 'start="20260601T000000Z" end="20260602T000000Z"';
    const limited = asked(
      '<C:comp-filter name="VEVENT"><C:prop-filter name="RRULE"/></C:comp-filter>',
      `<C:calendar-data><C:limit-recurrence-set ${early}/></C:calendar-data>`,
    );
    expect(dataOf(limited.responses[0])).toContain('RRULE');
    expect(dataOf(limited.responses[0])).not.toContain('Late tour');

    const some =
      '<C:calendar-data><C:comp name="VCALENDAR"><C:prop name="VERSION"/><C:comp name="VEVENT"><C:prop name="SUMMARY"/></C:comp></C:comp></C:calendar-data>';
    const cut = asked(within('20260612T120000Z', '20260612T140000Z'), some).responses;
    expect(dataOf(cut[0]).trim().split(/\r?\n/)).toEqual([
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'BEGIN:VEVENT',
      'SUMMARY:Market',
      'END:VEVENT',
      'END:VCALENDAR',
    ]);
  });

  it('of many addresses gives those that are there', () => {
    const [response] = asked(within('20260612T120000Z', '20260612T140000Z')).responses;
    const hrefs = [
      response.href[0],
      `https://w.example${response.href[0]}`,
      '/dav/k/none.ics',
      '/dav/other/x.ics',
      '://',
    ];
    const body = `<C:calendar-multiget ${NS}><prop><C:calendar-data/></prop>${hrefs.map((h) => `<href>${h}</href>`).join('')}</C:calendar-multiget>`;
    const { responses, learns } = ask({ method: 'REPORT', body });
    expect(responses.map((r) => r.status ?? titles([r])[0])).toEqual([
      'Market',
      'Market',
      ...Array(3).fill('HTTP/1.1 404 Not Found'),
    ]);
    expect(learns).toEqual({ contents: true, had: null });
  });

  it('tells when time is taken', () => {
    const body = `<C:free-busy-query ${NS}><C:time-range start="20260612T000000Z" end="20260613T000000Z"/></C:free-busy-query>`;
    const { text, contentType, status } = ask({ method: 'REPORT', body });
    expect([status, contentType]).toEqual([200, 'text/calendar; charset=utf-8']);
    expect(text.match(/FREEBUSY;.*/g)).toEqual(['FREEBUSY;FBTYPE=BUSY:20260612T130000Z/20260612T140000Z']);
    expect(text).toContain('DTEND:20260613T000000Z');
    expect(ask({ method: 'REPORT', body: `<C:free-busy-query ${NS}/>` }).status).toBe(400);
  });
});

describe('syncing by difference', () => {
  it('tells everything first, then only what came, changed and left', () => {
    const window = collection([market, weekly]);
    const tokenOf = (a: { xml: Tree }) => a.xml.multistatus['sync-token'] as string;
    const first = window.ask({ method: 'REPORT', body: sync('', true) });
    expect(titles(first.responses)).toEqual(['Market', 'Tour & <tea>']);
    const same = window.ask({ method: 'REPORT', body: sync(tokenOf(first)) });
    expect([same.responses, tokenOf(same)]).toEqual([[], tokenOf(first)]);

    window.change([{ ...market, title: 'Night market' }, regatta]);
    const second = window.ask({ method: 'REPORT', body: sync(tokenOf(first), true) });
    const [there, left] = [
      second.responses.filter((r) => !r.status),
      second.responses.filter((r) => r.status),
    ];
    expect(titles(there)).toEqual(['Night market', 'Regatta']);
    expect(left).toHaveLength(1);
    expect(second.learns).toEqual({ contents: true, had: 1 });
    const uid = first.responses.find((r) => dataOf(r).includes('Tour')).href;
    expect(left[0].href).toEqual(uid);
    expect(JSON.stringify(left)).not.toMatch(/SUMMARY|2026/);

    for (const bad of ['data:,9-print-abc', 'data:,1-other-abc', 'nonsense', 'data:,0-print-abc']) {
      const refused = window.ask({ method: 'REPORT', body: sync(bad) });
      expect([refused.status, Object.keys(refused.xml.error)]).toEqual([
        403,
        expect.arrayContaining(['valid-sync-token']),
      ]);
    }
  });

  it('expands properties that name another resource, and knows one principal', () => {
    const { ask } = collection([market]);
    const report = (body: string, name = '') => ask({ method: 'REPORT', name, body });
    const expand = `<expand-property ${NS}>
      <property name="displayname"/><property name="nothing" namespace="urn:other"/>
      <property name="current-user-principal"><property name="displayname"/>
        <property name="calendar-home-set" namespace="urn:ietf:params:xml:ns:caldav"><property name="current-user-principal"/></property>
      </property></expand-property>`;
    const { status, responses } = report(expand);
    expect(status).toBe(207);
    const [found, missing] = responses[0].propstat;
    expect([found.prop.displayname, missing.status]).toEqual(['Bridge times', 'HTTP/1.1 404 Not Found']);
    const [account] = found.prop['current-user-principal'].response;
    expect([account.href, account.propstat[0].prop.displayname]).toEqual([
      ['/dav/k/account/'],
      'Bridge times',
    ]);
    const [home] = account.propstat[0].prop['calendar-home-set'].response;
    expect(home.href).toEqual(['/dav/k/home/']);
    expect(home.propstat[0].prop['current-user-principal'].href).toEqual(['/dav/k/account/']);
    expect(report(`<expand-property ${NS}><property name="a b"/></expand-property>`).status).toBe(400);
    const nested =
      '<property name="owner">'.repeat(10) + '<property name="owner"/>'.repeat(91) + '</property>'.repeat(10);
    expect(report(`<expand-property ${NS}>${nested}</expand-property>`).status).toBe(507);

    const match = report(`<principal-match ${NS}><self/><prop><principal-URL/></prop></principal-match>`);
    expect(match.responses.map((r) => r.href)).toEqual([['/dav/k/account/']]);
    const search = `<principal-property-search ${NS}><property-search><prop><displayname/></prop><match>B</match></property-search></principal-property-search>`;
    expect(report(search).responses).toEqual([]);
    expect(report(`<principal-search-property-set ${NS}/>`, 'account/').status).toBe(200);
  });

  describe('in parts', () => {
    const many = Array.from({ length: 7 }, (_, i) =>
      entry({ id: `e${i}`, uid: `e${i}`, title: `No. ${i}`, start: zoned(`2026-06-1${i}T10:00`) }),
    );
    /** A program that asks for a few members at a time, and does what the answers say. */
    function program(window: ReturnType<typeof collection>, limit: number) {
      const held = new Map<string, string>();
      let token = '';
      const step = () => {
        const body = sync(token).replace('<prop>', `<limit><nresults>${limit}</nresults></limit><prop>`);
        const { status, responses, xml, learns } = window.ask({ method: 'REPORT', body });
        expect(status).toBe(207);
        const [more, members] = [true, false].map((isWhole) =>
          responses.filter((r) => (r.href[0] === '/dav/k/') === isWhole),
        );
        expect(members!.length).toBeLessThanOrEqual(limit);
        for (const { href, propstat, status: gone } of members!)
          if (gone) held.delete(href[0]);
          else held.set(href[0], propstat[0].prop.getetag);
        token = xml!.multistatus['sync-token'];
        if (more!.length) {
          expect([more![0]!.status, learns]).toEqual(['HTTP/1.1 507 Insufficient Storage', null]);
          expect(Object.keys(more![0]!.error)).toEqual(['number-of-matches-within-limits']);
        }
        return more!.length > 0;
      };
      return { held, step };
    }
    const whole = (window: ReturnType<typeof collection>) => {
      const { responses } = window.ask({ method: 'REPORT', body: sync('') });
      return new Map(responses.map((r) => [r.href[0], r.propstat[0].prop.getetag]));
    };

    it.each([1, 2, 3, 7, 50])('of %s gives the same in the end', (limit) => {
      const window = collection(many);
      const { held, step } = program(window, limit);
      while (step());
      expect(held).toEqual(whole(window));
      window.change([...many.slice(3), { ...many[0]!, title: 'Moved' }]);
      while (step());
      expect(held).toEqual(whole(window));
    });

    it.each([1, 2, 3])('of %s gives the same in the end if it changes between them', (limit) => {
      const window = collection(many);
      const { held, step } = program(window, limit);
      expect(step()).toBe(true);
      // Some of what was sent leaves, some that was not sent yet, and something comes.
      window.change([...many.slice(1, 6), entry({ id: 'n', uid: 'n', start: zoned('2026-06-20T10:00') })]);
      expect(step()).toBe(true);
      window.tell({ ends: 'window', to: null, at: NOW, until: NOW + 86_400_000 });
      while (step());
      expect(held).toEqual(whole(window));
      window.tell(null);
      window.change(many.slice(2, 5));
      expect(step()).toBe(true);
      window.change(many.slice(4));
      while (step());
      expect(held).toEqual(whole(window));
    });

    it('is not gone on with after a revision of another history', () => {
      const [window, other] = [collection(many), collection(many.slice(1))];
      const body = (token: string) =>
        sync(token).replace('<prop>', '<limit><nresults>2</nresults></limit><prop>');
      const token = window.ask({ method: 'REPORT', body: body('') }).xml!.multistatus['sync-token'];
      expect(other.ask({ method: 'REPORT', body: body(token) }).status).toBe(403);
    });
  });

  it('finds a task that is due at the very end of a range, and none at its start', () => {
    const at = '2026-06-12T10:00';
    const due = entry({ id: 'd', uid: 'd', title: 'Survey', kind: 'due', start: zoned(at), end: zoned(at) });
    const rules = rulesOf('clear');
    const window = collection([due], { ...rules, wording: { ...rules.wording, dueAs: 'task' } });
    const found = (start: string, end: string) =>
      window.ask({
        method: 'REPORT',
        body: query(
          `<C:comp-filter name="VTODO"><C:time-range start="${start}" end="${end}"/></C:comp-filter>`,
        ),
      }).responses.length;
    expect(found('20260612T120000Z', '20260612T130000Z')).toBe(1);
    expect(found('20260612T130000Z', '20260612T140000Z')).toBe(0);
    expect(found('20260612T110000Z', '20260612T125959Z')).toBe(0);
  });

  it('tells all members again once something changed that all of them say, and that a notice came and went', () => {
    const window = collection([market]);
    const ask = (token = '') => window.ask({ method: 'REPORT', body: sync(token) });
    const tokenOf = (a: { xml: Tree }) => a.xml.multistatus['sync-token'] as string;
    const tags = (a: { responses: Tree[] }) =>
      a.responses.map((r) => r.propstat?.[0].prop.getetag ?? r.status);
    const first = ask();
    const rules = rulesOf('clear');
    window.change([market], { ...rules, wording: { ...rules.wording, remind: 30 } });
    const second = ask(tokenOf(first));
    expect(second.responses).toHaveLength(1);
    expect(tags(second)).not.toEqual(tags(first));
    window.tell({ ends: 'window', to: null, at: NOW, until: NOW + 86_400_000 });
    const ended = ask(tokenOf(second));
    expect(ended.responses.map((r) => r.href[0])).toEqual([expect.stringContaining('-ends.ics')]);
    window.tell({ ends: 'address', to: null, at: NOW, until: NOW + 86_400_000 });
    const third = ask(tokenOf(ended));
    expect(third.responses.map((r) => r.href[0])).toEqual([
      expect.stringContaining('-unlisted.ics'),
      expect.stringContaining('-ends.ics'),
    ]);
    window.tell(null);
    const fourth = ask(tokenOf(third));
    expect(fourth.responses.map((r) => r.status)).toEqual(['HTTP/1.1 404 Not Found']);
    expect(ask(tokenOf(fourth)).responses).toEqual([]);
  });

  it('answers no request with many times its own size', () => {
    const many = Array.from({ length: 3000 }, (_, i) =>
      entry({ id: `e${i}`, uid: `e${i}`, title: `Entry ${i}`, start: zoned('2026-06-12T10:00') }),
    );
    const window = collection(many);
    const propfind = (props: string) =>
      window.ask({ deep: true, body: `<propfind ${NS}><prop>${props}</prop></propfind>` });
    const multiget = (hrefs: string) =>
      window.ask({
        method: 'REPORT',
        body: `<C:calendar-multiget ${NS}><prop><getetag/><C:calendar-data/></prop>${hrefs}</C:calendar-multiget>`,
      });

    // What is named more than once is answered once.
    const once = propfind('<getetag/><x xmlns="urn:x"/>');
    const often = propfind('<getetag/><x xmlns="urn:x"/>'.repeat(5_000));
    expect([often.status, often.text]).toEqual([207, once.text]);
    const href = `<href>${once.responses[1].href[0]}</href>`;
    expect(multiget(href.repeat(5_000)).text).toBe(multiget(href).text);

    // Too many different ones are refused before anything is written.
    const names = Array.from({ length: 5_000 }, (_, i) => `<p${i} xmlns="urn:x"/>`).join('');
    const { status, text } = propfind(names);
    expect([status, text.includes('number-of-matches-within-limits')]).toEqual([507, true]);
    const few = Array.from({ length: 90 }, (_, i) => `<p${i} xmlns="urn:x"/>`).join('');
    expect(propfind(few).status).toBe(507);
    expect(window.ask({ body: `<propfind ${NS}><prop>${few}</prop></propfind>` }).status).toBe(207);
  });

  it('sends less than a hundredth of everything after one change of many', () => {
    const many = Array.from({ length: 3000 }, (_, i) =>
      entry({
        id: `e${i}`,
        uid: `e${i}`,
        title: `Entry ${i}`,
        start: zoned(`2026-06-${10 + (i % 20)}T10:00`),
      }),
    );
    const window = collection(many);
    const first = window.ask({ method: 'REPORT', body: sync('', true) });
    window.change(many.map((e, i) => (i === 7 ? { ...e, title: 'Changed' } : e)));
    const second = window.ask({
      method: 'REPORT',
      body: sync(first.xml.multistatus['sync-token'], true),
    });
    expect(titles(second.responses)).toEqual(['Changed']);
    expect(second.text.length).toBeLessThan(first.text.length / 100);
  });
});
