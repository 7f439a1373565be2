import { endOf } from '@zonal/core/glass';
import type { KeyRow, TurnedTokenRow } from '../db/models';
import { unsealed } from '../db/sealed';
import type { KeyPlace } from './outside';

/** Returns the place of a listed window by its own name: what comes by it is counted to the window, as it has no key. */
export function placeOfListed(slug: string, windowId: string, viewId: string): KeyPlace {
  return {
    token: slug,
    keyId: windowId,
    viewId,
    look: {},
    hosts: [],
    expiresAt: null,
    ends: 'withdrawn',
    moved: null,
    farewell: null,
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
