import { describe, expect, it } from 'vitest';
import type { OutwardWindow } from '@zonal/core/api';
import { lackOf } from '@zonal/core/glass';
import { blankDraft, draftOf, regained, rulesOfDraft } from './draft';

const SETTING = {
  window: null,
  ceilings: { house: {}, calendars: {} },
  known: { calendars: ['c'], labels: [], properties: [] },
};
const WINDOW: OutwardWindow = {
  ...rulesOfDraft(
    {
      ...blankDraft([]),
      name: 'Quay',
      sources: [{ calendarId: 'c', glass: 'tinted', fields: [], as: 'Quay' }],
    },
    SETTING,
  ),
  secret: 'secret',
  id: 'w',
  slug: 'quay',
  listedSee: '',
  listedFeed: 'https://w.example/feed/window.ics',
  listed: true,
  closedAt: null,
  closesAt: null,
  farewell: false,
  publicGraceDays: 14,
  unlistedAt: null,
  publicUntil: null,
  version: 4,
  keys: [],
  draft: null,
  trouble: null,
};

describe('a draft', () => {
  it('says what is missing before it can be shown outside', () => {
    const blank = blankDraft([]);
    expect(lackOf(blank)).toContain('calendar');
    expect(lackOf({ ...blank, sources: WINDOW.sources })).toContain('name');
    expect(lackOf({ ...blank, name: 'Quay', sources: WINDOW.sources, busyWord: ' ' })).toContain('frosted');
    expect(lackOf(draftOf(WINDOW))).toBeNull();
  });

  it('is the window again, with its version and without its secret', () => {
    const draft = draftOf(WINDOW);
    expect(draft).toMatchObject({ name: 'Quay', listed: true, version: 4 });
    expect(JSON.stringify(draft)).not.toContain('secret');
    const { wording, secret, sources } = rulesOfDraft(draft, { ...SETTING, window: WINDOW });
    expect({ wording, secret, sources }).toEqual({
      wording: WINDOW.wording,
      secret: 'secret',
      sources: WINDOW.sources,
    });
  });

  it('lets nothing be shared out from the start', () => {
    const { joinLink, people, contact } = blankDraft([]).switches;
    expect([joinLink, people, contact]).toEqual([false, false, false]);
    expect(blankDraft([]).listed).toBe(false);
  });
});

it('a label that is known again is named as long as the window shows less without it', () => {
  const filter = {
    any: [
      { field: 'label', value: 'Market' },
      { field: 'calendar', value: 'c' },
    ],
  } as const;
  const lost = { filter, gone: ['label:market'] };
  expect(regained(lost, SETTING.known)).toEqual([]);
  expect(regained(lost, { ...SETTING.known, labels: ['Market'] })).toEqual(['market']);
  expect(regained({ filter, gone: [] }, { ...SETTING.known, labels: ['Market'] })).toEqual([]);
});
