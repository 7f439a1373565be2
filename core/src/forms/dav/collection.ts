import type { OutwardView } from '../../glass';
import type { Revision } from '../../reach';
import { freeBusyParts } from '../freeBusy';
import type { Html } from '../page/html';
import { wholeOf } from '../parts';
import { XML_HEAD, xmlSafe } from '../xml';
import { calendarData, dataIn } from './calendarData';
import { filterOf } from './filter';
import { Members, type DavSetting, type Member } from './members';
import { DECLARED, cal, dav, element, type Name } from './names';
import { ACCOUNT, HOME, LINKED_TARGETS, pathOf, usualNames, valueOf, type Target } from './properties';
import { childOf, readXml, type Element } from './readXml';
import { Refused, tooMany } from './refused';
import { since, tokenOf, tokenOfPart } from './syncing';
import { stretchOf, zoneOfQuery } from './when';

/** Methods that a read-only collection answers (RFC 9110, RFC 4918, RFC 3253). */
export const DAV_METHODS = ['OPTIONS', 'GET', 'HEAD', 'PROPFIND', 'REPORT'] as const;

/** What a program asks of a collection. */
export interface DavAsked {
  readonly method: 'GET' | 'PROPFIND' | 'REPORT';
  /** The part of the address after that of the collection: empty, or the name of a member, of the account, or of its home. */
  readonly name: string;
  /** The path at which it was asked, if that is not its own: the answer names it. */
  readonly at?: string;
  /** Whether members are asked for too (RFC 4918 section 10.2). */
  readonly deep: boolean;
  readonly body: string;
  /** Whether what there is not shall not be told of (RFC 8144 section 2). */
  readonly minimal: boolean;
}

/** What is answered: with a tag where it is one resource. */
export interface DavAnswer {
  readonly status: number;
  readonly contentType: string;
  readonly text: string;
  readonly tag?: string;
  /**
   * What the asker has now: it knows only whether something changed, or it has what is there, after the revision that it
   * said it had; null where it learns neither.
   */
  readonly learns: { readonly contents: boolean; readonly had: number | null } | null;
}

const XML = 'application/xml; charset=utf-8';
const CALENDAR = 'text/calendar; charset=utf-8';
/** The name of an element without a prefix (XML names, section 3, as far as programs use it). */
const XML_NAME = /^[A-Za-z_][\w.-]{0,100}$/;
/** Members that one request may name. */
const MAX_HREFS = 2_000;
/** Different properties that one request may ask for. */
const MAX_PROPERTY_NAMES = 100;
/** Properties of all targets together that one answer may have. */
const MAX_PROPERTIES_IN_ANSWER = 250_000;
/** Letters that one answer may have: a window of 10,000 entries with all their data is a third of it. */
const MAX_ANSWER_LETTERS = 32_000_000;

/**
 * Returns the answer of a window as a read-only CalDAV collection (RFC 4791, RFC 6578) of the outward view: each entry with
 * all its dates is a resource of its own. What is refused names the condition that is not met.
 */
export function davAnswer(
  view: OutwardView,
  revision: Revision,
  own: DavSetting,
  asked: DavAsked,
): DavAnswer {
  try {
    return answered(new Members(view, revision, own), asked);
  } catch (error) {
    if (error instanceof Refused) return refusalOf(error);
    throw error;
  }
}

/** Returns how a request is refused that changes something: there is no privilege for it (RFC 3744 section 7.1.1). */
export function davForbidden(path: string): DavAnswer {
  const resource = element(dav('resource'), [
    element(dav('href'), path),
    element(dav('privilege'), element(dav('write'))),
  ]);
  return errorOf(403, element(dav('need-privileges'), resource));
}

function refusalOf({ condition, status }: Refused): DavAnswer {
  if (condition) return errorOf(status, element(condition));
  const text = status === 404 ? 'There is no such entry here.\n' : 'This could not be read as XML.\n';
  return { status, contentType: 'text/plain; charset=utf-8', text, learns: null };
}

