import { describe, expect, it } from 'vitest';
import { HOST, date, entry, zoned } from '../../testing/samples';
import { checkMapping, csvTable, guessDateOrder, readCsv } from './readCsv';
import { guessMapping } from './csvFields';
import { tableText, unguarded, writeCsv } from './writeCsv';

const bytes = (text: string) => new TextEncoder().encode(text);
function read(text: string, dateOrder: 'ymd' | 'dmy' | 'mdy' = 'dmy') {
  const table = csvTable(bytes(text));
  return readCsv(table, { mapping: guessMapping(table.headings), dateOrder, zone: HOST });
}

describe('a table', () => {
  it('is read by its headings, with what has no heading of ours as properties', () => {
    const { entries, items } = read(
      'Subject;Date;Time;To time;Where;Tags;Who;Berth\nTour;1.5.2026;10:00;11.30;Quay;"a, b";"Ida <ida@x.example>";B4\n',
    );
    expect(items).toMatchObject([{ line: 2, outcome: 'read' }]);
    expect(entries[0]).toMatchObject({
      title: 'Tour',
      start: zoned('2026-05-01T10:00'),
      end: zoned('2026-05-01T11:30'),
      place: 'Quay',
      labels: ['a', 'b'],
      people: [{ name: 'Ida', address: 'ida@x.example' }],
      properties: [{ name: 'Berth', value: 'B4' }],
    });
  });

  it('takes days, twelve-hour clocks, month names and both in one cell', () => {
    const { entries } = read(
      'title,start,end\nA,2026-05-01 2:30 pm,2026-05-01 16:00\nB,3 Feb 2026,5 Feb 2026\nC,1.2.26,\n',
    );
    expect(entries.map((e) => [e.start, e.end])).toEqual([
      [zoned('2026-05-01T14:30'), zoned('2026-05-01T16:00')],
      [date('2026-02-03'), date('2026-02-06')],
      [date('2026-02-01'), date('2026-02-02')],
    ]);
    expect(read('title,start\nA,02/03/2026\n', 'mdy').entries[0]!.start).toEqual(date('2026-02-03'));
  });

  it('ends after midnight where only the end time says so', () => {
    const { entries } = read('title,date,start time,end time\nWatch,2026-05-01,22:00,06:00\n');
    expect(entries[0]!.end).toEqual(zoned('2026-05-02T06:00'));
  });

  it('leaves out rows that cannot be read, each with its reason, and reads the others', () => {
    const { entries, items } = read(
      'title,date,zone\n,2026-05-01,\nA,2026-02-30,\nB,2026-05-01,Mars/Base\nC,2026-05-01,\n',
    );
    expect(entries.map((e) => e.title)).toEqual(['C']);
    expect(items.map((i) => i.notes.join())).toEqual([
      expect.stringContaining('it has no title'),
      expect.stringContaining('“2026-02-30” is not a date'),
      expect.stringContaining('“Mars/Base” is not a time zone'),
      '',
    ]);
  });

  it('is refused with the row where a quote is never closed, and when it is empty', () => {
    expect(() => csvTable(bytes('title,date\n"A,2026-05-01\n'))).toThrow(/Nothing was imported/);
    expect(() => csvTable(bytes('title,date\n'))).toThrow(/is empty/);
    expect(() => checkMapping(guessMapping(['when', 'colour']))).toThrow(/Title, Start date/);
    expect(() => checkMapping({}, 'de')).toThrow(/Titel, Anfangstag/);
    const german = ['Titel', 'Beginn', 'Uhrzeit', 'Ort', 'Etiketten'];
    expect(guessMapping(german)).toEqual({ title: 0, startDate: 1, startTime: 2, place: 3, labels: 4 });
  });

  it('tells the order of its dates where one leaves no doubt', () => {
    expect(guessDateOrder(['1/2/2026', '14/2/2026'])).toBe('dmy');
    expect(guessDateOrder(['1/2/2026', '2/14/2026'])).toBe('mdy');
    expect(guessDateOrder(['2026-02-01'])).toBe('ymd');
  });

  it('comes back from an export with what a row can hold', () => {
    const one = entry({
      uid: 'x',
      start: zoned('2026-05-01T10:00', 'Europe/Lisbon'),
      end: zoned('2026-05-02T01:00', 'Europe/Lisbon'),
      description: 'Line 1\nLine "2"',
      labels: ['a', 'b'],
      people: [{ name: 'Ida, steward', address: 'ida@x.example' }],
      status: 'tentative',
      shows: 'free',
      properties: [{ name: 'Berth', value: 'B4' }],
      recurrence: { rule: 'FREQ=WEEKLY;COUNT=3', dates: [], exceptDates: [] },
    });
    const days = entry({
      id: 'd',
      kind: 'milestone',
      start: date('2026-05-04'),
      planned: date('2026-05-01'),
    });
    const { entries } = read(writeCsv([one, days]));
    const { id: _id, calendarId: _c, version: _v, ...rest } = one;
    expect(entries[0]).toEqual(rest);
    expect(entries[1]).toMatchObject({
      kind: 'milestone',
      start: date('2026-05-04'),
      planned: date('2026-05-01'),
    });
  });

  it('has no cell that a spreadsheet takes for a formula', () => {
    const text = writeCsv([
      entry({ start: date('2026-05-01'), title: '=HYPERLINK("x")', place: '+1', contact: '@a' }),
    ]);
    expect(text).toContain(`"'=HYPERLINK(""x"")"`);
    expect(text).toContain(",'+1,");
    expect(text).toContain(",'@a,");
    expect(read(text).entries[0]!.title).toBe('=HYPERLINK("x")');
  });

  it('has no cell that begins with what leads a spreadsheet to a formula behind it', () => {
    for (const odd of [
      '\t=1+1',
      '\r=1+1',
      '\n=1',
      '  =1',
      ' \t@x',
      '\u200b=1',
      '＝1',
      '-1',
      '=1',
      "'=1",
      "''=1",
    ]) {
      // As it is in the file: quoted where a line ends in it.
      const rows = csvTable(bytes(tableText([['Title'], [odd]]))).rows;
      expect(rows).toEqual([[`'${odd}`]]);
      expect(unguarded(rows[0]![0]!)).toBe(odd);
    }
    for (const plain of ['a=1', "'a", '1-1']) expect(tableText([[plain]])).toBe(`${plain}\r\n`);
  });
});
