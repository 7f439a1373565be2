import { describe, expect, it } from 'vitest';
import { readPattern, titleFrom, type OutwardContent } from '.';

const full: OutwardContent = {
  title: 'Dredging',
  place: 'North Channel',
  status: 'tentative',
  shows: 'busy',
  kind: 'milestone',
  labels: ['works', 'tide'],
  people: [{ name: 'Ann', address: '' }],
  properties: [{ name: 'Berth', value: '2' }],
};
const bare: OutwardContent = { title: 'Dredging', place: '', status: 'confirmed', shows: 'busy' };
const told = (pattern: string, content: OutwardContent) => titleFrom(readPattern(pattern), content, 'Works');

describe('the pattern of titles', () => {
  it('is made of parts, with those to take where one is absent', () => {
    expect(told('{calendar}: {title}', full)).toBe('Works: Dredging');
    expect(told('{title}[ ({label})]', full)).toBe('Dredging (works)');
    expect(told('{title}[ ({label})]', bare)).toBe('Dredging');
    expect(told('{label|calendar|"none"}', bare)).toBe('Works');
    expect(told('{person|"Somebody"} at {place|"sea"}', bare)).toBe('Somebody at sea');
    expect(told('{labels}; {kind}; {status}; {property:Berth}', full)).toBe(
      'works, tide; milestone; tentative; 2',
    );
    expect(told('[{status}: ]{title}', bare)).toBe('Dredging');
  });

  it('is empty where nothing of it is there', () => {
    expect(told('Berth {property:Berth}', bare)).toBe('');
    expect(told('Always the same', bare)).toBe('Always the same');
  });

  it('is refused with what cannot be read', () => {
    const reason = (text: string) => {
      try {
        readPattern(text);
      } catch (error) {
        return (error as Error).message;
      }
      return 'it was taken';
    };
    expect(reason('{title} {weather}')).toContain(
      'there is no part “weather”. The parts are: title, calendar',
    );
    expect(reason('{title')).toContain('“{” is not closed');
    expect(reason('title}')).toContain('“}” closes nothing');
    expect(reason('[{title}')).toContain('“[” is not closed');
    expect(reason('{title}]')).toContain('“]” closes nothing');
    expect(reason('[[{title}]]')).toContain('cannot stand');
    expect(reason('[text]{title}')).toContain('must hold a part');
    expect(reason('')).toContain('empty');
    expect(reason('x'.repeat(201))).toContain('200');
  });
});
