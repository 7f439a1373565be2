import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { When } from '../entries';
import { occurrencesOfView, outwardView, type OutwardView } from '../glass';
import { NO_MEMORY, remember, timeLine, timesIn } from '../followers';
import { nextRevision } from '../reach';
import { RANGE, entryArbitrary, rulesArbitrary } from '../testing/arbitraries';
import { HOST, STREET, entry, rulesOf, zoned, date } from '../testing/samples';
import { dayFromText, dayToText, wallAt, wallToText } from '../zones';
import { cases } from '../testing/effort';
import { writeForm } from './formTable';

const SETTING = {
  addresses: { see: 'https://window.example/see/k', feed: 'https://window.example/feed/k.ics' },
  now: Date.UTC(2026, 5, 1),
};
const feedOf = (view: OutwardView) => writeForm('feed', view, nextRevision(null, view, SETTING.now), SETTING);

/** Returns `uid start end status title` of every occurrence of a feed. */
const readBack = (text: string) => timesIn(remember('replace-all', NO_MEMORY, text));

/** The same lines from the view itself. */
function fromView(view: OutwardView): string[] {
  return occurrencesOfView(view)
    .map((o) => {
      const tell = (when: When, instant: number) =>
        when.kind === 'zoned' ? `${wallToText(instant)}Z` : when.kind === 'date' ? when.date : when.at;
      const [from, to] = [tell(o.start, o.from), tell(o.end, o.to)];
      const title = o.content ? o.content.title : view.wording.busyWord;
      const due = o.content?.kind === 'due';
      const told = o.content ? o.content.status : o.tentative ? 'tentative' : 'confirmed';
      const task = due && view.wording.dueAs === 'task';
      const status = told === 'done' || (task && told === 'tentative') ? 'confirmed' : told;
      if (task) return timeLine(o.uid, from, from, title, status);
      if (!due) return timeLine(o.uid, from, to, title, status);
      const day = dayFromText((o.start.kind === 'date' ? o.start.date : o.start.at).slice(0, 10));
      return timeLine(o.uid, dayToText(day), dayToText(day + 1), `Due: ${title}`, status);
    })
    .sort();
}

describe('a feed read by ical.js', () => {
  it('gives the same occurrences as the view, for generated calendars', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(entryArbitrary, { maxLength: 5, selector: (e) => e.id }),
        rulesArbitrary,
        (entries, rules) => {
          const view = outwardView(entries, rules, RANGE, STREET);

          expect(readBack(feedOf(view))).toEqual(fromView(view));
        },
      ),
      { numRuns: cases(700), seed: 4711 },
    );
  });

  it('keeps a weekly 09:00 at 09:00 across both clock changes and stays one event with a rule', () => {
    const weekly = entry({
      start: zoned('2026-02-02T09:00'),
      recurrence: { rule: 'FREQ=WEEKLY', dates: [], exceptDates: [] },
    });
    const view = outwardView([weekly], rulesOf('tinted'), RANGE, STREET);
    const feed = feedOf(view);
    expect(feed.match(/BEGIN:VEVENT/g)).toHaveLength(1);
    expect(feed).toContain('RRULE:FREQ=WEEKLY;BYDAY=MO;UNTIL=20261130T130000Z');
    const read = readBack(feed);
    expect(read).toHaveLength(44);
    expect(
      new Set(read.map((r) => wallToText(wallAt(HOST, Date.parse(r.split(' ')[1]!))).slice(11))),
    ).toEqual(new Set(['09:00:00']));
  });

  it('spells out a night watch whose length a clock change alters', () => {
    const watch = entry({
      start: zoned('2026-10-30T22:00'),
      end: zoned('2026-10-31T06:00'),
      recurrence: { rule: 'FREQ=DAILY;COUNT=4', dates: [], exceptDates: [] },
    });
    const feed = feedOf(outwardView([watch], rulesOf('tinted'), RANGE, STREET));
    expect(feed).toContain('RECURRENCE-ID;TZID=America/Halifax:20261031T220000');
    expect(feed).toContain('DTEND;TZID=America/Halifax:20261101T060000');
    expect(feed.match(/BEGIN:VEVENT/g)).toHaveLength(2);
  });

  it('gives the length of a series if its first end is at a time that clocks show twice', () => {
    const guard = entry({
      start: zoned('2026-10-31T00:00'),
      end: zoned('2026-11-01T01:00'),
      recurrence: { rule: 'FREQ=DAILY;COUNT=4', dates: [], exceptDates: [] },
    });
    const view = outwardView([guard], rulesOf('tinted'), RANGE, STREET);
    expect(feedOf(view)).toContain('DTSTART;TZID=America/Halifax:20261031T000000\r\nDURATION:PT90000S');
    expect(readBack(feedOf(view))).toEqual(fromView(view));
  });

  it('writes times that clocks skip or show twice without doubt', () => {
    const nightly = entry({
      start: zoned('2026-03-07T02:30'),
      recurrence: { rule: 'FREQ=DAILY;COUNT=3', dates: [], exceptDates: [] },
    });
    const feed = feedOf(outwardView([nightly], rulesOf('tinted'), RANGE, STREET));
    // 02:30 does not exist on 8 March; with the offset before the change it is 06:30 UTC (RFC 5545 section 3.3.5).
    expect(feed).toContain('RECURRENCE-ID;TZID=America/Halifax:20260308T023000\r\nDTSTART:20260308T063000Z');
  });

  it('names the calendar, its colour, its source and how often to look', () => {
    const feed = feedOf(
      outwardView([entry({ start: date('2026-05-01') })], rulesOf('tinted'), RANGE, STREET),
    );
    for (const text of [
      'NAME:Bridge times',
      'X-WR-CALNAME:Bridge times',
      'COLOR:steelblue',
      'SOURCE;VALUE=URI:https://window.example/feed/k.ics',
      'REFRESH-INTERVAL;VALUE=DURATION:PT1H',
      'DTSTART;VALUE=DATE:20260501\r\nDTEND;VALUE=DATE:20260502',
    ]) {
      expect(feed).toContain(text);
    }
  });

  it('folds at 75 octets and never inside a character', () => {
    const long = entry({ start: zoned('2026-05-01T10:00'), title: '漁港 — naïve 🚢 '.repeat(30) });
    const feed = feedOf(outwardView([long], rulesOf('tinted'), RANGE, STREET));
    for (const physical of feed.split('\r\n')) {
      expect(new TextEncoder().encode(physical).length).toBeLessThanOrEqual(75);
      expect(physical.isWellFormed()).toBe(true);
    }
    expect(readBack(feed)[0]).toContain('🚢');
  });

  it('defines every zone that it names, and no other', () => {
    fc.assert(
      fc.property(fc.array(entryArbitrary, { maxLength: 6 }), (entries) => {
        const feed = feedOf(outwardView(entries, rulesOf('clear'), RANGE, STREET)).replace(/\r\n /g, '');
        const named = new Set([...feed.matchAll(/;TZID=([^:;]+)/g)].map((m) => m[1]));
        const defined = new Set([...feed.matchAll(/^TZID:(.+)\r$/gm)].map((m) => m[1]));
        // One that shows nothing has a component nevertheless.
        expect(defined).toEqual(/BEGIN:V(EVENT|TODO)/.test(feed) ? named : new Set(['UTC']));
      }),
      { numRuns: cases(200), seed: 4712 },
    );
  });
});
