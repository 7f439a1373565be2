import { Problem } from '../problems';
import { outwardText } from './outwardText';
import type { OutwardContent, OutwardField } from './fields';

/** The parts that an outward title can be made of, each with the field that must go through the glass for it. */
export const TITLE_PARTS = {
  title: 'title',
  calendar: null,
  label: 'labels',
  labels: 'labels',
  place: 'place',
  kind: 'kind',
  status: 'status',
  person: 'people',
} as const satisfies Record<string, OutwardField | null>;
export type TitlePart = keyof typeof TITLE_PARTS;

/** A text as it is; a part with those to take where it is absent; or a group that goes when none of its parts is there. */
type Piece =
  { readonly text: string } | { readonly choose: readonly Choice[] } | { readonly group: readonly Piece[] };
type Choice = { readonly part: TitlePart } | { readonly property: string } | { readonly text: string };

/** A pattern that was read. */
export type TitlePattern = readonly Piece[];

/** The title as it stands inside. */
export const PLAIN_TITLE = '{title}';

const read = new Map<string, TitlePattern>();

/**
 * Returns a pattern such as `{calendar}: {title}` or `{title}[ ({label})]`. `{a|b|"text"}` takes the first that is
 * there; what stands in square brackets goes where none of its parts is there; `property:Name` is a property of the
 * house. Throws `pattern-invalid` with what cannot be read.
 */
export function readPattern(text: string): TitlePattern {
  const known = read.get(text);
  if (known) return known;
  if (text.length > 200) throw new Problem('pattern-invalid', { reason: 'it has more than 200 letters' });
  const { pieces, at } = readPieces(text, 0, false);
  if (at < text.length) wrong('a “]” closes nothing');
  if (!pieces.length) wrong('it is empty');
  if (read.size > 500) read.clear();
  read.set(text, pieces);
  return pieces;
}

function wrong(reason: string): never {
  throw new Problem('pattern-invalid', { reason });
}

function readPieces(text: string, from: number, inside: boolean): { pieces: Piece[]; at: number } {
  const pieces: Piece[] = [];
  let at = from;
  while (at < text.length) {
    const sign = text[at];
    if (sign === ']') {
      if (inside) break;
      wrong('a “]” closes nothing');
    } else if (sign === '[') {
      if (inside) wrong('square brackets cannot stand in square brackets');
      const group = readPieces(text, at + 1, true);
      if (text[group.at] !== ']') wrong('a “[” is not closed');
      if (!group.pieces.some((p) => 'choose' in p)) wrong('square brackets must hold a part in braces');
      pieces.push({ group: group.pieces });
      at = group.at + 1;
    } else if (sign === '{') {
      const end = text.indexOf('}', at);
      if (end < 0) wrong('a “{” is not closed');
      pieces.push({
        choose: text
          .slice(at + 1, end)
          .split('|')
          .map(readChoice),
      });
      at = end + 1;
    } else if (sign === '}') {
      wrong('a “}” closes nothing');
    } else {
      const end = text.slice(at).search(/[[\]{}]/);
      const next = end < 0 ? text.length : at + end;
      pieces.push({ text: text.slice(at, next) });
      at = next;
    }
  }
  return { pieces, at };
}

function readChoice(text: string): Choice {
  const word = text.trim();
  const quoted = /^"([^"]*)"$/.exec(word);
  if (quoted) return { text: quoted[1]! };
  if (word.startsWith('property:') && word.length > 9) return { property: word.slice(9).trim() };
  if (word in TITLE_PARTS) return { part: word as TitlePart };
  const parts = [...Object.keys(TITLE_PARTS), 'property:Name'].join(', ');
  return wrong(`there is no part “${word}”. The parts are: ${parts}`);
}

/**
 * Returns the outward title: nothing is looked at but what goes out anyway and the calendar's outward name. It is
 * empty where no part of the pattern is there.
 */
export function titleFrom(pattern: TitlePattern, content: OutwardContent, calendar: string): string {
  const filled = pattern.map((piece) => fill(piece, content, calendar));
  const somethingThere = filled.some((f) => f.there) || pattern.every((p) => 'text' in p);
  if (!somethingThere) return '';
  const title = filled
    .map((f) => f.text)
    .join('')
    .replace(/\s+/g, ' ')
    .trim();
  return title.length > LONGEST_TITLE ? `${outwardText(title.slice(0, LONGEST_TITLE - 1))}…` : title;
}

/** A pattern can repeat what is long; a title ends here. */
const LONGEST_TITLE = 1000;

function fill(piece: Piece, content: OutwardContent, calendar: string): { text: string; there: boolean } {
  if ('text' in piece) return { text: piece.text, there: false };
  if ('choose' in piece) {
    for (const choice of piece.choose) {
      const text = valueOf(choice, content, calendar);
      if (text) return { text, there: true };
    }
    return { text: '', there: false };
  }
  const inner = piece.group.map((p) => fill(p, content, calendar));
  const there = inner.some((f) => f.there);
  return { text: there ? inner.map((f) => f.text).join('') : '', there };
}

function valueOf(choice: Choice, content: OutwardContent, calendar: string): string {
  if ('text' in choice) return choice.text;
  if ('property' in choice)
    return content.properties?.find((p) => p.name === choice.property)?.value.trim() ?? '';
  switch (choice.part) {
    case 'title':
      return content.title.trim();
    case 'calendar':
      return calendar.trim();
    case 'label':
      return content.labels?.[0] ?? '';
    case 'labels':
      return content.labels?.join(', ') ?? '';
    case 'place':
      return content.place.trim();
    case 'kind':
      return content.kind === 'due' ? 'due' : (content.kind ?? '');
    case 'status':
      return content.status === 'confirmed' ? '' : content.status;
    case 'person':
      return content.people?.[0]?.name ?? '';
  }
}
