import { parse, TYPE, type MessageFormatElement } from '@formatjs/icu-messageformat-parser';
import { describe, expect, it } from 'vitest';
import { dayFromText, wallFromText } from '../../zones';
import { CATALOGUE, LANGUAGES, type Message } from './catalogue';
import { directionOf, readingOf } from './reading';
import { clockChangeIn, slipIn, speechFor, speechOf } from './speech';

const MESSAGES = Object.keys(CATALOGUE.en) as Message[];

/** Arguments of a message, and the choices of each that has some. */
function argumentsOf(elements: readonly MessageFormatElement[]): string[] {
  const found = elements.flatMap((e) => {
    if (e.type === TYPE.argument) return [e.value];
    if (e.type !== TYPE.plural && e.type !== TYPE.select) return [];
    const cases = Object.keys(e.options).filter((c) => !c.startsWith('='));
    return [
      `${e.value}: ${cases.sort().join(' ')}`,
      ...Object.values(e.options).flatMap((o) => argumentsOf(o.value)),
    ];
  });
  return [...new Set(found)].sort();
}

describe('the catalogue', () => {
  it.each(LANGUAGES)(
    'has every message in %s, none empty, with the arguments of the English one',
    (language) => {
      expect(Object.keys(CATALOGUE[language])).toEqual(MESSAGES);
      for (const message of MESSAGES) {
        const text = CATALOGUE[language][message];
        expect(text.trim(), message).not.toBe('');
        const own = argumentsOf(parse(text, { ignoreTag: true }));
        expect(own, `${language} ${message}`).toEqual(
          argumentsOf(parse(CATALOGUE.en[message], { ignoreTag: true })),
        );
      }
    },
  );

  it('is translated: few messages of two languages are the same', () => {
    for (const language of LANGUAGES.filter((l) => l !== 'en')) {
      const same = MESSAGES.filter((m) => CATALOGUE[language][m] === CATALOGUE.en[m]);
      // Those that are nothing but arguments, and words that languages share.
      expect(same.length, `${language}: ${same.join(', ')}`).toBeLessThan(8);
    }
  });
});

describe('how somebody reads', () => {
  it.each([
    [{}, 'en-GB', '24', 0],
    [{ accepted: ['en-US', 'fr'] }, 'en-US', '12', 6],
    [{ accepted: ['nl', 'fr-CA'] }, 'fr-CA', '24', 6],
    [{ accepted: ['nl'], own: 'de' }, 'de', '24', 0],
    [{ lang: 'fr', accepted: ['en-US', 'fr-CH'] }, 'fr-CH', '24', 0],
    [{ lang: 'pt', clock: '12', week: 'saturday' }, 'pt', '12', 5],
    [{ lang: '<b>', clock: '13', week: 'constructor', accepted: ['*', 'x'.repeat(40)] }, 'en-GB', '24', 0],
  ])('%j', (wish, locale, clock, firstDay) => {
    expect(readingOf(wish)).toMatchObject({ locale, clock, firstDay });
  });

  it('knows which languages are written from right to left', () => {
    expect(['ar', 'he', 'fa', 'ur', 'en', 'fr', 'az-Arab', '??'].map(directionOf)).toEqual([
      ...['rtl', 'rtl', 'rtl', 'rtl', 'ltr', 'ltr', 'rtl', 'ltr'],
    ]);
  });
});

describe('speech', () => {
  const day = dayFromText('2026-06-12');
  const wall = wallFromText('2026-06-12T14:30:00');

  it.each([
    ['en', '09:05', '09:00'],
    ['fr', '9\u00a0h\u00a005', '9\u00a0h'],
    ['es', '9:05', '9:00'],
    ['pt', '9h05', '9h'],
  ])('writes times of the morning as %s does', (language, ...told) => {
    const times = ['09:05', '09:00'].map((time) => wallFromText(`2026-06-12T${time}:00`));
    expect(times.map(speechFor(language).time)).toEqual(told);
  });

  it.each([
    ['en', 'Fri, 12 Jun 2026', 'June 2026', '14:30', 'a, b and c'],
    ['fr', 'ven. 12 juin 2026', 'juin 2026', '14\u00a0h\u00a030', 'a, b et c'],
    ['pt', 'sex., 12 de jun. de 2026', 'junho de 2026', '14h30', 'a, b e c'],
    ['de', 'Fr., 12. Juni 2026', 'Juni 2026', '14:30', 'a, b und c'],
    ['es', 'vie, 12 jun 2026', 'junio de 2026', '14:30', 'a, b y c'],
  ])('tells days, times and lists by the customs of %s', (language, ...told) => {
    const speech = speechFor(language);
    expect([speech.day(day), speech.month(day), speech.time(wall), speech.list(['a', 'b', 'c'])]).toEqual(
      told,
    );
  });

  it('has a clock of twelve hours where it is asked for', () => {
    expect(speechOf(readingOf({ lang: 'en', clock: '12' })).time(wall)).toMatch(/^2:30\s?pm$/i);
  });

  it('counts by the rules of each language', () => {
    const [one, many] = [1, 3].map((days) => ({ days, workingDays: days, minutes: 0 }));
    expect(slipIn(speechFor('en'), one!)).toBe('1 day (1 working day) later than planned');
    expect(slipIn(speechFor('de'), many!)).toBe('3 Tage (3 Arbeitstage) später als geplant');
    expect(slipIn(speechFor('fr'), { days: 0, workingDays: 0, minutes: -1 })).toBe(
      'le même jour, 1 minute plus tôt que prévu',
    );
    expect(slipIn(speechFor('xx'), { days: 0, workingDays: 0, minutes: 0 })).toBe('as planned');
  });

  it('tells the next clock change, where there is one', () => {
    const now = Date.UTC(2026, 5, 10);
    expect(clockChangeIn(speechFor('de'), 'Europe/Lisbon', now)).toBe(
      'Die Uhren dort werden am So., 25. Okt. 2026 um 02:00 zurückgestellt.',
    );
    expect(clockChangeIn(speechFor('de'), 'Asia/Kolkata', now)).toBe('');
  });
});
