import { parse, TYPE, type MessageFormatElement } from '@formatjs/icu-messageformat-parser';
import { describe, expect, it } from 'vitest';
import { fieldWord, ruleWords, statusWord } from '../entries';
import { dayText, readCalendar, reasonWords, spanWords } from '../forms';
import { filterWords } from '../glass';
import { journalField, journalValue } from '../journal';
import { PROBLEMS, sentence, type ProblemCode } from '../problems';
import { PROBLEMS_DE } from '../problems/de';
import { ceilingRequestWords, standingWords, whoMay, wishWords } from '../rights';
import { dayFromText } from '../zones';
import { FILE_TEXTS } from '../forms/read/fileTexts';
import { LETTER_TEXTS } from '../post/letterTexts';
import { de } from './de';
import { en } from './en';

function argumentsIn(elements: readonly MessageFormatElement[]): string[] {
  return elements.flatMap((e) => {
    if (e.type === TYPE.plural || e.type === TYPE.select)
      return [e.value, ...Object.values(e.options).flatMap((option) => argumentsIn(option.value))];
    return e.type === TYPE.argument ? [e.value] : [];
  });
}
const names = (text: string) => [...new Set(argumentsIn(parse(text)))].sort();

describe('what core composes', () => {
  it.each([
    ['to the application', { en, de }],
    ['in mails', LETTER_TEXTS],
    ['of imported files', FILE_TEXTS],
  ])('has the same messages with the same arguments in German %s', (_where, texts) => {
    const [english, german]: Readonly<Record<string, string>>[] = [texts.en, texts.de];
    expect(Object.keys(german!)).toEqual(Object.keys(english!));
    for (const key of Object.keys(english!)) expect(names(german![key]!), key).toEqual(names(english![key]!));
  });

  it.each([
    ['FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,FR;COUNT=10', 'alle 2 Wochen am Montag und Freitag, 10-mal'],
    ['FREQ=MONTHLY;BYDAY=-1FR', 'jeden Monat am letzten Freitag'],
    ['FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=1', 'jedes Jahr im März am Tag 1 des Monats'],
  ])('says the rule %s in German', (rule, words) => expect(ruleWords(rule, 'de')).toBe(words));

  it('reports in German how a file was read', () => {
    const event = [
      'BEGIN:VEVENT',
      'UID:a',
      'DTSTART;TZID=Nirgendwo:20260601T100000',
      'SUMMARY:Markt',
      'END:VEVENT',
    ];
    const text = ['BEGIN:VCALENDAR', ...event, 'BEGIN:VJOURNAL', 'END:VJOURNAL', 'END:VCALENDAR'].join(
      '\r\n',
    );
    const { items } = readCalendar(new TextEncoder().encode(text), 'UTC', { now: 0, language: 'de' });
    expect(items.map(({ notes }) => notes)).toEqual([
      ['Zeitzone „Nirgendwo“ ist weder bekannt noch definiert; ihre Zeiten bleiben ohne Zone.'],
      ['Das ist eine Notiz; Kalender enthalten hier Einträge mit einer Zeit.'],
    ]);
  });

  it('says days, fields, filters, rights and reasons in German', () => {
    const day = dayFromText('2026-11-23');
    expect(dayText(day, 'de')).toBe('Mo., 23. Nov. 2026');
    const span = {
      start: { kind: 'floating', at: '2026-11-23T14:00:00' },
      end: { kind: 'floating', at: '2026-11-23T15:30:00' },
    } as const;
    expect(spanWords(span, undefined, 'de')).toBe('Mo., 23. Nov. 2026, 14:00 bis 15:30');
    expect(spanWords(span)).toBe('Mon 23 Nov 2026, 14:00 to 15:30');
    expect(fieldWord('labels', 'de')).toBe('Etiketten');
    expect(statusWord('done', 'milestone', 'de')).toBe('erreicht');
    expect(statusWord('done', 'due', 'de')).toBe('erledigt');
    const filter = {
      any: [{ field: 'label', value: 'Kai' }, { not: { field: 'kind', value: 'due' } }],
    } as const;
    expect(filterWords(filter, () => '', 'de')).toBe('mit Etikett „Kai“ oder nicht Fristen');
    expect(whoMay('manage', 'de')).toBe('wer den Kalender herausgibt oder die Verwaltung des Hauses');
    const reader = { standing: 'reader', glass: 'tinted' } as const;
    expect(wishWords(reader, 'Kai', 'de')).toBe('„Kai“ zu sehen (getönt)');
    expect(standingWords(reader, 'Kai', 'de')).toBe('Lesen: Kai (getönt)');
    expect(ceilingRequestWords({ audience: 'street', glass: 'clear' }, null, 'de')).toContain(
      'Straße auf Klar',
    );
    expect(reasonWords([{ by: 'hold', glass: 'frosted', decides: true }], 'de')).toBe(
      'Sperre auf dem Eintrag: matt (entscheidet)',
    );
    expect(journalField('expires_at', 'de')).toBe('läuft ab');
    expect(journalValue(true, 'de')).toBe('ja');
  });
});

describe('errors in German', () => {
  const blanks = (text: string) => [...new Set(text.match(/\{\w+\}/g) ?? [])].sort();

  it.each(Object.keys(PROBLEMS) as ProblemCode[])('%s has the blanks of the English sentence', (code) => {
    expect(blanks(PROBLEMS_DE[code])).toEqual(blanks(PROBLEMS[code].say));
  });

  it('are filled like the English ones', () => {
    expect(sentence('name-taken', { name: 'Kai' }, 'de')).toBe(
      'Der Name „Kai“ ist vergeben. Wählen Sie einen anderen.',
    );
  });
});
