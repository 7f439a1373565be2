import type { Calendar, OutwardWindow } from '@zonal/core/api';

/** Returns the windows whose effect can be worked out here: everything in all of their calendars is seen. */
export function inFull(
  windows: readonly OutwardWindow[],
  calendars: readonly Calendar[],
): readonly OutwardWindow[] {
  const whole = new Set(calendars.filter((c) => c.sight === 'all').map((c) => c.id));
  return windows.filter((w) => w.sources.every((s) => whole.has(s.calendarId)));
}

/** Returns the names of further windows over some calendars, of which it cannot be worked out what they would show. */
export function beyond(
  windows: readonly OutwardWindow[],
  calendars: readonly Calendar[],
  calendarIds: readonly string[],
): string[] {
  const known = new Set(inFull(windows, calendars).map((w) => w.wording.name));
  const over = calendars.filter((c) => calendarIds.includes(c.id)).flatMap((c) => c.windows);
  return [...new Set(over)].filter((name) => !known.has(name));
}
