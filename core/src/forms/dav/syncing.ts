import { quickPrint } from '../../glass';
import { fingerprintOf } from '../../reach';
import { knowsSince } from '../difference';
import type { Member, Members } from './members';
import { nameOf, noticeName } from './members';

/** What a program held before, and, behind a plus sign, how much it has of what changed until a later revision. */
const TOKEN =
  /^data:,(\d{1,9})\.([0-9a-f]{1,40})-([\w-]{1,40})-([0-9a-z]{1,40})-((?:moved|ends|unlisted)?)([0-9a-z]{0,40})(?:\+(\d{1,9})\.([0-9a-f]{1,40})\.(\d{1,9})\.([0-9a-f]{8}))?$/;

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
  /** The token without how much the program has of this; for what comes next of it. */
  readonly base: string;
  /** How many members come before these in the report, which the program has; 0 for none. */
  readonly skipped: number;
}

/** Returns the token of a program that has the first `count` of what a report tells, and comes back for the rest (RFC 6578 section 3.6). */
export function tokenOfPart(members: Members, { base }: Since, count: number): string {
  const { revision } = members;
  return `${base}+${revision.number}.${fingerprintOf(revision)}.${count}.${settingPrint(members)}`;
}

/** Stands for what all members say besides their items, and for the notices among them: the order of a report depends on them. */
function settingPrint({ print, noticePrint }: Members): string {
  return quickPrint(JSON.stringify([print, noticePrint])).slice(0, 8);
}

/** Returns what changed since a token, all where it is empty, or null where that is not known. */
export function since(members: Members, token: string): Since | null {
  const { revision, own, view } = members;
  if (!token) return everything(members, 0);
  const [, number, fingerprint, of, print, kind = '', notice, partOf, partPrint, count, setting] =
    TOKEN.exec(token) ?? [];
  if (of !== own.of) return null;
  if (partOf !== undefined) {
    const reached = Number(partOf);
    if (!knowsSince(revision, reached, partPrint)) return null;
    const hadNothing = number === '0';
    const removedSince = hadNothing ? parseInt(fingerprint!, 16) : 0;
    const whole = hadNothing
      ? everything(members, removedSince)
      : since(members, token.slice(0, token.indexOf('+')));
    if (!whole) return null;
    if (reached === revision.number && setting === settingPrint(members)) return rest(whole, Number(count));
    // It changed meanwhile: everything is told from the start, and what left of the part that was told.
    return hadNothing && !removedSince ? everything(members, reached) : whole;
  }
  const had = Number(number);
  if (!knowsSince(revision, had, fingerprint)) return null;
  // What changed with a revision bears a sequence of one less.
  const left = revision.gone.filter(({ sequence }) => sequence >= had).map(({ uid }) => nameOf(uid));
  // Where what all entries say besides has changed, so has each of them.
  const all = print !== members.print;
  const items = view.items.filter(({ uid }) => all || revision.stamps[uid]!.sequence >= had);
  const changed = items.map((item) => members.ofItem(item));
  if (`${kind}${notice}` === members.noticePrint) return { changed, left, had, base: token, skipped: 0 };
  const told = members.notices();
  const ended = kind ? [noticeName(view, kind)].filter((name) => !members.named(name)) : [];
  return { changed: [...told, ...changed], left: [...left, ...ended], had, base: token, skipped: 0 };
}

/**
 * Returns all members for a program that had nothing, with those that left since a revision of which it has a part; 0 for none.
 * The token keeps that revision in the place of a fingerprint.
 */
function everything(members: Members, removedSince: number): Since {
  const { revision, own, print, noticePrint } = members;
  const base = `data:,0.${removedSince.toString(16)}-${own.of}-${print}-${noticePrint}`;
  const removed = removedSince ? revision.gone.filter(({ sequence }) => sequence >= removedSince) : [];
  return { changed: members.all(), left: removed.map(({ uid }) => nameOf(uid)), had: null, base, skipped: 0 };
}

/** Returns what is left of a report after its first `count` members. */
function rest({ changed, left, ...whole }: Since, count: number): Since {
  return {
    ...whole,
    changed: changed.slice(count),
    left: left.slice(Math.max(0, count - changed.length)),
    skipped: count,
  };
}
