import { createHash } from 'node:crypto';

/** What a program that asks only for what has changed names this in its Prefer header (RFC 7240). */
export const ENHANCED_GET = 'subscribe-enhanced-get';

/** What a collection can do (RFC 4918 section 10.1, RFC 3744 section 7.2, RFC 4791 section 5.1). */
export const DAV_CLASSES = '1, access-control, calendar-access';

/** What of a request the answer at a feed's address depends on. */
export const FEED_VARY = 'Accept-Encoding, Prefer, Sync-Token';

const TOKEN = /^"?data:,(\d{1,9})\.([0-9a-f]{1,40})-([\w-]{12})"?$/;

/** A revision as a program names it: the fingerprint tells it from another one that has its number after a restored back-up. */
export interface HeldRevision {
  readonly number: number;
  readonly fingerprint: string;
}

/** What a program holds whose token is none of a view's: it is told to ask for everything. */
export const NOTHING_HELD: HeldRevision = { number: 0, fingerprint: '' };

/** Returns the token by which a program tells which revision of a view it holds; it is opaque to programs. */
export function syncToken(viewId: string, { number, fingerprint }: HeldRevision): string {
  return `"data:,${number}.${fingerprint}-${viewPrint(viewId)}"`;
}

/** Returns the revision that a token names, or null where it is none of this view. */
export function revisionOfToken(token: string, viewId: string): HeldRevision | null {
  const [, number, fingerprint, print] = TOKEN.exec(token.trim()) ?? [];
  return print === viewPrint(viewId) ? { number: Number(number), fingerprint: fingerprint! } : null;
}

/** Returns the revision that an entity tag of a document names, or null. */
export function revisionIn(tag: string): number | null {
  const [, number] = /^(?:W\/)?"r(\d{1,9})-/.exec(tag) ?? [];
  return number === undefined ? null : Number(number);
}

/** Returns what stands for a view in tokens: its id holds what nobody can guess. */
export function viewPrint(viewId: string): string {
  return createHash('sha256').update(viewId).digest('base64url').slice(0, 12);
}
