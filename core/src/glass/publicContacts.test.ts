import { describe, expect, it } from 'vitest';
import { entry, rulesOf, source, zoned } from '../testing/samples';
import { NOTHING_WATCHED, exposuresOf, groupedExposures, outwardView } from '.';

/** Returns the view of a window that shows entries with such descriptions. */
function viewOf(...descriptions: string[]) {
  const entries = descriptions.map((description, n) => ({
    ...entry({ start: zoned('2026-06-15T10:00'), title: `Entry ${n}`, description }),
    id: `e${n}`,
    calendarId: 'a',
  }));
  const rules = rulesOf('clear', { sources: [source('a', 'clear')] });
  return outwardView(entries, rules, { from: 0, to: 4e12 }, { audience: 'street', cap: null });
}

const found = (text: string, publicContacts: string[], country = 'CA') =>
  exposuresOf(viewOf(text), { ...NOTHING_WATCHED, country, publicContacts }).map((e) => e.text);

describe('public addresses and numbers of the house', () => {
  it('are no sensitive matter, however they are written', () => {
    const text = 'Ask Desk@Harbour.example or ada@harbour.example, call (902) 555-0147';
    expect(found(text, [])).toEqual(['Desk@Harbour.example', 'ada@harbour.example', '(902) 555-0147']);
    expect(found(text, ['desk@harbour.example'])).toEqual(['ada@harbour.example', '(902) 555-0147']);
    expect(found(text, [' +1 902 555 0147 '])).toEqual(['Desk@Harbour.example', 'ada@harbour.example']);
    expect(found(text, ['902-555-0147'])).toEqual(['Desk@Harbour.example', 'ada@harbour.example']);
  });

  it('stand for themselves alone, not for what contains them', () => {
    expect(found('desk@harbour.example.org', ['desk@harbour.example'])).toEqual(['desk@harbour.example.org']);
    expect(found('Call (902) 555-0148', ['902-555-0147'])).toEqual(['(902) 555-0148']);
    expect(found('Call 040 1234567', ['0401234567'], '')).toEqual([]);
  });
});

describe('findings', () => {
  it('are grouped by what was found, with their number and the first places', () => {
    const view = viewOf(
      ...Array.from({ length: 5 }, () => 'Ask desk@harbour.example'),
      'Or ada@harbour.example',
    );
    const groups = groupedExposures(exposuresOf(view, NOTHING_WATCHED));
    expect(groups.map(({ text, count, places }) => [text, count, places.length])).toEqual([
      ['desk@harbour.example', 5, 3],
      ['ada@harbour.example', 1, 1],
    ]);
    expect(groups[0]!.places.map((place) => place.title)).toEqual(['Entry 0', 'Entry 1', 'Entry 2']);
  });
});
