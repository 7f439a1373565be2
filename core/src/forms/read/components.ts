import { Problem } from '../../problems';
import type { InsideLanguage } from '../../texts/languages';
import { FileNotes } from './fileNotes';
import { partsOfLine, type LineParts } from './contentLine';

/** A property, with the line that it starts on. */
export interface Property extends LineParts {
  readonly line: number;
}

export interface Component {
  readonly name: string;
  readonly line: number;
  readonly properties: Property[];
  readonly children: Component[];
  /** Lines that are no properties: each was left out. */
  readonly notes: FileNotes;
}

interface ContentLine {
  text: string;
  line: number;
}

/**
 * Returns the VCALENDARs of an iCalendar text. Any line ends are taken. A line that is no property is left out and noted
 * with its number, in a language. Throws `file-not-calendar`, or `file-malformed` where components do not fit together, with the
 * number of the line, counted from 1.
 */
export function componentsOf(text: string, language: InsideLanguage = 'en'): Component[] {
  const top: Component[] = [];
  const open: Component[] = [];
  for (const { text: content, line } of unfold(text)) {
    const marker = /^(BEGIN|END):(.+)$/i.exec(content.trimEnd());
    if (marker?.[1]!.toUpperCase() === 'BEGIN') {
      const name = marker[2]!.trim().toUpperCase();
      if (!open.length && name !== 'VCALENDAR') throw new Problem('file-not-calendar', { line });
      const component: Component = {
        name,
        line,
        properties: [],
        children: [],
        notes: new FileNotes(language),
      };
      (open.at(-1)?.children ?? top).push(component);
      open.push(component);
    } else if (marker) {
      const ended = open.pop();
      const name = marker[2]!.trim().toUpperCase();
      if (ended?.name !== name) {
        const expected = ended
          ? `expected END:${ended.name} (begun on line ${ended.line})`
          : 'nothing is open here';
        throw new Problem('file-malformed', { line, reason: `END:${name} does not fit: ${expected}` });
      }
    } else {
      const inside = open.at(-1);
      if (!inside) throw new Problem('file-not-calendar', { line });
      read(inside, content, line);
    }
  }
  const left = open.at(-1);
  if (left) {
    throw new Problem('file-malformed', {
      line: left.line,
      reason: `the ${left.name} begun here has no END`,
    });
  }
  if (!top.length) throw new Problem('file-not-calendar', { line: 1 });
  return top;
}

/** Joins folded lines (RFC 5545 section 3.1) and drops empty ones. */
function unfold(text: string): ContentLine[] {
  const out: ContentLine[] = [];
  const lines = text.split(/\r\n|\n|\r/);
  for (let i = 0; i < lines.length; i++) {
    const raw = lines[i]!;
    if (raw === '') continue;
    const last = out.at(-1);
    if ((raw[0] === ' ' || raw[0] === '\t') && last) last.text += raw.slice(1);
    else if (raw.trim() !== '') out.push({ text: raw, line: i + 1 });
  }
  return out;
}

/** So many bad lines of one component are told one by one. */
const MOST_NOTES = 20;

function read(inside: Component, content: string, line: number): void {
  try {
    inside.properties.push({ ...partsOfLine(content), line });
  } catch (error) {
    const { notes } = inside;
    if (notes.size < MOST_NOTES) notes.add('lineLeftOut', { line, reason: (error as Error).message });
    else notes.add('moreLinesLeftOut');
  }
}

/** Returns the properties of a name (in lower case). */
export function all(component: Component, name: string): Property[] {
  return component.properties.filter((p) => p.name === name);
}

/** Returns the first property of a name, or undefined. */
export function first(component: Component, name: string): Property | undefined {
  return component.properties.find((p) => p.name === name);
}

/** Returns a parameter's text; of several values the first. */
export function parameter(property: Property, name: string): string | undefined {
  const value = property.parameters[name];
  return Array.isArray(value) ? value[0] : value;
}