function errorOf(status: number, condition: Html): DavAnswer {
  return { status, contentType: XML, text: documentOf(dav('error'), condition), learns: null };
}

function documentOf(name: Name, inside: Html | readonly Html[]): string {
  return `${XML_HEAD}${xmlSafe(element(name, inside, DECLARED).text)}\n`;
}

function answered(members: Members, asked: DavAsked): DavAnswer {
  const { method, name } = asked;
  if (method === 'GET') return memberAnswer(members, name);
  if (method === 'PROPFIND') return found(members, asked);
  const root = readXml(asked.body);
  if (!root) throw new Refused(null, 400);
  const target = targetOf(members, name);
  const common = COMMON[root.name];
  if (common) return common(members, root, target);
  const report = REPORTED[root.name];
  // Neither the account nor its home has entries.
  if (!report || name === ACCOUNT || name === HOME) throw new Refused(dav('supported-report'));
  return report(members, root, asked);
}

function memberAnswer(members: Members, name: string): DavAnswer {
  const member = members.named(name);
  if (!member) throw new Refused(null, 404);
  return {
    status: 200,
    contentType: CALENDAR,
    text: member.text(),
    tag: member.tag,
    learns: { contents: true, had: null },
  };
}

function targetOf(members: Members, name: string): Target {
  const path = pathOf(members.own.addresses.dav);
  if (!name) return { kind: 'collection', href: path };
  if (name === ACCOUNT) return { kind: 'account', href: path + ACCOUNT };
  if (name === HOME) return { kind: 'home', href: path + HOME };
  const member = members.named(name);
  if (!member) throw new Refused(null, 404);
  return ofMember(members, member);
}

function ofMember({ own }: Members, member: Member): Extract<Target, { kind: 'member' }> {
  return { kind: 'member', href: pathOf(own.addresses.dav) + encodeURIComponent(member.name), member };
}

/** Which properties are asked for: some by name, or the usual ones, or only what they are called. */
interface Wanted {
  readonly names: readonly Name[] | null;
  readonly more: readonly Name[];
  readonly namesOnly: boolean;
  readonly data: ((member: Member) => string) | null;
}

function wantedIn(root: Element | null, members: Members, zone = members.view.hostZone): Wanted {
  const prop = childOf(root ?? undefined, dav('prop'));
  const data = dataIn(prop);
  return {
    names: prop ? namesIn(prop).filter((name) => name !== DATA) : null,
    more: namesIn(childOf(root ?? undefined, dav('include'))),
    namesOnly: Boolean(childOf(root ?? undefined, dav('propname'))),
    data: data ? calendarData(data, members, zone) : null,
  };
}

/** Returns the names of the elements in another one, each once. */
function namesIn(element: Element | undefined): Name[] {
  const names = [...new Set(element?.children.map((child) => child.name))];
  if (names.length > MAX_PROPERTY_NAMES) throw tooMany();
  return names;
}

const DATA = cal('calendar-data');
const PROPERTY = dav('property');

function found(members: Members, { name, at, deep, body, minimal }: DavAsked): DavAnswer {
  const root = body.trim() ? readXml(body) : null;
  if (body.trim() && root?.name !== dav('propfind')) throw new Refused(null, 400);
  const wanted = { ...wantedIn(root, members), data: null };
  const target = targetOf(members, name);
  const targets: Target[] = [at === undefined ? target : { ...target, href: at }];
  if (deep && target.kind === 'collection')
    for (const member of members.all()) targets.push(ofMember(members, member));
  // The home lists the collection.
  if (deep && (target.kind === 'home' || target.kind === 'account')) targets.push(targetOf(members, ''));
  const looks = target.kind === 'collection' ? { contents: false, had: null } : null;
  return multiStatus(responsesOf(targets, wanted, members, minimal), looks);
}

