import { describe, expect, it } from 'vitest';
import { outwardView, type Glass, type OutwardView, type WindowRules } from '../../glass';
import { nextRevision } from '../../reach';
import { STREET, date, entry, rulesOf, source, zoned } from '../../testing/samples';
import { occurrencesOfView } from '../../glass';
import { entryFile } from '../entryFile';
import { lintCalendar } from '../lint/lintCalendar';
import type { PageOptions } from './choice';
import { writeForm } from '../formTable';
import { writtenPage } from './page';

const RANGE = { from: Date.UTC(2026, 0, 1), to: Date.UTC(2027, 0, 1) };
const NOW = Date.UTC(2026, 5, 10, 15);
const SEE = 'https://w.example/see/k';
const ADDRESSES = { self: '/see/k', see: SEE, feed: 'https://w.example/feed/k.ics', copy: '/copy/k.ics' };

const LECTURE = entry({
  id: 'lecture',
  title: 'Tide lecture',
  place: 'Pilot’s loft',
  description: 'With lamps & slides',
  start: zoned('2026-06-12T14:30'),
  end: zoned('2026-06-12T16:00'),
});
const MARKET = entry({
  id: 'market',
  title: 'Market',
  start: zoned('2026-06-13T09:00'),
  end: zoned('2026-06-13T12:00'),
  recurrence: { rule: 'FREQ=WEEKLY;COUNT=30', dates: [], exceptDates: [] },
});

type Entries = Parameters<typeof outwardView>[0];

function viewOf(entries: Entries, glass: Glass = 'clear', wording: Partial<OutwardView['wording']> = {}) {
  const rules = rulesOf(glass);
  return outwardView(entries, { ...rules, wording: { ...rules.wording, ...wording } }, RANGE, STREET);
}

function write(view: OutwardView, options: Partial<PageOptions> = {}) {
  const usual = { form: 'page', query: {}, now: NOW, addresses: ADDRESSES, assets: '/o/' } as const;
  return writtenPage(view, nextRevision(null, view, NOW), { ...usual, ...options });
}

const page = (entries: Entries, options: Partial<PageOptions> = {}, glass: Glass = 'clear') =>
  write(viewOf(entries, glass), options).html;

describe('a page in the reader’s way', () => {
  it('speaks the language of the reader, tells times by that clock and begins weeks on that day', () => {
    const american = page([LECTURE], { accepted: ['en-US'] });
    expect(american).toContain('<html lang="en-US"');
    expect(american).toMatch(/2:30\sPM/);
    expect(american.indexOf('title="Sunday"')).toBeLessThan(american.indexOf('title="Monday"'));
    const french = page([LECTURE], { accepted: ['fr'], query: { show: 'list', clock: '24' } });
    expect(french).toContain('Aller aux entrées');
    expect(french).toContain('ven. 12 juin');
    expect(page([LECTURE], { accepted: ['fr'], query: { lang: 'de' } })).toContain('Zu den Einträgen');
  });

  it('takes along what was chosen, and only that, from page to page', () => {
    const text = page([LECTURE], { query: { tz: 'Asia/Kolkata', lang: 'de', clock: '12', week: 'sunday' } });
    const along = 'tz=Asia%2FKolkata&amp;lang=de&amp;clock=12&amp;week=sunday';
    for (const link of [`/see/k/settings?${along}`, `/see/k/follow?${along}`]) expect(text).toContain(link);
    expect(text).toContain('<input type="hidden" name="tz" value="Asia/Kolkata">');
    // The way back to the host's clocks says so, or what is kept would take its place.
    expect(text).toContain('href="/see/k?tz=&amp;lang=de');
    expect(page([LECTURE])).not.toContain('tz=');
  });

  it('has the list of zones on a page of its own', () => {
    expect(page([LECTURE])).not.toContain('Pacific/Auckland');
    const settings = page([], { page: { kind: 'settings' }, query: { tz: 'Pacific/Auckland' } });
    expect(settings).toContain('<option value="Pacific/Auckland" selected>');
    expect(settings).toContain('<option value="de">Deutsch</option>');
  });

  it('lays a window in a right-to-left language out from the right, and times from the left', () => {
    const arabic = { language: 'ar', name: 'أوقات الجسر' };
    const view = viewOf([{ ...LECTURE, title: 'محاضرة' }], 'clear', {
      translations: [{ ...arabic, description: '', topic: '' }],
    });
    const text = write(view, { query: { lang: 'ar', show: 'list' } }).html;
    expect(text).toContain('<header lang="ar" dir="rtl">');
    expect(text).toContain('<main id="entries" dir="rtl">');
    expect(text).toContain('<span class="time" dir="ltr">14:30–16:00</span>');
    expect(text).toMatch(/<a class="what" dir="auto"[^>]*>محاضرة/);
    expect(write(view, { query: { show: 'list' } }).html).not.toContain('dir="rtl"');
    expect(write(view, { accepted: ['ar'] }).html).toContain('dir="rtl"');
  });

  it('says as of when it is true', () => {
    expect(page([])).toContain('True as of Wed, 10 Jun 2026 at 12:00 (America/Halifax)');
  });
});

