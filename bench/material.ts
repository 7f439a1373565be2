import { EMPTY_CONTENT, type Entry } from '@zonal/core/entries';
import { BLANK_WINDOW, NO_CEILINGS, rulesOfSaid, type WindowSaid } from '@zonal/core/glass';

/** Returns 10,000 entries of a calendar within a year, every twentieth a weekly series, as they come from the store. */
export function manyEntries(count = 10_000): Entry[] {
  const entries = Array.from({ length: count }, (_, i): Entry => {
    const start = new Date(Date.UTC(2026, 0, 1) + ((i * 52_541) % 525_000) * 60_000)
      .toISOString()
      .slice(0, 19);
    const end = new Date(Date.parse(`${start}Z`) + 3_600_000).toISOString().slice(0, 19);
    return {
      ...EMPTY_CONTENT,
      id: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
      calendarId: 'a',
      version: 1,
      uid: `${i}@inside`,
      title: `Bridge opens for vessel ${i}`,
      place: 'Swing bridge, Inner Lock',
      description:
        'Road closed while the bridge is open. Times move with the wind; call the lock on channel 12.',
      start: { kind: 'zoned', at: start, zone: 'America/Halifax' },
      end: { kind: 'zoned', at: end, zone: 'America/Halifax' },
      recurrence: i % 20 === 0 ? { rule: 'FREQ=WEEKLY;COUNT=20', dates: [], exceptDates: [] } : null,
      overrides: [],
    };
  });
  return JSON.parse(JSON.stringify(entries)) as Entry[];
}

export const RANGE = { from: Date.UTC(2026, 0, 1, 4), to: Date.UTC(2027, 0, 1, 4) };

const SAID: WindowSaid = {
  ...BLANK_WINDOW,
  name: 'Bridge times',
  hostZone: 'America/Halifax',
  horizon: { kind: 'rolling', pastDays: 30, nextDays: 365 },
  sources: [{ calendarId: 'a', glass: 'clear', fields: [], as: 'Bridge' }],
  tellTentative: false,
  namesCalendars: false,
};

export const RULES = rulesOfSaid(SAID, { secret: 'a secret', ceilings: NO_CEILINGS, gone: [] });

export const SETTING = {
  addresses: { see: 'https://w.example/see/k', feed: 'https://w.example/feed/k.ics' },
  now: 0,
};
