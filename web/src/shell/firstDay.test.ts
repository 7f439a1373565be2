import { describe, expect, it } from 'vitest';
import { nextStep } from './firstDaySlice';
import { readymadeDays } from './readymadeCalendar';

describe('a first day', () => {
  it('leads from the calendar to the window to its address, by what there is', () => {
    expect(nextStep({ calendars: 0, windows: 0 }, [])).toBe('calendar');
    expect(nextStep({ calendars: 1, windows: 0 }, [])).toBe('window');
    expect(nextStep({ calendars: 1, windows: 1 }, [])).toBe('address');
    expect(nextStep({ calendars: 1, windows: 1 }, ['address'])).toBe(null);
  });

  it('goes on past what was skipped; there is no address of no window', () => {
    expect(nextStep({ calendars: 0, windows: 0 }, ['calendar'])).toBe('window');
    expect(nextStep({ calendars: 0, windows: 0 }, ['calendar', 'window'])).toBe(null);
  });
});

describe('a ready-made calendar', () => {
  it('has the public holidays of a country, this year and next, as whole days that take no time', async () => {
    const days = await readymadeDays(
      'holidays',
      { country: 'CA', region: 'NS', zone: 'America/Halifax' },
      2031,
    );
    const canada = days.filter((d) => d.title === 'Canada Day');
    expect(canada.map((d) => [d.start, d.end])).toEqual([
      [
        { kind: 'date', date: '2031-07-01' },
        { kind: 'date', date: '2031-07-02' },
      ],
      [
        { kind: 'date', date: '2032-07-01' },
        { kind: 'date', date: '2032-07-02' },
      ],
    ]);
    expect(days.every((d) => d.shows === 'free')).toBe(true);
  });

  it('has the phases of the moon', async () => {
    const days = await readymadeDays('moon', { country: '', region: '', zone: 'UTC' }, 2031);
    expect(days.filter((d) => d.title === 'Full moon').length).toBeGreaterThan(23);
  });
});
