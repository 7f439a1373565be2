import { html, type Html } from '../page/html';
import { httpDate } from '../httpDate';
import { timeZoneLines } from '../icsTimeZone';
import { joinLines } from '../icsText';
import { PRODUCT } from '../icsCalendar';
import type { Member, Members } from './members';
import { COLLATION_NAMES } from './filter';
import { COLOUR_CODES } from '../../glass';
import { cal, colour, dav, element, tag, type Name } from './names';
import { tokenOf } from './syncing';

/** What of a window can be asked for properties: its collection, one of its members, who follows it, or where that one's collections are. */
export type Target =
  | { readonly kind: 'collection'; readonly href: string }
  | { readonly kind: 'account'; readonly href: string }
  | { readonly kind: 'home'; readonly href: string }
  | { readonly kind: 'member'; readonly href: string; readonly member: Member };

type Value = Html | readonly Html[] | string;
/** What a property says of each kind of target; left out where a kind has none. */
type Row = {
  readonly [K in Target['kind']]?: (members: Members, target: Extract<Target, { kind: K }>) => Value;
};

/** What can be reported of every resource (RFC 3253 section 3.8, RFC 3744 section 9). */
export const COMMON_REPORTS = [
  dav('expand-property'),
  dav('principal-match'),
  dav('principal-property-search'),
  dav('principal-search-property-set'),
] as const;

/** What can be reported of a collection besides (RFC 3253 section 3.1.5). */
export const REPORTS = [
  cal('calendar-query'),
  cal('calendar-multiget'),
  cal('free-busy-query'),
  dav('sync-collection'),
] as const;

/** Reading is all that is ever granted (RFC 3744, RFC 4791 section 6.1). */
const privileges = () =>
  [dav('read'), cal('read-free-busy'), dav('read-current-user-privilege-set')].map((name) =>
    element(dav('privilege'), element(name)),
  );
const account = ({ own }: Members) => element(dav('href'), pathOf(own.addresses.dav) + ACCOUNT);
const home = ({ own }: Members) => element(dav('href'), pathOf(own.addresses.dav) + HOME);
const collection = ({ own }: Members) => element(dav('href'), pathOf(own.addresses.dav));
const reports = (names: readonly Name[]) => () =>
  names.map((name) => element(dav('supported-report'), element(dav('report'), element(name))));
const moment = ({ revision }: Members) => httpDate(revision.at);
const CALENDAR = 'text/calendar; charset=utf-8';

/** Whether kinds of entries can be in the collection. */
const kinds = ({ setting }: Members) => ['VEVENT', ...(setting.dueAs === 'task' ? ['VTODO'] : [])];

/** Properties (RFC 4918 section 15, RFC 4791 section 5.2, RFC 6578 section 4, RFC 5397), by what has them. */
export const PROPERTIES: Readonly<Record<Name, Row>> = {
  [dav('resourcetype')]: {
    collection: () => [element(dav('collection')), element(cal('calendar'))],
    // It was the home once, and lists the collection to programs that still take it for one.
    account: () => [element(dav('collection')), element(dav('principal'))],
    home: () => element(dav('collection')),
    member: () => '',
  },
  [dav('displayname')]: {
    collection: ({ view }) => view.wording.name,
    account: ({ view }) => view.wording.name,
    home: ({ view }) => view.wording.name,
  },
  [dav('getetag')]: { member: (_members, { member }) => member.tag },
  [dav('getcontenttype')]: { collection: () => CALENDAR, member: () => CALENDAR },
  [dav('getlastmodified')]: {
    collection: moment,
    member: (members, { member }) =>
      httpDate(member.item ? members.revision.stamps[member.item.uid]!.at : members.own.notice!.at),
  },
  [tag('getctag')]: { collection: tokenOf },
  [dav('sync-token')]: { collection: tokenOf },
  [dav('supported-report-set')]: {
    collection: reports([...REPORTS, ...COMMON_REPORTS]),
    account: reports(COMMON_REPORTS),
    home: reports(COMMON_REPORTS),
    member: reports(COMMON_REPORTS),
  },
  [dav('current-user-principal')]: { collection: account, account, home: account, member: account },
  [dav('owner')]: { collection: account, account, home: account, member: account },
  [dav('principal-URL')]: { account },
  [dav('principal-collection-set')]: {
    collection,
    account: collection,
    home: collection,
    member: collection,
  },
  [dav('current-user-privilege-set')]: {
    collection: privileges,
    account: privileges,
    home: privileges,
    member: privileges,
  },
  [cal('calendar-home-set')]: { collection: home, account: home, home },
  [colour('calendar-color')]: { collection: ({ view }) => COLOUR_CODES[view.wording.colour] },
  [cal('calendar-description')]: { collection: ({ view }) => view.wording.description },
  [cal('calendar-timezone')]: {
    collection: ({ view: { hostZone, range } }) =>
      joinLines([
        'BEGIN:VCALENDAR',
        'VERSION:2.0',
        `PRODID:${PRODUCT}`,
        ...timeZoneLines(hostZone, range.from, range.to),
        'END:VCALENDAR',
      ]),
  },
  [cal('supported-calendar-component-set')]: {
    collection: (members) => kinds(members).map((name) => element(cal('comp'), '', html` name="${name}"`)),
  },
  [cal('supported-calendar-data')]: {
    collection: () => element(cal('calendar-data'), '', html` content-type="text/calendar" version="2.0"`),
  },
  [cal('supported-collation-set')]: {
    collection: () => COLLATION_NAMES.map((name) => element(cal('supported-collation'), name)),
  },
};

/** They are told only where they are asked for by name (RFC 4918 section 9.1, RFC 4791 section 5.2). */
const BY_NAME_ONLY = new Set<Name>([
  dav('supported-report-set'),
  dav('current-user-privilege-set'),
  dav('current-user-principal'),
  dav('principal-URL'),
  dav('principal-collection-set'),
  dav('sync-token'),
  ...Object.keys(PROPERTIES).filter((name) => name.startsWith(cal(''))),
] as Name[]);

/** Returns the names that a target has, and that are told unasked. */
export function usualNames(target: Target): Name[] {
  const names = Object.keys(PROPERTIES) as Name[];
  return names.filter((name) => PROPERTIES[name]![target.kind] && !BY_NAME_ONLY.has(name));
}

/** Returns what a property says of a target, or null where it has none such. */
export function valueOf(name: Name, target: Target, members: Members): Value | null {
  const row = Object.hasOwn(PROPERTIES, name) ? PROPERTIES[name]! : {};
  const tell = row[target.kind] as ((members: Members, target: Target) => Value) | undefined;
  return tell ? tell(members, target) : null;
}

/** Properties whose value is the address of another resource: reports expand them. */
export const LINKED_TARGETS: Readonly<Partial<Record<Name, 'account' | 'home' | 'collection'>>> = {
  [dav('current-user-principal')]: 'account',
  [dav('owner')]: 'account',
  [dav('principal-URL')]: 'account',
  [cal('calendar-home-set')]: 'home',
  [dav('principal-collection-set')]: 'collection',
};

/** Returns the path of an absolute address. */
export function pathOf(address: string): string {
  return new URL(address).pathname;
}

/** The principal (RFC 3744 section 2), and the home that holds its collections (RFC 4791 section 6.2.1), below the collection. */
export const [ACCOUNT, HOME] = ['account/', 'home/'];
