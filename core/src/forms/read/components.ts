import ICAL from 'ical.js';
import { Problem } from '../../problems';

/** A property as jCal (RFC 7265 section 3.4), with the line that it starts on and its text after the colon. */
export interface Property {
  readonly name: string;
  readonly parameters: Readonly<Record<string, string | string[]>>;
  readonly type: string;
  readonly values: readonly unknown[];
  readonly text: string;
  /** The whole content line. */
  readonly source: string;
  readonly line: number;
}

export interface Component {
  readonly name: string;
  readonly line: number;
  readonly properties: Property[];
  readonly children: Component[];
}

interface ContentLine {
  text: string;
  line: number;
}

/**
 * Returns the VCALENDARs of an iCalendar text. Any line ends are taken. Throws `file-not-calendar` or
 * `file-malformed` with the number of the line, counted from 1.
 */
export function componentsOf(text: string): Component[] {
  const top: Component[] = [];
  const open: Component[] = [];
  for (const { text: content, line } of unfold(text)) {
    const marker = /^(BEGIN|END):(.+)$/i.exec(content.trimEnd());
    if (marker?.[1]!.toUpperCase() === 'BEGIN') {
      const name = marker[2]!.trim().toUpperCase();
      if (!open.length && name !== 'VCALENDAR') throw new Problem('file-not-calendar', { line });
      const component: Component = { name, line, properties: [], children: [] };
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
      inside.properties.push(parseProperty(content, line));
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

/** Values that are read from their text later on, so that one bad value costs one entry and not the file. */
const READ_AS_TEXT = new Set([
  'dtstart',
  'dtend',
  'duration',
  'rrule',
  'exrule',
  'rdate',
  'exdate',
  'recurrence-id',
]);

function parseProperty(content: string, line: number): Property {
  if (!/^[A-Za-z0-9-]+[;:]/.test(content)) {
    throw new Problem('file-malformed', {
      line,
      reason: `“${content.slice(0, 40)}” is not a property (NAME:value)`,
    });
  }
  try {
    const name = /^[^;:]+/.exec(content)![0].toLowerCase();
    const readable = READ_AS_TEXT.has(name) ? `X-TEXT${content.slice(name.length)}` : content;
    const [, parameters, type, ...values] = ICAL.parse.property(readable) as [
      string,
      Record<string, string | string[]>,
      string,
      ...unknown[],
    ];
    return { name, parameters, type, values, text: valueText(content), source: content, line };
  } catch (error) {
    throw new Problem('file-malformed', { line, reason: (error as Error).message.replace(/[.\s]+$/, '') });
  }
}

/** Returns what stands after the first colon outside quotes. */
function valueText(content: string): string {
  let quoted = false;
  for (let i = 0; i < content.length; i++) {
    if (content[i] === '"') quoted = !quoted;
    else if (content[i] === ':' && !quoted) return content.slice(i + 1);
  }
  return '';
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

/** Returns a component as jCal, for what ical.js computes on it. */
export function jCalOf(component: Component): unknown[] {
  return [
    component.name.toLowerCase(),
    component.properties.map((p) => ICAL.parse.property(p.source)),
    component.children.map(jCalOf),
  ];
}
