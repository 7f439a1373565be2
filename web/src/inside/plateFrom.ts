import { COLOURS, PLATE_PATTERNS, PLATE_SHAPES } from '@zonal/core/glass';
import type { Calendar } from '@zonal/core/api';

/**
 * Returns letters for a plate from a name: first letters of its words, or its first letters. Where these are taken,
 * another letter of the name or a figure stands last.
 */
export function plateFrom(name: string, taken: readonly string[] = []): string {
  const words =
    name
      .normalize('NFKD')
      .replace(/[\u0300-\u036f]/g, '')
      .toUpperCase()
      .match(/[A-Z0-9]+/g) ?? [];
  const letters = words.length > 1 ? words.map((w) => w[0]).join('') : (words[0] ?? '');
  const first = letters.slice(0, 3).padEnd(2, 'X');
  const others = [...words.join('').slice(1), ...'23456789'].map((last) => first.slice(0, 2) + last);
  return [first, ...others].find((plate) => !taken.includes(plate)) ?? first;
}

/** Returns a look that differs from those of the calendars that are there in outline, pattern and colour, as far as it goes. */
export function plateLook(
  calendars: readonly Pick<Calendar, 'colour' | 'shape' | 'pattern'>[],
): Pick<Calendar, 'colour' | 'shape' | 'pattern'> {
  const least = <T extends string>(all: readonly T[], used: readonly T[]) => {
    const count = (one: T) => used.filter((u) => u === one).length;
    return [...all].sort((a, b) => count(a) - count(b))[0]!;
  };
  return {
    colour: least(
      COLOURS,
      calendars.map((c) => c.colour),
    ),
    shape: least(
      PLATE_SHAPES,
      calendars.map((c) => c.shape),
    ),
    pattern: least(
      PLATE_PATTERNS,
      calendars.map((c) => c.pattern),
    ),
  };
}
