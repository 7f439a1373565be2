import { STATUSES, type Content, type Hold, type Person, type Status } from '../../entries';
import { parameter, type Property } from './components';

const STATUS: Record<string, Status> = {
  CONFIRMED: 'confirmed',
  TENTATIVE: 'tentative',
  CANCELLED: 'cancelled',
  'NEEDS-ACTION': 'confirmed',
  'IN-PROCESS': 'confirmed',
  COMPLETED: 'done',
};

/** Entries that the file marks as not public are held, so that they do not go out by being brought in. */
const HOLD_OF_CLASS: Record<string, { hold: Hold; note: string }> = {
  PRIVATE: { hold: 'frost', note: 'It is marked PRIVATE in the file, so it is held to busy time only.' },
  CONFIDENTIAL: { hold: 'keep-in', note: 'It is marked CONFIDENTIAL in the file, so it is kept in.' },
};

/** Reads all properties of one name into fields; notes say what was changed or left out. */
type Reader = (properties: readonly Property[], notes: Set<string>) => Partial<Content>;

/** How each property is read into fields, by its name; what has no line here is kept as it is for the round trip. */
export const READERS: Readonly<Record<string, Reader>> = {
  summary: ([p]) => ({
    title: text(p)
      .replace(/\s*\n\s*/g, ' ')
      .trim(),
  }),
  location: ([p]) => ({ place: text(p).trim() }),
  description: (all) => ({ description: all.map(text).join('\n\n') }),
  url: ([p]) => ({ publicLink: p!.text.trim() }),
  conference: ([p]) => ({ joinLink: p!.text.trim() }),
  categories: (all) => ({
    labels: [...new Set(all.flatMap((p) => p.values.map((v) => String(v).trim())).filter(Boolean))],
  }),
  contact: (all) => ({ contact: all.map(text).join(', ').trim() }),
  attendee: (all) => ({ people: all.map(personOf) }),
  status: ([p], notes) => {
    const status = STATUS[p!.text.trim().toUpperCase()];
    if (!status) notes.add(`Status “${p!.text}” is not one of an entry; it was read as confirmed.`);
    return { status: status ?? 'confirmed' };
  },
  transp: ([p]) => ({ shows: p!.text.trim().toUpperCase() === 'TRANSPARENT' ? 'free' : 'busy' }),
  class: ([p], notes) => {
    const found = HOLD_OF_CLASS[p!.text.trim().toUpperCase()];
    if (!found) return {};
    notes.add(found.note);
    return { hold: found.hold };
  },
  'x-zonal-kind': ([p]) => (p!.text.trim().toUpperCase() === 'MILESTONE' ? { kind: 'milestone' } : {}),
  'x-zonal-status': ([p]) => ({
    status: STATUSES.find((s) => s.toUpperCase() === p!.text.trim()) ?? 'confirmed',
  }),
  'x-zonal-shows': ([p]) => ({ shows: p!.text.trim() === 'BUSY' ? 'busy' : 'free' }),
  'x-zonal-property': (all) => ({
    properties: all.map((p) => ({ name: parameter(p, 'x-name') ?? '', value: text(p) })),
  }),
  attach: (all, notes) => {
    const links = all.filter((p) => p.type !== 'binary' && parameter(p, 'value')?.toUpperCase() !== 'BINARY');
    if (links.length < all.length) notes.add('A file inside the entry was left out; only links are kept.');
    return {
      attachments: links.map((p) => ({
        name: parameter(p, 'filename') ?? parameter(p, 'x-filename') ?? p.text.split('/').at(-1)!,
        href: p.text.trim(),
      })),
    };
  },
};

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
