// Before anything that has texts.
import '../texts/de';
import { timeText } from '@zonal/core/forms';
import { holidaysOf, moonPhases, sunTimes } from '@zonal/core/readymade';
import { wallAt, type Day } from '@zonal/core/zones';
import type { DayNote, NotesQuestion, Readymade } from './readymade';
import { t } from '../texts/inside';
import { offer } from '../workers/offer';

const MOONS = { 'new moon': '●', 'first quarter': '◐', 'full moon': '○', 'last quarter': '◑' } as const;

function notesOf({ layers, from, to, zone, country, region, spot }: NotesQuestion): Map<Day, DayNote[]> {
  const notes = new Map<Day, DayNote[]>();
  const add = (day: Day, note: DayNote) => notes.set(day, [...(notes.get(day) ?? []), note]);
  if (layers.includes('holidays')) {
    for (const [day, name] of holidaysOf({ country, region }, from, to)) {
      add(day, { layer: 'holidays', short: name, text: name });
    }
  }
  if (layers.includes('moon')) {
    for (const [day, { phase, at }] of moonPhases(from, to, zone)) {
      add(day, { layer: 'moon', short: MOONS[phase], text: `${phase}, ${timeText(wallAt(zone, at))}` });
    }
  }
  if (layers.includes('sun') && spot) {
    for (let day = from; day < to; day++) {
      const { rise, set } = sunTimes(spot, day, zone);
      const clock = (at: number | null) => (at === null ? '–' : timeText(wallAt(zone, at)));
      const short = `${clock(rise)}–${clock(set)}`;
      add(day, { layer: 'sun', short, text: t('sunTimes', { rise: clock(rise), set: clock(set) }) });
    }
  }
  return notes;
}

offer({ notesOf } satisfies Readymade);
