import { EMPTY_CONTENT, type Entry } from '@zonal/core/entries';
import {
  NOTHING_WATCHED,
  outwardView,
  rangeOfHorizon,
  rehearsedWindow,
  type WindowInput,
} from '@zonal/core/glass';
import { nextRevision } from '@zonal/core/reach';
import { describe, expect, it } from 'vitest';
import type { Calendar, OutwardWindow } from '@zonal/core/api';
import { blankDraft, ceilingsOf, draftOf, rulesOfDraft } from '../glass/draft';
import { hiddenFilterFields } from '../glass/GlassPanel';
import { differs } from '../glass/useDraft';
import { afterChanges } from './afterChanges';
import { rehearseIn } from './rehearseIn';
import { sighted } from '../rehearsal/sighted';

const NOW = Date.UTC(2026, 5, 10);
const DAY = 86_400_000;
const one: Entry = {
  ...EMPTY_CONTENT,
  id: 'e',
  calendarId: 'c',
  version: 3,
  uid: 'u',
  title: 'Sounding',
  start: { kind: 'zoned', at: '2026-06-12T10:00:00', zone: 'UTC' },
  end: { kind: 'zoned', at: '2026-06-12T11:00:00', zone: 'UTC' },
  recurrence: null,
  overrides: [],
};
const { id, uid, calendarId, version, ...input } = one;

const draft: WindowInput = {
  ...blankDraft([]),
  name: 'Quay',
  hostZone: 'UTC',
  sources: [{ calendarId: 'c', glass: 'tinted', fields: [], as: 'Quay' }],
};
const setting = {
  window: null,
  ceilings: { house: {}, calendars: {} },
  known: { calendars: ['c'], labels: [], properties: [] },
};
const key = { id: 'k', madeOutTo: 'Town', audience: 'street' as const, cap: null };
const window: OutwardWindow = {
  ...rulesOfDraft(draft, setting),
  id: 'w',
  slug: 'quay',
  listedSee: '',
  listedFeed: 'https://w.example/feed/window.ics',
  listed: false,
  closedAt: null,
  closesAt: null,
  farewell: false,
  publicGraceDays: 14,
  unlistedAt: null,
  publicUntil: null,
  version: 2,
  draft: null,
  trouble: null,
  keys: [
    {
      ...key,
      madeAt: new Date(NOW - 90 * DAY).toISOString(),
      expiresAt: new Date(NOW + DAY).toISOString(),
      fetchedAt: new Date(NOW - DAY).toISOString(),
      fetched: 4,
      withdrawnAt: null,
      userId: null,
      contact: '',
      meantFor: null,
      matters: false,
      readers: 0,
      notes: '',
      look: {},
      hosts: [],
      version: 1,
      turned: [],
      token: 't',
      see: '',
      embed: '',
      feed: '',
      dav: '',
      freeBusy: '',
      jCal: '',
      table: '',
      changes: '',
      copy: '',
    },
  ],
};

describe('entries after changes', () => {
  const entries = new Map([['c', [one]]]);
  const after = (changes: Parameters<typeof afterChanges>[1]) =>
    [...afterChanges(entries, changes)].flatMap(([at, list]) => list.map((e) => [at, e.id, e.title]));

  it('are written, changed, moved and deleted', () => {
    expect(after([{ id, uid, version, calendarId, entry: { ...input, title: 'New' } }])).toEqual([
      ['c', 'e', 'New'],
    ]);
    expect(after([{ version: 0, calendarId, entry: { ...input, title: 'Second' } }])).toEqual([
      ['c', 'e', 'Sounding'],
      ['c', 'new-0', 'Second'],
    ]);
    expect(after([{ id, version, calendarId, entry: null }])).toEqual([]);
    expect(after([{ id, uid, version, calendarId: 'elsewhere', entry: input }])).toEqual([]);
    expect(entries.get('c')).toEqual([one]);
  });
});

