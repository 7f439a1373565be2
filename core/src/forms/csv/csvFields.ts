/** A column that a table of entries can have. */
export interface CsvField {
  readonly name: CsvFieldName;
  /** As the heading of an exported column, and as people read it. */
  readonly heading: string;
  /** Other headings by which the column is known, in plain small letters. */
  readonly known: readonly string[];
}

export const CSV_FIELD_NAMES = [
  'title',
  'startDate',
  'startTime',
  'endDate',
  'endTime',
  'zone',
  'place',
  'description',
  'publicLink',
  'joinLink',
  'labels',
  'people',
  'contact',
  'kind',
  'planned',
  'status',
  'shows',
  'rule',
  'uid',
] as const;
export type CsvFieldName = (typeof CSV_FIELD_NAMES)[number];

/** The columns of a table of entries; a title and a first day are needed, all others may be missing. */
export const CSV_FIELDS: readonly CsvField[] = [
  { name: 'title', heading: 'Title', known: ['subject', 'summary', 'name', 'event', 'what'] },
  {
    name: 'startDate',
    heading: 'Start date',
    known: ['start', 'date', 'from', 'begin', 'begins', 'day', 'due', 'due date'],
  },
  { name: 'startTime', heading: 'Start time', known: ['time', 'begin time', 'from time'] },
  { name: 'endDate', heading: 'End date', known: ['end', 'to', 'until', 'ends', 'last day'] },
  { name: 'endTime', heading: 'End time', known: ['to time', 'until time'] },
  { name: 'zone', heading: 'Time zone', known: ['timezone', 'zone', 'tz'] },
  { name: 'place', heading: 'Place', known: ['location', 'where', 'venue', 'room'] },
  { name: 'description', heading: 'Description', known: ['notes', 'details', 'text', 'body'] },
  { name: 'publicLink', heading: 'Public link', known: ['link', 'url', 'web', 'website'] },
  { name: 'joinLink', heading: 'Joining link', known: ['join', 'meeting link', 'conference'] },
  { name: 'labels', heading: 'Labels', known: ['label', 'category', 'categories', 'tags', 'tag'] },
  {
    name: 'people',
    heading: 'People',
    known: ['person', 'attendees', 'participants', 'who', 'group', 'groups'],
  },
  { name: 'contact', heading: 'Contact', known: ['organizer', 'organiser', 'contact person'] },
  { name: 'kind', heading: 'Kind', known: ['type'] },
  { name: 'planned', heading: 'Planned for', known: ['planned', 'baseline', 'planned date'] },
  { name: 'status', heading: 'Status', known: ['state'] },
  { name: 'shows', heading: 'Busy or free', known: ['busy', 'show as', 'availability', 'transparency'] },
  { name: 'rule', heading: 'Recurs (RRULE)', known: ['rrule', 'recurs', 'recurrence', 'rule'] },
  { name: 'uid', heading: 'Identifier', known: ['uid', 'id', 'key'] },
];

/** Which column (from 0) holds which field; a field that has none is absent. */
export type CsvMapping = Partial<Readonly<Record<CsvFieldName, number>>>;

/** Returns the columns that the headings of a table suggest; each column is used once. */
export function guessMapping(headings: readonly string[]): CsvMapping {
  const plain = headings.map((h) =>
    h
      .toLowerCase()
      .replace(/[_-]+/g, ' ')
      .replace(/[^\p{L}\p{N} ()]/gu, '')
      .trim(),
  );
  const mapping: Partial<Record<CsvFieldName, number>> = {};
  const taken = new Set<number>();
  const take = (fit: (field: CsvField, heading: string) => boolean) => {
    for (const field of CSV_FIELDS) {
      if (mapping[field.name] !== undefined) continue;
      const at = plain.findIndex((heading, i) => !taken.has(i) && fit(field, heading));
      if (at < 0) continue;
      mapping[field.name] = at;
      taken.add(at);
    }
  };
  take((field, heading) => heading === field.heading.toLowerCase());
  take((field, heading) => field.known.includes(heading));
  return mapping;
}
