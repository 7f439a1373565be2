import { endOf, publicAddressEnd } from '@zonal/core/glass';
import type { KeyRow, TurnedTokenRow, WindowRow } from '../db/models';
import { unsealed } from '../db/sealed';
import type { KeyPlace } from './outside';

/** What of a window decides where its public address leads. */
export type PublicColumns = Pick<WindowRow, 'slug' | 'listed' | 'unlistedAt' | 'publicUntil'>;

/**
 * Returns the endpoint of a window's public address, or null if the window was never listed. Its readers are counted to the
 * window, as it has no key.
 */
export function publicPlace(
  { slug, listed, unlistedAt, publicUntil }: PublicColumns,
  windowId: string,
  viewId: string,
): KeyPlace | null {
  if (slug === null) return null;
  const end = publicAddressEnd({ listed, publicUntil });
  const isEnding = unlistedAt !== null && end > unlistedAt.getTime();
  return {
    ...{ token: slug, keyId: windowId, viewId, look: {}, hosts: [] },
    expiresAt: Number.isFinite(end) ? end : end > 0 ? null : 0,
    ends: 'unlisted',
    moved: null,
    farewell: isEnding ? { ends: 'address', at: unlistedAt.getTime(), until: end } : null,
  };
}

/** Returns the places of all addresses of a key: its own, and those that it had. */
export function placesOfKey(
  key: Pick<KeyRow, 'id' | 'token' | 'expiresAt' | 'withdrawnAt' | 'look' | 'hosts'>,
  viewId: string,
  turned: readonly Pick<TurnedTokenRow, 'token' | 'turnedAt' | 'endsAt'>[],
): KeyPlace[] {
  const at = (date: Date | null) => (date ? new Date(date).getTime() : null);
  const [expires, withdrawn] = [at(key.expiresAt), at(key.withdrawnAt)];
  const { look, hosts } = key;
  const own = { keyId: key.id, viewId, look, hosts, farewell: null };
  const token = unsealed(key.token);
  const end = endOf({ expiresAt: expires, withdrawnAt: withdrawn });
  const ends = withdrawn !== null && end === withdrawn ? 'withdrawn' : 'expired';
  return [
    { ...own, token, expiresAt: Number.isFinite(end) ? end : null, ends, moved: null },
    ...turned.map(({ token: before, turnedAt, endsAt }): KeyPlace => {
      const until = at(endsAt)!;
      const moved = { token, at: at(turnedAt)!, until };
      return end < until
        ? { ...own, token: unsealed(before), expiresAt: end, ends, moved }
        : { ...own, token: unsealed(before), expiresAt: until, ends: 'turned', moved };
    }),
  ];
}