/** Returns what targets say of what is wanted. Throws Refused if that is more than one answer may have. */
function responsesOf(
  targets: readonly (Target | { readonly kind: 'missing'; readonly href: string })[],
  wanted: Wanted,
  members: Members,
  minimal: boolean,
): Html[] {
  let [properties, letters] = [0, 0];
  return targets.map((target) => {
    if (target.kind === 'missing') return missingResponse(target.href);
    const names = [...new Set([...(wanted.names ?? usualNames(target)), ...wanted.more])];
    properties += names.length;
    if (properties > MAX_PROPERTIES_IN_ANSWER) throw tooMany();
    const response = responseOf(target, names, wanted, members, minimal);
    letters += response.text.length;
    if (letters > MAX_ANSWER_LETTERS) throw tooMany();
    return response;
  });
}

function multiStatus(inside: readonly Html[], learns: DavAnswer['learns']): DavAnswer {
  return { status: 207, contentType: XML, text: documentOf(dav('multistatus'), inside), learns };
}

const statusLine = (line: string) => element(dav('status'), `HTTP/1.1 ${line}`);

const propStat = (props: readonly Html[], line: string) =>
  element(dav('propstat'), [element(dav('prop'), props), statusLine(line)]);

/** Returns the properties that a target has and those that it does not have (RFC 4918 section 14.24). */
function propertiesResponse({ href }: Target, there: readonly Html[], missing: readonly Html[]): Html {
  return element(dav('response'), [
    element(dav('href'), href),
    ...(there.length || !missing.length ? [propStat(there, '200 OK')] : []),
    ...(missing.length ? [propStat(missing, '404 Not Found')] : []),
  ]);
}

/** What a target says of what is wanted. */
function responseOf(
  target: Target,
  names: readonly Name[],
  wanted: Wanted,
  members: Members,
  minimal: boolean,
): Html {
  const there: Html[] = [];
  const missing: Html[] = [];
  for (const name of names) {
    const value = valueOf(name, target, members);
    if (value === null) missing.push(element(name));
    else there.push(element(name, wanted.namesOnly ? '' : value));
  }
  if (wanted.data && target.kind === 'member') there.push(element(DATA, wanted.data(target.member)));
  return propertiesResponse(target, there, minimal ? [] : missing);
}

function missingResponse(href: string): Html {
  return element(dav('response'), [element(dav('href'), href), statusLine('404 Not Found')]);
}

type Report = (members: Members, root: Element, asked: DavAsked) => DavAnswer;

const REPORTED: Readonly<Record<Name, Report>> = {
  [cal('calendar-query')]: (members, root, { name, minimal }) => {
    const zone = zoneOfQuery(root, members.view);
    const isFound = filterOf(childOf(root, cal('filter')), members, zone);
    const wanted = wantedIn(root, members, zone);
    const all = name ? [members.named(name)!] : members.all();
    const targets = all.filter(isFound).map((member) => ofMember(members, member));
    return multiStatus(responsesOf(targets, wanted, members, minimal), {
      contents: wanted.data !== null,
      had: null,
    });
  },

  [cal('calendar-multiget')]: (members, root, { minimal }) => {
    const hrefs = [...new Set(root.children.filter((c) => c.name === dav('href')).map((c) => c.text))];
    if (hrefs.length > MAX_HREFS) throw tooMany();
    const wanted = wantedIn(root, members);
    const targets = hrefs.map((href) => {
      const member = members.named(nameIn(href, members));
      return member ? ofMember(members, member) : ({ kind: 'missing', href } as const);
    });
    return multiStatus(responsesOf(targets, wanted, members, minimal), { contents: true, had: null });
  },

  [cal('free-busy-query')]: ({ view, revision }, root) => {
    const range = childOf(root, cal('time-range'));
    if (!range) throw new Refused(null, 400);
    const asked = stretchOf(range, true);
    // Of what lies outside of the view nothing is said.
    const [from, to] = [Math.max(asked.from, view.range.from), Math.min(asked.to, view.range.to)];
    const within = from < to ? { from, to } : { from: asked.from, to: asked.from };
    const text = wholeOf(freeBusyParts({ ...view, range: within }, revision, ''));
    return { status: 200, contentType: CALENDAR, text, learns: { contents: true, had: null } };
  },

  [dav('sync-collection')]: (members, root, { minimal }) => {
    const report = since(members, childOf(root, dav('sync-token'))?.text ?? '');
    if (!report) throw new Refused(dav('valid-sync-token'));
    const asked = Number(childOf(childOf(root, dav('limit')), dav('nresults'))?.text ?? Infinity);
    const limit = asked >= 1 ? Math.floor(asked) : Infinity;
    const changed = report.changed.slice(0, limit);
    const left = report.left.slice(0, Math.max(0, limit - changed.length));
    const isPart = changed.length + left.length < report.changed.length + report.left.length;
    const wanted = wantedIn(root, members);
    const path = pathOf(members.own.addresses.dav);
    const responses = [
      ...responsesOf(
        changed.map((member) => ofMember(members, member)),
        wanted,
        members,
        minimal,
      ),
      ...left.map((name) => missingResponse(path + encodeURIComponent(name))),
      ...(isPart ? [truncatedResponse(path)] : []),
      element(
        dav('sync-token'),
        isPart
          ? tokenOfPart(members, report, report.skipped + changed.length + left.length)
          : tokenOf(members),
      ),
    ];
    // Who has a part of it has not reached this revision yet.
    return multiStatus(responses, isPart ? null : { contents: true, had: report.had });
  },
};