describe('a rehearsal as it is read', () => {
  const told = (changed: Entry[], at: number) =>
    rehearseIn({
      pairs: [{ before: rehearsedWindow(window, window, NOW), after: rehearsedWindow(window, window, NOW) }],
      before: () => [one],
      after: () => changed,
      watch: NOTHING_WATCHED,
      now: NOW,
      revisionOf: () => {
        const range = rangeOfHorizon(window.horizon, window.hostZone, NOW);
        return Promise.resolve(nextRevision(null, outwardView([one], window, range, key), at));
      },
    });

  it('gives every field before and after, and who has fetched what goes', async () => {
    const [w] = await told([{ ...one, title: 'Sounding, north', place: 'Berth 2' }], NOW - 2 * DAY);
    const [item] = w!.views[0]!.items;
    expect(item).toMatchObject({ kind: 'changes', title: 'Sounding, north', fetchedBy: ['Town'] });
    expect(item!.fields).toEqual([
      { field: 'title', before: 'Sounding', after: 'Sounding, north' },
      { field: 'place', before: '', after: 'Berth 2' },
    ]);
    expect(w!.quiet).toBe(false);
  });

  it('names nobody who fetched it before it last changed', async () => {
    const [w] = await told([], NOW);
    expect(w!.views[0]!.items[0]).toMatchObject({ kind: 'vanishes', fetchedBy: [] });
    expect(w!.demands).toEqual(['most-vanishes']);
  });

  it('tells what changes on a single date of a series', async () => {
    const at = (day: number, hour: number) =>
      ({ kind: 'zoned', at: `2026-06-${day}T${hour}:00:00`, zone: 'UTC' }) as const;
    const series = (start: number, place: string): Entry => ({
      ...one,
      recurrence: { rule: 'FREQ=DAILY;COUNT=4', dates: [], exceptDates: [] },
      overrides: [{ slot: at(13, 10), start: at(13, start), end: at(13, 16), content: { ...one, place } }],
    });
    const window_ = rehearsedWindow(window, window, NOW);
    const [w] = await rehearseIn({
      pairs: [{ before: window_, after: window_ }],
      before: () => [series(14, '')],
      after: () => [series(15, 'Berth 3')],
      watch: NOTHING_WATCHED,
      now: NOW,
      revisionOf: () => Promise.resolve(null),
    });
    const day = 'Sat 13 Jun 2026';
    expect(w!.views[0]!.items[0]!.fields).toEqual([
      {
        field: `time on ${day}, 10:00`,
        before: `${day}, 14:00 to ${day}, 16:00`,
        after: `${day}, 15:00 to ${day}, 16:00`,
      },
      { field: `place on ${day}, 10:00`, before: '', after: 'Berth 3' },
    ]);
  });

  it('tells busy time and entries of other zones by the host’s clocks, as the page does', async () => {
    const lines = async (glass: 'frosted' | 'tinted', zone: string) => {
      const rules = { ...window, hostZone: 'America/Halifax', sources: [{ ...window.sources[0]!, glass }] };
      const w = { ...rehearsedWindow(window, window, NOW), rules };
      const at = (hour: string): Entry['start'] => ({ kind: 'zoned', at: `2026-06-12T${hour}:00:00`, zone });
      const was = { ...one, start: at('10'), end: at('11') };
      const [found] = await rehearseIn({
        pairs: [{ before: w, after: w }],
        before: () => [was],
        after: () => [{ ...was, start: at('12'), end: at('13') }],
        watch: NOTHING_WATCHED,
        now: NOW,
        revisionOf: () => Promise.resolve(null),
      });
      return found!.views[0]!.items;
    };
    expect((await lines('frosted', 'UTC')).map((i) => [i.kind, i.when])).toEqual([
      ['vanishes', 'Fri 12 Jun 2026, 07:00'],
      ['appears', 'Fri 12 Jun 2026, 09:00'],
    ]);
    const [moved] = await lines('tinted', 'Europe/London');
    expect(moved!.when).toBe('Fri 12 Jun 2026, 08:00');
    expect(moved!.fields).toEqual([
      {
        field: 'time',
        before: 'Fri 12 Jun 2026, 06:00 to Fri 12 Jun 2026, 07:00, entered in Europe/London',
        after: 'Fri 12 Jun 2026, 08:00 to Fri 12 Jun 2026, 09:00, entered in Europe/London',
      },
    ]);
  });

  it('is quiet where nobody would notice', async () => {
    expect((await told([{ ...one, description: 'Inside' }], NOW))[0]!.quiet).toBe(true);
  });
});

describe('ceilings', () => {
  it('are read as the server works them out', () => {
    const set = { by: '', at: '', audience: 'street' as const, glass: 'tinted' as const };
    const all = {
      ceilings: [
        { ...set, calendarId: null },
        { ...set, calendarId: 'x' },
      ],
      requests: [],
    };
    const calendars = [{ id: 'c', lockedAt: null }] as Calendar[];
    expect(ceilingsOf(all, calendars)).toEqual({
      house: { street: 'tinted' },
      calendars: { x: { street: 'tinted' } },
    });
    const locked = [{ id: 'c', lockedAt: '2026-01-01' }] as Calendar[];
    expect(Object.values(ceilingsOf(undefined, locked).calendars['c']!)).toEqual(Array(4).fill('shut'));
  });
});

describe('a draft', () => {
  it('differs only by what it says, not by the order in which it is stored', () => {
    const own = draftOf(window);
    const turned = Object.fromEntries(Object.entries(own).reverse()) as unknown as WindowInput;
    expect(differs({ ...turned, version: 9 }, window)).toBe(false);
    expect(differs({ ...own, busyWord: 'Taken' }, window)).toBe(true);
    expect(differs(own, null)).toBe(true);
  });

  it('tells which fields its filter asks for though no reader gets them', () => {
    const filter = {
      all: [
        { field: 'label' as const, value: 'x' },
        { field: 'text' as const, value: 'y' },
      ],
    };
    expect(hiddenFilterFields({ ...draft, filter })).toEqual(['labels', 'description']);
    const clear = [{ ...draft.sources[0]!, glass: 'clear' as const }];
    expect(hiddenFilterFields({ ...draft, filter, sources: clear })).toEqual([]);
  });

  it('goes along sightlines with the times of its keys as instants', () => {
    expect(sighted(window).keys[0]).toEqual({
      ...key,
      fetchedAt: NOW - DAY,
      madeAt: NOW - 90 * DAY,
      expiresAt: NOW + DAY,
    });
  });
});