describe('the views', () => {
  it.each(['list', 'week', 'month'])('say in the %s when busy time ends', (show) => {
    const text = page([LECTURE], { query: { show, from: '2026-06-10' } }, 'frosted');
    expect(text).toContain('14:30–16:00');
    expect(text).not.toContain('Tide lecture');
    const night = { ...LECTURE, end: zoned('2026-06-13T06:15') };
    expect(page([night], { query: { show, from: '2026-06-10' } }, 'frosted')).toContain('06:15');
  });

  it('draw a week by the hour: where each entry is, and side by side what would cover each other', () => {
    const other = { ...LECTURE, id: 'other', title: 'Other', start: zoned('2026-06-12T15:00') };
    const text = page([LECTURE, other], { query: { show: 'week', from: '2026-06-10' } });
    const places = [...text.matchAll(/<li class="confirmed ([^"]*)">/g)].map((m) => m[1]!.split(' '));
    const sum = (place: string[], name: string) =>
      place.flatMap((c) => (c.startsWith(name) ? [Number(c.slice(1))] : [])).reduce((a, b) => a + b, 0);
    // Quarters of an hour from 8 o'clock on.
    expect(places.map((p) => [sum(p, 's'), sum(p, 'n'), p.includes('of2')])).toEqual([
      [26, 6, true],
      [28, 4, true],
    ]);
    expect(places.map((p) => sum(p, 'l'))).toEqual([0, 1]);
    expect(text).toContain('<li>08:00</li>');
    expect(text).not.toContain('<li>07:00</li>');
  });

  it('leave to the list what does not fit, and the list to its next page', () => {
    const many = Array.from({ length: 200 }, (_, i) => ({ ...LECTURE, id: `n${i}`, title: `No ${i}` }));
    const late = { ...LECTURE, id: 'late', start: zoned('2026-06-20T10:00'), end: zoned('2026-06-20T11:00') };
    expect(page(many)).toContain('189 more');
    expect(page(many, { query: { show: 'week' } })).toContain('198 more');
    const list = page([...many, late], { query: { show: 'list' } });
    expect(list).toContain('No 199');
    expect(list).not.toContain('2026-06-20T');
    expect(list).toContain('from=2026-06-20" rel="next"');
  });
});