type CommonReport = (members: Members, root: Element, target: Target) => DavAnswer;

/** Reports of principals (RFC 3744 section 9): there is one, whoever has the key. Its names are no other's to be searched by. */
const COMMON: Readonly<Record<Name, CommonReport>> = {
  [dav('expand-property')]: (members, root, target) => {
    // On all levels together: each may be long.
    if (sizeOf(root) > MAX_PROPERTY_NAMES) throw tooMany();
    return multiStatus([expanded(members, root, target)], null);
  },

  [dav('principal-match')]: (members, root) => {
    const account = targetOf(members, ACCOUNT);
    return multiStatus(
      responsesOf([account], { ...wantedIn(root, members), data: null }, members, false),
      null,
    );
  },

  [dav('principal-property-search')]: () => multiStatus([], null),

  [dav('principal-search-property-set')]: () => ({
    status: 200,
    contentType: XML,
    text: documentOf(dav('principal-search-property-set'), []),
    learns: null,
  }),
};

/** Returns a target with properties, and in place of the addresses of others what these say (RFC 3253 section 3.8). */
function expanded(members: Members, { children }: Element, target: Target): Html {
  const there: Html[] = [];
  const missing: Html[] = [];
  for (const property of children) {
    const { name: local = '', namespace = 'DAV:' } = property.attributes;
    if (property.name !== PROPERTY || !XML_NAME.test(local)) throw new Refused(null, 400);
    const name: Name = `${namespace} ${local}`;
    const value = valueOf(name, target, members);
    const linked = property.children.length ? LINKED_TARGETS[name] : undefined;
    if (value === null) missing.push(element(name));
    else if (!linked) there.push(element(name, value));
    else {
      const other = targetOf(members, { account: ACCOUNT, home: HOME, collection: '' }[linked]);
      there.push(element(name, expanded(members, property, other)));
    }
  }
  return propertiesResponse(target, there, missing);
}

/** Returns how many elements are below another one. */
function sizeOf({ children }: Element): number {
  return children.reduce((sum, child) => sum + 1 + sizeOf(child), 0);
}

/** Says that there is more than was asked for (RFC 6578 section 3.6). */
function truncatedResponse(path: string): Html {
  return element(dav('response'), [
    element(dav('href'), path),
    statusLine('507 Insufficient Storage'),
    element(dav('error'), element(dav('number-of-matches-within-limits'))),
  ]);
}

/** Returns the name of a member at an address, or a text that is none. */
function nameIn(href: string, { own }: Members): string {
  try {
    const path = pathOf(own.addresses.dav);
    const asked = href.startsWith('/') ? href : pathOf(href);
    return asked.startsWith(path) ? decodeURIComponent(asked.slice(path.length)) : '';
  } catch {
    return '';
  }
}
