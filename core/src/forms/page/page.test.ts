import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { occurrencesOfView, outwardView, type Glass } from '../../glass';
import { nextRevision } from '../../reach';
import { RANGE as GENERATED, entryArbitrary, rulesArbitrary } from '../../testing/arbitraries';
import { HOST, STREET, date, entry, rulesOf, zoned } from '../../testing/samples';
import { wallOf } from '../../entries';
import { DAY, dayToText, wallAt } from '../../zones';
import { Html, html } from './html';
import { kindText, speechFor } from '../speech/speech';
import type { PageQuery } from './choice';
import { writePage } from './page';

const RANGE = { from: Date.UTC(2026, 0, 1), to: Date.UTC(2027, 0, 1) };
const NOW = Date.UTC(2026, 5, 10, 15);
const ADDRESSES = {
  self: '/see/k',
  see: 'https://w.example/see/k',
  feed: 'https://w.example/feed/k.ics',
  copy: '/copy/k.ics',
};

function page(
  entries: Parameters<typeof outwardView>[0],
  query: PageQuery = {},
  glass: Glass = 'clear',
  form: 'page' | 'embed' = 'page',
) {
  const view = outwardView(entries, rulesOf(glass), RANGE, STREET);
  return writePage(view, nextRevision(null, view, NOW), {
    form,
    query,
    now: NOW,
    addresses: ADDRESSES,
    assets: '/outside/',
  });
}

describe('a page', () => {
  const talk = entry({
    start: zoned('2026-06-12T23:30'),
    end: zoned('2026-06-13T01:00'),
    title: 'Night <talk>',
    description: 'See https://ostrel.example/talk. Bring a lamp.',
    publicLink: 'javascript:alert(1)',
  });

  it('shows times on the host’s clocks, or on those of the reader’s zone, and says which', () => {
    const host = page([talk], { show: 'list' });
    expect(host).toContain('23:30 to Sat 13 Jun, 01:00');
    expect(host).toContain('America/Halifax (UTC−03:00), the host’s zone');
    const reader = page([talk], { show: 'list', tz: 'Europe/London' });
    expect(reader).toContain('03:30–05:00');
    expect(reader).toContain('not in the host’s zone');
    expect(page([talk], { show: 'list', tz: 'Moon/Base' })).toContain('is not a known time zone');
  });

  it('escapes all text and lets only safe addresses become links', () => {
    const text = page([talk], { show: 'list' });
    expect(text).toContain('Night &lt;talk&gt;');
    expect(text).not.toContain('javascript:');
    expect(text).toContain(
      '<a href="https://ostrel.example/talk" rel="noopener nofollow">https://ostrel.example/talk</a>. Bring',
    );
  });

  it('keeps an all-day entry on its day in every zone', () => {
    const day = entry({ start: date('2026-06-12') });
    for (const tz of ['Pacific/Kiritimati', 'Pacific/Pago_Pago', undefined]) {
      const text = page([day], { show: 'list', from: '2026-06-10', tz });
      expect(text).toMatch(
        /datetime="2026-06-12">Fri 12 Jun<\/time><\/h3>\s*<ul><li class="confirmed all-day">/,
      );
    }
  });

  it('tells status in words', () => {
    const text = page([{ ...talk, status: 'cancelled' }], { show: 'list' });
    expect(text).toContain('<em class="mark">cancelled</em>');
  });

  it('survives any query', () => {
    for (const query of [
      { from: 'never' },
      { from: '9999-12-31' },
      { show: '<b>' },
      { theme: '"><script>' },
      { tz: '' },
    ]) {
      expect(page([talk], query)).not.toMatch(/<script>|<b>/);
    }
  });

  it('says what to do with an empty month, and stands in an embed without the blocks for following', () => {
    expect(page([], { show: 'month' })).toContain('Nothing is announced');
    const embed = page([talk], {}, 'clear', 'embed');
    expect(embed).not.toContain('id="follow"');
    expect(embed).toContain('Open the full page');
  });
});

describe('html', () => {
  it('escapes values in text and attributes, but not HTML, and leaves out what is not there', () => {
    const inner = html`<b title="${'"\'&'}">${'<i>'}</b>`;
    expect(inner.text).toBe('<b title="&quot;&#39;&amp;">&lt;i&gt;</b>');
    expect(html`<p>${inner}${[new Html('<hr>'), 3]}${null}${false}</p>`.text).toBe(
      `<p>${inner.text}<hr>3</p>`,
    );
  });
});

it('a due moment and a planned one name their zone, a day does not', () => {
  const due = { kind: 'due', status: 'confirmed' } as const;
  expect(kindText(speechFor('en'), due, zoned('2026-06-12T14:00'), HOST)).toBe(
    'Due Fri, 12 Jun 2026, 14:00 (America/Halifax).',
  );
  expect(kindText(speechFor('en'), due, date('2026-06-12'), HOST)).toBe('Due Fri, 12 Jun 2026.');
  const slipped = { ...due, kind: 'milestone', planned: zoned('2026-06-11T14:00', 'Europe/London') } as const;
  expect(kindText(speechFor('en'), slipped, zoned('2026-06-12T14:00', 'Europe/London'), HOST)).toMatch(
    /^Milestone: planned for Thu, 11 Jun 2026, 14:00 \(Europe\/London\), now 1 day/,
  );
});

it('shows every time that touches the days, once where it begins, and no other', () => {
  let shown = 0;
  fc.assert(
    fc.property(
      fc.array(entryArbitrary, { minLength: 1, maxLength: 5 }),
      rulesArbitrary,
      fc.constantFrom(HOST, 'Pacific/Auckland', 'Pacific/Pago_Pago', 'UTC'),
      fc.integer({ min: 0, max: 300 }),
      (entries, rules, tz, offset) => {
        const view = outwardView(entries, rules, GENERATED, STREET);
        const first = Math.floor(GENERATED.from / DAY) + offset;
        const days = { first, last: first + 29 };
        const query = { show: 'list', from: dayToText(first), tz };
        const text = writePage(view, nextRevision(null, view, NOW), {
          form: 'embed',
          query,
          now: NOW,
          addresses: ADDRESSES,
          assets: '/',
        });
        const touching = occurrencesOfView(view).filter(({ start, end, from, to }) => {
          const wall = (when: typeof start, at: number) =>
            when.kind === 'zoned' ? wallAt(tz, at) : wallOf(when);
          const day = Math.floor(wall(start, from) / DAY);
          const last = Math.max(day, Math.ceil(wall(end, to) / DAY) - 1);
          return day <= days.last && last >= days.first;
        });
        expect(text.match(/<li class=/g) ?? []).toHaveLength(touching.length);
        shown += touching.length;
      },
    ),
    { numRuns: 600, seed: 5 },
  );
  expect(shown).toBeGreaterThan(500);
});
