import { EMPTY_CONTENT, type Content, type KeptProperty } from '../entries';
import { whenText } from './icsEvent';
import { escapeText, quoteParameter, raw } from './icsText';
import { partsOfLine } from './read/contentLine';
import { READERS } from './read/fieldReaders';

const STATUS = { confirmed: 'CONFIRMED', tentative: 'TENTATIVE', cancelled: 'CANCELLED', done: 'CONFIRMED' };
const TASK_STATUS = {
  confirmed: 'NEEDS-ACTION',
  tentative: 'NEEDS-ACTION',
  cancelled: 'CANCELLED',
  done: 'COMPLETED',
};
/** A hold has no property of its own; programs that know CLASS keep such entries in as well. */
const CLASS = { none: '', frost: 'PRIVATE', 'keep-in': 'CONFIDENTIAL' };

/** Returns the lines of everything that the fields of an entry say, without what was kept of a file. */
export function contentLines(c: Content, task: boolean): string[] {
  const plain = task ? 'NEEDS-ACTION' : 'CONFIRMED';
  const status = (task ? TASK_STATUS : STATUS)[c.status];
  const line = (name: string, text: string) => (text ? [`${name}:${escapeText(text)}`] : []);
  const uri = (name: string, text: string) => (text ? [`${name}:${raw(text)}`] : []);
  return [
    ...line('SUMMARY', c.title),
    ...line('LOCATION', c.place),
    ...line('DESCRIPTION', c.description),
    ...uri('URL', c.publicLink),
    ...uri('CONFERENCE;VALUE=URI', c.joinLink),
    ...(c.labels.length ? [`CATEGORIES:${c.labels.map(escapeText).join(',')}`] : []),
    ...c.people.map(personLine),
    ...line('CONTACT', c.contact),
    ...c.attachments.map((a) => `ATTACH;FILENAME=${quoteParameter(a.name)}:${raw(a.href)}`),
    `STATUS:${status}`,
    // What the standard has no word for.
    ...(status === plain && c.status !== 'confirmed' ? [`X-ZONAL-STATUS:${c.status.toUpperCase()}`] : []),
    ...(task
      ? [`X-ZONAL-SHOWS:${c.shows.toUpperCase()}`]
      : [`TRANSP:${c.shows === 'free' ? 'TRANSPARENT' : 'OPAQUE'}`]),
    ...(CLASS[c.hold] ? [`CLASS:${CLASS[c.hold]}`] : []),
    ...(c.kind === 'milestone' ? ['X-ZONAL-KIND:MILESTONE'] : []),
    ...(c.planned ? [`X-ZONAL-PLANNED${whenText(c.planned)}`] : []),
    ...c.properties.map(
      (p) => `X-ZONAL-PROPERTY;VALUE=TEXT;X-NAME=${quoteParameter(p.name)}:${escapeText(p.value)}`,
    ),
  ];
}

function personLine({ name, address, group }: Content['people'][number]): string {
  const head = `ATTENDEE;CN=${quoteParameter(name)}${group ? ';CUTYPE=GROUP' : ''}`;
  return `${head}:${address ? `mailto:${raw(address)}` : 'urn:x-zonal:no-address'}`;
}

/** Marks a property that was kept because a field holds one value only: it stands beside it. */
export const FURTHER = 'x-zonal-further';

/** Returns whether a kept property is a further one of its name. */
export function isFurther([, parameters]: KeptProperty): boolean {
  return FURTHER in parameters;
}

/** Returns whether a property is one that a field is read from. */
export function isField([name]: KeptProperty): boolean {
  return Object.hasOwn(READERS, name);
}

/** Returns the line that the fields alone would give for a property, or null when they say nothing of it. */
export function plainLineOf([name, parameters, type, ...values]: KeptProperty, task: boolean): string | null {
  const text = values.map(String).join(',');
  const property = { name, parameters: parameters as Record<string, string>, type, values, text, line: 0 };
  const content = { ...EMPTY_CONTENT, ...READERS[name]?.([property], new Set()) };
  const plain = contentLines(content, task).filter((l) => partsOfLine(l).name === name);
  return plain[0] ?? null;
}
