import { fingerprintOf } from '../../reach';
import { knowsSince } from '../difference';
import type { Member, Members } from './members';
import { nameOf, noticeName } from './members';

const TOKEN =
  /^data:,(\d{1,9})\.([0-9a-f]{1,40})-([\w-]{1,40})-([0-9a-z]{1,40})-((?:moved|ends|unlisted)?)([0-9a-z]{0,40})$/;

/** Returns the token of what a collection says now (RFC 6578 section 3.8): opaque to programs. */
export function tokenOf({ revision, own, print, noticePrint }: Members): string {
  return `data:,${revision.number}.${fingerprintOf(revision)}-${own.of}-${print}-${noticePrint}`;
}

/** What changed in a collection since a token: members that came or changed, and names of those that left. */
export interface Since {
  readonly changed: readonly Member[];
  readonly left: readonly string[];
  /** The revision that the token names; null where everything is told. */
  readonly had: number | null;
}

/** Returns what changed since a token, all where it is empty, or null where that is not known. */
export function since(members: Members, token: string): Since | null {
  if (!token) return { changed: members.all(), left: [], had: null };
  const [, number, fingerprint, of, print, kind = '', notice] = TOKEN.exec(token) ?? [];
  const { revision, own, view } = members;
  const had = Number(number);
  if (of !== own.of || !knowsSince(revision, had, fingerprint)) return null;
  // What changed with a revision bears a sequence of one less.
  const left = revision.gone.filter(({ sequence }) => sequence >= had).map(({ uid }) => nameOf(uid));
  // Where what all entries say besides has changed, so has each of them.
  const all = print !== members.print;
  const items = view.items.filter(({ uid }) => all || revision.stamps[uid]!.sequence >= had);
  const changed = items.map((item) => members.ofItem(item));
  if (`${kind}${notice}` === members.noticePrint) return { changed, left, had };
  const told = members.notices();
  const ended = kind ? [noticeName(view, kind)].filter((name) => !members.named(name)) : [];
  return { changed: [...told, ...changed], left: [...left, ...ended], had };
}