describe('calendars of one window', () => {
  const works = entry({ ...LECTURE, id: 'works', calendarId: 'b', title: 'Pile driving', labels: ['Noise'] });
  const lecture = { ...LECTURE, labels: ['Talk'] };
  const sources = [
    { ...source('a', 'clear'), as: 'Quay' },
    { ...source('b', 'clear'), as: 'Works' },
  ];
  const named = (parts: Partial<WindowRules> = {}) =>
    outwardView(
      [lecture, works],
      rulesOf('clear', { sources, namesCalendars: true, ...parts }),
      RANGE,
      STREET,
    );
  const shown = (query: PageOptions['query'], view = named()) =>
    write(view, { query: { show: 'list', ...query } }).html;

  it('are named with each entry, and switched on and off by links that go on from page to page', () => {
    const both = shown({});
    expect(both).toContain(
      'swatch-2" title="Works"><span class="unseen">Works: </span></span><a class="what"',
    );
    expect(both).toContain(
      'href="/see/k?calendars=2&amp;show=list&amp;from=2026-06-10" class="on-show" aria-label="Hide Quay"',
    );
    const one = shown({ calendars: '2' });
    expect(one).toContain('>Pile driving</a>');
    expect(one).not.toContain('Tide lecture');
    expect(one).toContain('aria-label="Show Quay"');
    expect(one).toContain('calendars=2&amp;show=week');
    for (const nothing of ['', '3', '0.x', '1.2'])
      expect(shown({ calendars: nothing })).toContain('Tide lecture');
  });

  it('are chosen by label too, as far as labels go out', () => {
    const text = shown({ label: 'NOISE' });
    expect(text).toContain('>Pile driving</a>');
    expect(text).not.toContain('Tide lecture</a>');
    expect(text).toContain('<option value="Noise" selected>Noise</option>');
    // An embed offers them where it has the field to find something.
    const embed = (parts: string) => write(named(), { form: 'embed', query: { parts } }).html;
    expect(embed('legend,find')).toContain('name="label"');
    expect(embed('legend')).not.toContain('name="label"');
    expect(embed('legend')).toContain('class="legend"');
    const tinted = sources.map((s) => ({ ...s, glass: 'tinted' as const }));
    expect(shown({}, named({ sources: tinted }))).not.toContain('name="label"');
  });

  it('are not told apart unless the window says so, and not where only busy times are seen', () => {
    expect(shown({}, named({ namesCalendars: false }))).not.toContain('Works');
    const frosted = sources.map((s) => ({ ...s, glass: 'frosted' as const }));
    expect(shown({}, named({ sources: frosted }))).not.toContain('Works');
  });

  it('stand in feeds as categories, and in tables as a column', () => {
    const view = named();
    const revision = nextRevision(null, view, NOW);
    const setting = { addresses: ADDRESSES, now: NOW };
    expect(writeForm('feed', view, revision, setting)).toMatch(/SUMMARY:Pile driving[^]*?CATEGORIES:Works/);
    expect(writeForm('table', view, revision, setting)).toMatch(/End offset,Calendar\r\n/);
  });
});

