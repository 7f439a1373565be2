import { all, first, parameter, type Component, type Property } from '../read/components';

/** One thing that is not as a standard asks. */
export interface Finding {
  /** Line of the document, from 1. */
  readonly line: number;
  /** What is wrong, as a sentence. */
  readonly say: string;
  /** The standard and its section. */
  readonly section: string;
  /** `must`: programs may refuse it; `should`: programs may show it in another way than it is meant. */
  readonly weight: 'must' | 'should';
}

/** Reports that something on a line, counted from 1, is wrong. */
export type Report = (line: number, say: string) => void;

/** What one section asks. A rule checks the document as text, each calendar, or each component of some kinds. */
export interface Rule {
  readonly section: string;
  /** Default: `must`. */
  readonly weight?: 'should';
  readonly text?: (text: string, report: Report) => void;
  readonly calendar?: (calendar: Component, report: Report) => void;
  /** Kinds of components that `component` checks, wherever they are; all of them if left out. */
  readonly of?: readonly string[];
  readonly component?: (component: Component, report: Report, place: Place) => void;
}

/** Where a component is. */
export interface Place {
  readonly calendar: Component;
  readonly parent: Component;
}

export const ENTRIES = ['VEVENT', 'VTODO'];

const DATE = /^\d{8}$/;

/** Returns whether a moment is written as a date, in UTC, in a zone, or floating. */
export function momentKind(p: Property): 'date' | 'utc' | 'zoned' | 'floating' {
  if (DATE.test(p.text)) return 'date';
  if (/z$/i.test(p.text)) return 'utc';
  return parameter(p, 'tzid') === undefined ? 'floating' : 'zoned';
}

/** Returns the type that a property says or is read as, in capital letters. */
export function valueTypeOf(p: Property): string {
  return (parameter(p, 'value') ?? p.type).toUpperCase();
}

/** Returns an enumerated value, which has no case (RFC 5545 section 2). */
export function word(p: Property | undefined): string | undefined {
  return p?.text.toUpperCase();
}

/** Returns a text of the document, short enough for a sentence. */
export function quoted(text: string): string {
  return `“${text.slice(0, 40)}”`;
}

/** Reports a property that is missing or there more than once; returns the first one. */
export function exactlyOne(component: Component, name: string, report: Report): Property | undefined {
  const found = all(component, name);
  if (!found.length) report(component.line, `${component.name} has no ${name.toUpperCase()}.`);
  atMostOne(component, name, report);
  return found[0];
}

/** Reports a property that is there more than once. */
export function atMostOne(component: Component, name: string, report: Report): void {
  const [, second] = all(component, name);
  if (second) report(second.line, `${component.name} has more than one ${name.toUpperCase()}.`);
}

/** Returns the METHOD of a calendar in capital letters, or undefined. */
export function methodOf(calendar: Component): string | undefined {
  return word(first(calendar, 'method'));
}

/** Returns the definitions of time zones in a calendar. */
export function zonesOf(calendar: Component): Component[] {
  return calendar.children.filter((c) => c.name === 'VTIMEZONE');
}
