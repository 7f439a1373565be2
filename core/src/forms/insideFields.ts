import { STATUSES, isImage, type Content, type Hold, type Person, type Status } from '../entries';
import { whenText } from './icsEvent';
import { escapeText, quoteParameter, raw } from './icsText';
import { parameter, type Property } from './read/components';
import type { FileNotes } from './read/fileNotes';

/** Reads all properties of one name into fields; notes say what was changed or left out. */
type Reader = (properties: readonly Property[], notes: FileNotes) => Partial<Content>;

/** How a field stands in a file of the organisers' own, and how it is read from anybody's. */
interface InsideField<T> {
  /** Its content lines; in a task (VTODO) some are others. */
  readonly write: (value: T, task: boolean) => string[];
  /** The properties that it is read from, by name. */
  readonly read: Readonly<Record<string, Reader>>;
}

const STATUS_TEXT: Record<Status, string> = {
  confirmed: 'CONFIRMED',
  tentative: 'TENTATIVE',
  cancelled: 'CANCELLED',
  done: 'CONFIRMED',
};
const TASK_STATUS_TEXT: Record<Status, string> = {
  confirmed: 'NEEDS-ACTION',
  tentative: 'NEEDS-ACTION',
  cancelled: 'CANCELLED',
  done: 'COMPLETED',
};
const STATUS: Record<string, Status> = {
  CONFIRMED: 'confirmed',
  TENTATIVE: 'tentative',
  CANCELLED: 'cancelled',
  'NEEDS-ACTION': 'confirmed',
  'IN-PROCESS': 'confirmed',
  COMPLETED: 'done',
};

/** A hold has no property of its own; programs that know CLASS keep such entries in as well. */
const CLASS = { none: '', frost: 'PRIVATE', 'keep-in': 'CONFIDENTIAL' };

/** Entries that the file marks as not public are held, so that they do not go out by being brought in. */
const HOLD_OF_CLASS: Record<string, { hold: Hold; note: 'markedPrivate' | 'markedConfidential' }> = {
  PRIVATE: { hold: 'frost', note: 'markedPrivate' },
  CONFIDENTIAL: { hold: 'keep-in', note: 'markedConfidential' },
};

const line = (name: string, value: string) => (value ? [`${name}:${escapeText(value)}`] : []);
const uri = (name: string, value: string) => (value ? [`${name}:${raw(value)}`] : []);

/** Each field as iCalendar (RFC 5545 section 3.8, RFC 7986 section 5); the order here is the order in the file. */
const INSIDE: { readonly [F in keyof Content]: InsideField<Content[F]> } = {
  title: {
    write: (v) => line('SUMMARY', v),
    read: {
      summary: ([p]) => ({
        title: text(p)
          .replace(/\s*\n\s*/g, ' ')
          .trim(),
      }),
    },
  },
  place: { write: (v) => line('LOCATION', v), read: { location: ([p]) => ({ place: text(p).trim() }) } },
  description: {
    write: (v) => line('DESCRIPTION', v),
    read: { description: (all) => ({ description: all.map(text).join('\n\n') }) },
  },
  publicLink: { write: (v) => uri('URL', v), read: { url: ([p]) => ({ publicLink: p!.text.trim() }) } },
  joinLink: {
    write: (v) => uri('CONFERENCE;VALUE=URI', v),
    read: { conference: ([p]) => ({ joinLink: p!.text.trim() }) },
  },
  labels: {
    write: (v) => (v.length ? [`CATEGORIES:${v.map(escapeText).join(',')}`] : []),
    read: {
      categories: (all) => ({
        labels: [...new Set(all.flatMap((p) => p.values.map((v) => String(v).trim())).filter(Boolean))],
      }),
    },
  },
  people: { write: (v) => v.map(personLine), read: { attendee: (all) => ({ people: all.map(personOf) }) } },
  contact: {
    write: (v) => line('CONTACT', v),
    read: { contact: (all) => ({ contact: all.map(text).join(', ').trim() }) },
  },
  attachments: {
    write: (v) => v.map((a) => `ATTACH;FILENAME=${quoteParameter(a.name)}:${raw(a.href)}`),
    read: { attach: attachmentsOf },
  },
  image: {
    write: (v) =>
      v
        ? [`X-ZONAL-IMAGE;VALUE=TEXT;X-NAME=${v.name};X-SIZE=${v.width}x${v.height}:${escapeText(v.alt)}`]
        : [],
    read: { 'x-zonal-image': ([p]) => imageOf(p!) },
  },
  status: {
    write: (v, task) => {
      const status = (task ? TASK_STATUS_TEXT : STATUS_TEXT)[v];
      const plain = task ? 'NEEDS-ACTION' : 'CONFIRMED';
      // What the standard has no word for.
      const more = status === plain && v !== 'confirmed' ? [`X-ZONAL-STATUS:${v.toUpperCase()}`] : [];
      return [`STATUS:${status}`, ...more];
    },
    read: {
      status: ([p], notes) => {
        const status = STATUS[p!.text.trim().toUpperCase()];
        if (!status) notes.add('statusUnknown', { text: p!.text });
        return { status: status ?? 'confirmed' };
      },
      'x-zonal-status': ([p]) => ({
        status: STATUSES.find((s) => s.toUpperCase() === p!.text.trim()) ?? 'confirmed',
      }),
    },
  },
  shows: {
    write: (v, task) =>
      task ? [`X-ZONAL-SHOWS:${v.toUpperCase()}`] : [`TRANSP:${v === 'free' ? 'TRANSPARENT' : 'OPAQUE'}`],
    read: {
      transp: ([p]) => ({ shows: p!.text.trim().toUpperCase() === 'TRANSPARENT' ? 'free' : 'busy' }),
      'x-zonal-shows': ([p]) => ({ shows: p!.text.trim() === 'BUSY' ? 'busy' : 'free' }),
    },
  },
  hold: {
    write: (v) => line('CLASS', CLASS[v]),
    read: {
      class: ([p], notes) => {
        const found = HOLD_OF_CLASS[p!.text.trim().toUpperCase()];
        if (!found) return {};
        notes.add(found.note);
        return { hold: found.hold };
      },
    },
  },
  kind: {
    write: (v) => (v === 'milestone' ? ['X-ZONAL-KIND:MILESTONE'] : []),
    read: {
      'x-zonal-kind': ([p]) => (p!.text.trim().toUpperCase() === 'MILESTONE' ? { kind: 'milestone' } : {}),
    },
  },
  // Read with the other moments, as it can name a zone of the file.
  planned: { write: (v) => (v ? [`X-ZONAL-PLANNED${whenText(v)}`] : []), read: {} },
  properties: {
    write: (v) =>
      v.map((p) => `X-ZONAL-PROPERTY;VALUE=TEXT;X-NAME=${quoteParameter(p.name)}:${escapeText(p.value)}`),
    read: {
      'x-zonal-property': (all) => ({
        properties: all.map((p) => ({ name: parameter(p, 'x-name') ?? '', value: text(p) })),
      }),
    },
  },
  // What has no field is put in where the others stand (see writeEntries), and read from all that is left.
  kept: { write: () => [], read: {} },
};