describe('the first view', () => {
  const first = (now: string, wording = {}, options: Partial<PageOptions> = {}) =>
    /<span aria-current="true">(\w+)</.exec(
      write(viewOf([LECTURE], 'clear', wording), { now: Date.parse(now), ...options }).html,
    )![1];

  it('is the month, and the list where the month is nearly over, unless the window or the reader says otherwise', () => {
    expect(first('2026-06-10T15:00Z')).toBe('Month');
    expect(first('2026-06-24T02:00Z')).toBe('Month');
    expect(first('2026-06-24T15:00Z')).toBe('List');
    expect(first('2026-06-29T15:00Z', { firstView: 'week' })).toBe('Week');
    expect(first('2026-06-29T15:00Z', {}, { query: { from: '2026-07-01' } })).toBe('Month');
    expect(first('2026-06-29T15:00Z', {}, { query: { show: 'month' } })).toBe('Month');
    expect(first('2026-06-10T15:00Z', {}, { form: 'embed' })).toBe('List');
  });

  it('says that a month is empty where only narrow screens show what follows', () => {
    const later = { ...MARKET, start: zoned('2026-07-10T09:00'), end: zoned('2026-07-10T12:00') };
    const now = Date.parse('2026-06-20T15:00Z');
    expect(write(viewOf([later]), { now }).html).toContain('class="none wide"');
    expect(write(viewOf([MARKET]), { now }).html).not.toContain('class="none');
  });

  it('goes on after the end of the month on narrow screens', () => {
    const text = write(viewOf([MARKET]), { now: Date.parse('2026-06-20T15:00Z') }).html;
    expect(text).toContain('<tr class="beyond">');
    expect(text).toMatch(/other next weekend"><time datetime="2026-07-11">/);
    expect(write(viewOf([MARKET]), { query: { show: 'month', from: '2026-08-01' } }).html).not.toContain(
      'beyond',
    );
  });
});

it('shows the image of an entry below the address of the page, with its text, through clear glass only', () => {
  const image = { name: 'ab'.repeat(16), alt: 'Stalls & "boats"', width: 640, height: 480 };
  const entries = [{ ...LECTURE, image }];
  const list = { query: { show: 'list' } } as const;
  const shown = `src="/see/k/image/${image.name}.webp" alt="Stalls &amp; &quot;boats&quot;" width="640" height="480"`;
  expect(page(entries, list)).toContain(shown);
  expect(page(entries, list, 'tinted')).not.toContain('<img');
  // The addresses of a preview are no URLs.
  const preview = { ...list, addresses: { ...ADDRESSES, see: 'The address follows' } };
  expect(page(entries, preview)).toContain(`src="The address follows/image/${image.name}.webp"`);
});

it('says that time stays free only where other time is taken', () => {
  const free = { ...LECTURE, id: 'free', shows: 'free' as const };
  const list = (entries: Entries) => page(entries, { query: { show: 'list' } });
  expect(list([free])).not.toContain('the time stays free');
  expect(list([free, MARKET])).toContain('the time stays free');
});

it('names the year only where it is another one', () => {
  const text = page([MARKET], { query: { show: 'list', from: '2026-12-20' } });
  expect(text).toContain('<h2>Sun 20 Dec to Mon, 18 Jan 2027</h2>');
});

describe('finding', () => {
  it('shows every time at which all words are found, from the first day on, in whatever case and accent', () => {
    const text = page([LECTURE, MARKET], { query: { find: 'LECTURE  lamps', from: '2026-06-10' } });
    expect(text).toContain('One time found for “LECTURE  lamps” from Wed 10 Jun on.');
    expect(text).toContain('>Tide lecture</a>');
    expect(text).not.toContain('Market');
    expect(page([LECTURE, MARKET], { query: { find: 'market' } })).toContain('29 times found');
    expect(page([LECTURE], { query: { find: 'lecture', from: '2026-06-13' } })).toContain('Nothing found');
  });

  it('finds nothing that the glass keeps back', () => {
    expect(page([LECTURE], { query: { find: 'lamps' } }, 'tinted')).toContain('Nothing found');
    expect(page([LECTURE], { query: { find: 'lecture' } }, 'frosted')).toContain('Nothing found');
    expect(page([LECTURE], { query: { find: 'taken' } }, 'frosted')).toContain('One time found');
  });

  it('shows fifty and tells how to go on', () => {
    const daily = { ...MARKET, recurrence: { rule: 'FREQ=DAILY;COUNT=70', dates: [], exceptDates: [] } };
    const text = page([daily], { query: { find: 'market' } });
    expect(text.match(/<li class=/g)).toHaveLength(50);
    expect(text).toContain('Only the first 50 are shown. Continue from Sat 1 Aug.');
    expect(text).toContain('from=2026-08-01&amp;find=market" rel="next"');
  });
});

describe('an entry’s page', () => {
  const view = viewOf([LECTURE, MARKET]);
  const [lecture, market] = ['Tide lecture', 'Market'].map(
    (t) => occurrencesOfView(view).find((o) => o.content?.title === t)!.uid,
  );

  it('is where the list leads to, and tells the entry with its file', () => {
    expect(page([LECTURE], { query: { show: 'list' } })).toContain(
      `href="/see/k/${lecture}?on=2026-06-12T14%3A30%3A00"`,
    );
    const { html, found } = write(view, { page: { kind: 'entry', uid: lecture!, on: '' } });
    expect(found).toBe(true);
    expect(html).toContain('With lamps &amp; slides');
    expect(html).toContain(`href="/copy/k/${lecture}.ics" download>Add just this one`);
    expect(html).not.toContain('Market');
  });

  it('offers a date of a series alone, or all of them', () => {
    const on = '2026-06-20T09:00:00';
    const { html } = write(view, { page: { kind: 'entry', uid: market!, on } });
    expect(html).toContain(
      `href="/copy/k/${market}.ics?on=2026-06-20T09%3A00%3A00" download>Add just this date`,
    );
    expect(html).toContain(`href="/copy/k/${market}.ics" download>Add all its dates`);
    expect(html).toContain('9 more dates follow.');
    const revision = nextRevision(null, view, NOW);
    const one = entryFile(view, revision, { uid: market!, on }, SEE, NOW)!;
    expect(one.text).toContain(`UID:${market}-20260620T090000\r\nDTSTAMP`);
    expect(one.text).toContain('DTSTART;TZID=America/Halifax:20260620T090000');
    expect(one.text).not.toMatch(/RRULE|RECURRENCE-ID|X-WR-CALNAME/);
    const all = entryFile(view, revision, { uid: market!, on: '' }, SEE, NOW)!;
    expect(all.text).toContain('RRULE:FREQ=WEEKLY');
    expect([one.name, all.name]).toEqual(['market.ics', 'market.ics']);
    for (const { text } of [one, all]) expect(lintCalendar(text)).toEqual([]);
  });

  it.each([
    ['that is not shown', '00000000-0000-8000-8000-000000000000', ''],
    ['on a date on which it is not', market!, '2026-06-21T09:00:00'],
  ])('of one %s says so', (_what, uid, on) => {
    const { html, found } = write(view, { page: { kind: 'entry', uid, on } });
    expect(found).toBe(false);
    expect(html).toContain('This entry is not shown here');
    expect(entryFile(view, nextRevision(null, view, NOW), { uid, on }, SEE, NOW)).toBeNull();
  });
});

describe('what programs that pass a page on are told', () => {
  const view = viewOf([{ ...LECTURE, title: 'Talk </script><b>' }]);
  const { uid } = occurrencesOfView(view)[0]!;
  const entryPage = { page: { kind: 'entry', uid, on: '' } } as const;

  it('is nothing where the window is not listed', () => {
    for (const options of [{}, entryPage])
      expect(write(view, options).html).not.toMatch(/og:|ld\+json|canonical/);
  });

  it('is its name and address where it is, and of an entry an event', () => {
    expect(write(view, { listed: true }).html).toContain(`<meta property="og:url" content="${SEE}">`);
    const { html } = write(view, { listed: true, ...entryPage });
    const [, json] = /<script type="application\/ld\+json">(.*?)<\/script>/.exec(html)!;
    expect(JSON.parse(json!)).toEqual({
      '@context': 'https://schema.org',
      '@type': 'Event',
      name: 'Talk </script><b>',
      startDate: '2026-06-12T14:30:00-03:00',
      endDate: '2026-06-12T16:00:00-03:00',
      eventStatus: 'https://schema.org/EventScheduled',
      location: { '@type': 'Place', name: 'Pilot’s loft' },
      description: 'With lamps & slides',
      url: `${SEE}/${uid}`,
    });
  });

  it('says that a milestone was moved only if it was', () => {
    const on = (planned: string) => {
      const parts = { kind: 'milestone', planned: date(planned), shows: 'free' } as const;
      const view = viewOf([entry({ ...parts, start: date('2026-06-12'), end: date('2026-06-13') })]);
      return write(view, { listed: true, page: { kind: 'entry', uid: view.items[0]!.uid, on: '' } }).html;
    };
    expect(on('2026-06-12')).toContain('schema.org/EventScheduled"');
    expect(on('2026-06-10')).toContain('schema.org/EventRescheduled","previousStartDate":"2026-06-10"');
  });

  it('names the last day of whole days, and no busy time', () => {
    const days = viewOf([entry({ start: date('2026-06-12'), end: date('2026-06-14') })]);
    const of = (v: OutwardView) =>
      write(v, { listed: true, page: { kind: 'entry', uid: v.items[0]!.uid, on: '' } }).html;
    expect(of(days)).toContain('"startDate":"2026-06-12","endDate":"2026-06-13"');
    expect(of(viewOf([LECTURE], 'frosted'))).not.toContain('ld+json');
  });
});

describe('following', () => {
  it('has both addresses, the code, what to expect, and tells it from a copy', () => {
    const options = {
      page: { kind: 'follow' },
      addresses: { ...ADDRESSES, code: '/see/k/follow.svg' },
    } as const;
    const text = page([], options);
    expect(text).toContain('href="webcal://w.example/feed/k.ics"');
    expect(text).toContain('>https://w.example/feed/k.ics</code>');
    expect(text).toContain('src="/see/k/follow.svg"');
    expect(text).toContain('Your program will call it “Bridge times”');
    expect(text).toContain('A copy stays as it was when you took it.');
    expect(text).toContain('share it with care');
    expect(page([], { ...options, listed: true })).not.toContain('share it with care');
  });
});

describe('an embed', () => {
  it('has the parts that are asked for', () => {
    const embed = (query: PageOptions['query']) => page([LECTURE], { form: 'embed', query });
    expect(embed({})).toMatch(/<h1><span class="plate/);
    expect(embed({})).not.toContain('role="search"');
    expect(embed({ parts: 'find,turn' })).toContain('role="search"');
    const bare = embed({ parts: '', show: 'week' });
    expect(bare).toContain('<h1 class="unseen">Bridge times</h1>');
    for (const part of ['<nav', '<footer', 'class="zone"']) expect(bare).not.toContain(part);
    expect(embed({ accent: 'teal' })).toContain('plate-teal');
    expect(embed({ accent: 'teal"><b>' })).not.toContain('<b>');
  });

  it('keeps its parts from page to page; a page has all of its own', () => {
    const text = page([LECTURE], { form: 'embed', query: { parts: 'turn' } });
    expect(text).toContain('parts=turn&amp;show=list&amp;from=2026-07-10" rel="next"');
    expect(page([LECTURE], { query: { parts: '' } })).toContain('<nav');
  });
});
