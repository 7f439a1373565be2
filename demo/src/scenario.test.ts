import { occurrencesOf, type Entry } from '@zonal/core/entries';
import { lintCalendar, writeForm } from '@zonal/core/forms';
import { NO_CEILINGS, outwardView, rangeOfHorizon, rulesOfSaid } from '@zonal/core/glass';
import { nextRevision } from '@zonal/core/reach';
import { DAY, HOUR, clockChanges, dayFromText } from '@zonal/core/zones';
import { describe, expect, it } from 'vitest';
import { HOME } from './drafts';
import { WINDOWS, calendarsAround, saidOfDemo } from './scenario';

const TODAYS = ['2026-01-15', '2026-04-20', '2026-06-30', '2026-09-01', '2026-11-23', '2028-02-29'].map(
  dayFromText,
);

describe('the demo', () => {
  it('has the same content for the same day', () => {
    for (const today of TODAYS) expect(calendarsAround(today)).toEqual(calendarsAround(today));
  });

  it('has at least six calendars and 250 entries in the past two and next six months, whatever the day', () => {
    for (const today of TODAYS) {
      const calendars = calendarsAround(today);
      expect(calendars.length).toBeGreaterThanOrEqual(6);
      const range = { from: (today - 61) * DAY, to: (today + 183) * DAY };
      const within = calendars
        .flatMap((c) => c.entries)
        .filter((e) => occurrencesOf(asEntry(e), range, HOME).length > 0);
      expect(within.length).toBeGreaterThanOrEqual(250);
    }
  });

  it('has series with changed and skipped dates that go over both clock changes', () => {
    for (const today of TODAYS) {
      const changes = clockChanges(HOME, (today - 366) * DAY, today * DAY);
      expect(changes).toHaveLength(2);
      const across = calendarsAround(today)
        .flatMap((c) => c.entries)
        .filter((e) => e.recurrence && e.overrides.length && e.recurrence.exceptDates.length)
        .filter((e) =>
          changes.every(({ at }) => {
            const around = (from: number, to: number) =>
              occurrencesOf(asEntry(e), { from, to }, HOME).length > 0;
            return around(at - 20 * DAY, at) && around(at, at + 20 * DAY);
          }),
        );
      expect(across.length).toBeGreaterThan(0);
    }
  });

  it('has windows of different glass, on calendars that there are, and never the house diary', () => {
    const plates = calendarsAround(TODAYS[0]!).map((c) => c.plate);
    const sources = WINDOWS.flatMap((w) => w.sources);
    expect(sources.every(([plate]) => plates.includes(plate))).toBe(true);
    expect(sources.some(([plate]) => plate === 'HD')).toBe(false);
    expect(new Set(WINDOWS.map((w) => w.sources.map(([, glass]) => glass).join())).size).toBe(4);
  });
});

it('every document of the demo is as the standards ask', () => {
  for (const today of TODAYS) {
    const now = today * DAY + 15 * HOUR;
    const calendars = calendarsAround(today);
    for (const window of WINDOWS) {
      const said = saidOfDemo(window, (plate) => plate);
      const setting = { secret: 'a secret', ceilings: NO_CEILINGS, gone: [] };
      const rules = rulesOfSaid(said, setting);
      const entries = calendars.flatMap((c) =>
        c.entries.map((e) => ({ ...asEntry(e), calendarId: c.plate })),
      );
      const range = rangeOfHorizon(rules.horizon, rules.hostZone, now);
      const view = outwardView(entries, rules, range, { audience: window.audience, cap: null });
      expect(view.items.length).toBeGreaterThan(0);
      const revision = nextRevision(null, view, now);
      const addresses = { see: 'https://w.example/see/k', feed: 'https://w.example/feed/k.ics' };
      for (const form of ['feed', 'freeBusy', 'copy'] as const)
        expect(lintCalendar(writeForm(form, view, revision, { addresses, now })), window.slug).toEqual([]);
    }
  }
});

function asEntry(draft: ReturnType<typeof calendarsAround>[number]['entries'][number]): Entry {
  return { ...draft, id: draft.uid, calendarId: 'c', version: 1 };
}
