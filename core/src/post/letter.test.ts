import fc from 'fast-check';
import { parse, type DefaultTreeAdapterTypes } from 'parse5';
import { describe, expect, it } from 'vitest';
import { headerText, letterHtml, letterText, type Letter } from './letter';
import { credentialsLetter, invitationLetter, sightReplyLetter } from './letters';

type Node = DefaultTreeAdapterTypes.Node;
const elementsOf = (node: Node): string[] => [
  ...('tagName' in node ? [node.tagName] : []),
  ...('childNodes' in node ? node.childNodes.flatMap(elementsOf) : []),
];

describe('a letter', () => {
  const letter = invitationLetter({
    house: 'The Trust',
    by: 'Ida',
    lines: ['editor of Quay', 'reader of Works through tinted glass'],
    href: 'https://house.example/welcome#abc',
    ends: '3 May 2031',
  });

  it('says the same as plain text and as HTML', () => {
    expect(letterText(letter)).toBe(`Ida invites you to the calendars of The Trust.

Your rights there:

- editor of Quay
- reader of Works through tinted glass

Accept, and choose a name and a password:
https://house.example/welcome#abc

This address works once, until 3 May 2031. If you do not know what this is about, ignore this mail.
`);
    const html = letterHtml(letter);
    for (const line of ['editor of Quay', 'href="https://house.example/welcome#abc"', 'until 3 May 2031'])
      expect(html).toContain(line);
  });

  it('never takes what somebody wrote for its own form, nor for a header', () => {
    const nasty = fc.oneof(
      fc.string({ unit: 'binary' }),
      fc.constantFrom('<script>x</script>', '"><img src=x onerror=y>', 'a\r\nBcc: x@y.example', '\u2028'),
    );
    const more = (title: string, line: string): Letter['parts'] => [
      { kind: 'heading', text: title },
      { kind: 'things', items: [{ title, lines: [line] }] },
    ];
    const plain = elementsOf(parse(letterHtml({ ...letter, parts: [...letter.parts, ...more('a', 'b')] })));
    fc.assert(
      fc.property(nasty, nasty, (by, line) => {
        const one: Letter = invitationLetter({ house: by, by, lines: [line, by], href: line, ends: by });
        const whole = { ...one, parts: [...one.parts, ...more(by, line)] };
        expect(elementsOf(parse(letterHtml(whole)))).toEqual(plain);
        expect(headerText(one.subject)).not.toMatch(/[\u0000-\u001f\u007f-\u009f\u2028\u2029]/);
      }),
      { numRuns: 300 },
    );
  });

  it('tells what became of a wish', () => {
    const said = {
      house: 'H',
      by: 'Jon',
      wish: 'see “Works” through clear glass',
      href: 'https://h.example/',
    };
    const given = 'see “Works” through tinted glass';
    expect(letterText(sightReplyLetter({ ...said, given }))).toContain(
      'Jon granted your request: you may now see “Works” through tinted glass.',
    );
    expect(letterText(sightReplyLetter({ ...said, given: null }))).toContain(
      'Jon declined your request to see “Works” through clear glass.',
    );
  });

  it('is written in the language of its recipient', () => {
    const german = credentialsLetter({ house: '', language: 'de', name: 'Ida', what: 'password' });
    expect(german.subject).toBe('Das Passwort Ihres Kontos bei Ihrer Organisation wurde geändert');
    expect(letterHtml(german)).toContain('<html lang="de">');
  });
});
