import {
  ENTRY_FIELDS,
  capital,
  type Content,
  type Person,
  type Shape,
  type ShapeValues,
  type When,
} from '../../entries';
import type { FileNotes } from '../read/fileNotes';

/** What a cell is read by besides its text. */
export interface CellReading {
  /** Returns the moment that a text says. Throws `date-invalid` or `time-invalid`. */
  readonly moment: (text: string) => When;
  /** Receives what was read as something else. */
  readonly notes: FileNotes;
}

/** What a choice is made from. */
interface Choosing {
  readonly word: string;
  readonly german: string;
  readonly empty: unknown;
  readonly of?: Readonly<Record<string, string>>;
  readonly column: { readonly means?: Readonly<Record<string, string>> } | null;
}

/** How values of each shape stand in a cell; null for those that have no column. */
const CELLS: {
  readonly [S in Shape]: {
    readonly write: (value: ShapeValues[S]) => string;
    readonly read: (text: string, how: CellReading, home: Choosing) => ShapeValues[S];
  } | null;
} = {
  line: { write: (v) => v, read: (text) => text },
  text: { write: (v) => v, read: (text) => text },
  link: { write: (v) => v, read: (text) => text },
  choice: { write: (v) => v, read: choiceOf },
  labels: { write: (v) => v.join('; '), read: listOf },
  people: {
    write: (v) => v.map((p) => (p.address ? `${p.name} <${p.address}>` : p.name)).join('; '),
    read: (text) => listOf(text).map(personOf),
  },
  moment: {
    write: (v) => (v ? momentText(v) : ''),
    read: (text, { moment }) => (text ? moment(text) : null),
  },
  attachments: null,
  image: null,
  properties: null,
  kept: null,
};

/** Returns a field as it stands in its cell. */
export function cellOf(content: Content, field: keyof Content): string {
  return (CELLS[ENTRY_FIELDS[field].shape]!.write as (value: unknown) => string)(content[field]);
}

/** Returns the value of a field that a cell says. Throws what is wrong with it. */
export function valueOfCell(field: keyof Content, text: string, how: CellReading): unknown {
  const home = ENTRY_FIELDS[field];
  return CELLS[home.shape]!.read(text, how, home as Choosing);
}

/** Returns a moment as a cell: `2026-05-31` or `2026-05-31 14:30`. */
export function momentText(when: When): string {
  return momentParts(when).join(' ').trim();
}

export function momentParts(when: When): [date: string, time: string] {
  return when.kind === 'date' ? [when.date, ''] : [when.at.slice(0, 10), when.at.slice(11, 16)];
}

function listOf(text: string): string[] {
  const separator = text.includes(';') || text.includes('<') ? ';' : ',';
  return [
    ...new Set(
      text
        .split(separator)
        .map((t) => t.trim())
        .filter(Boolean),
    ),
  ];
}

function personOf(text: string): Person {
  const [, name, address] = /^(.*?)\s*<([^>]+)>$/.exec(text) ?? [];
  if (address) return { name: name || address, address };
  return { name: text, address: /^\S+@\S+$/.test(text) ? text : '' };
}

function choiceOf(
  text: string,
  { notes }: CellReading,
  { word, german, empty, of, column }: Choosing,
): string {
  const other = empty as string;
  if (!text) return other;
  const said = text.toLowerCase();
  const found = Object.keys(of!).find((one) => one === said) ?? column?.means?.[said];
  if (!found && !column?.means)
    notes.add('choiceUnknown', { field: capital(notes.language === 'de' ? german : word), text, other });
  return found ?? other;
}
