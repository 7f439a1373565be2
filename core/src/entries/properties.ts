import { Problem } from '../problems';
import { dayFromText } from '../zones';

export const PROPERTY_KINDS = ['text', 'number', 'choice', 'date'] as const;
export type PropertyKind = (typeof PROPERTY_KINDS)[number];

export const PROPERTY_KIND_WORDS: Readonly<Record<PropertyKind, string>> = {
  text: 'text',
  number: 'number',
  choice: 'choice',
  date: 'date',
};

/** A property that a house gives its entries. Its name is its identity. */
export interface PropertyDefinition {
  readonly name: string;
  readonly kind: PropertyKind;
  /** What a choice can be; empty for the other kinds. */
  readonly choices: readonly string[];
}

/** Throws `property-invalid` unless a value (as text, not empty) fits a property. */
export function checkProperty({ name, kind, choices }: PropertyDefinition, value: string): void {
  const wrong = (expected: string) => new Problem('property-invalid', { name, value, expected });
  if (kind === 'number' && !/^-?\d+(\.\d+)?$/.test(value)) throw wrong('a number such as 12 or 4.5');
  if (kind === 'choice' && !choices.includes(value)) throw wrong(`one of: ${choices.join(', ')}`);
  if (kind === 'date') {
    try {
      dayFromText(value);
    } catch {
      throw wrong('a date such as 2026-05-31');
    }
  }
}