const FIELDS = Object.keys(INSIDE) as (keyof Content)[];

/** How each property is read into fields, by its name; what has no line here is kept as it is for the round trip. */
export const READERS: Readonly<Record<string, Reader>> = Object.assign(
  {},
  ...FIELDS.map((field) => INSIDE[field].read),
);

/** Returns the lines of everything that the fields of an entry say, without what was kept of a file. */
export function contentLines(content: Content, task: boolean): string[] {
  return FIELDS.flatMap((field) => (INSIDE[field] as InsideField<unknown>).write(content[field], task));
}

function personLine({ name, address, group }: Person): string {
  const head = `ATTENDEE;CN=${quoteParameter(name)}${group ? ';CUTYPE=GROUP' : ''}`;
  return `${head}:${address ? `mailto:${raw(address)}` : 'urn:x-zonal:no-address'}`;
}

/** Such a line names an image of the house that wrote the file; in another house it names nothing. */
function imageOf(property: Property): Partial<Content> {
  const [, width, height] = /^(\d{1,5})x(\d{1,5})$/.exec(parameter(property, 'x-size') ?? '') ?? [];
  const image = {
    name: parameter(property, 'x-name') ?? '',
    alt: text(property),
    width: Number(width ?? 0),
    height: Number(height ?? 0),
  };
  return isImage(image) && image.alt.trim() ? { image } : {};
}

function attachmentsOf(all: readonly Property[], notes: FileNotes): Pick<Content, 'attachments'> {
  const links = all.filter((p) => p.type !== 'binary' && parameter(p, 'value')?.toUpperCase() !== 'BINARY');
  if (links.length < all.length) notes.add('fileInside');
  return {
    attachments: links.map((p) => ({
      name: parameter(p, 'filename') ?? parameter(p, 'x-filename') ?? p.text.split('/').at(-1)!,
      href: p.text.trim(),
    })),
  };
}

function text(property: Property | undefined): string {
  return property ? property.values.map(String).join(',').replace(/\r\n?/g, '\n') : '';
}

export function personOf(property: Property): Person {
  const address = /^mailto:/i.test(property.text) ? property.text.slice(7).trim() : '';
  const group = parameter(property, 'cutype')?.toUpperCase() === 'GROUP';
  return { name: parameter(property, 'cn') ?? address, address, ...(group ? { group } : {}) };
}

export function contactText({ name, address }: Person): string {
  return address && address !== name ? `${name} <${address}>` : name;
}
