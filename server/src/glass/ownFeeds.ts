import type { OwnFeed } from '@zonal/core/api';
import { keyState } from '@zonal/core/glass';
import { KeyRow, WindowRow } from '../db/models';
import { unsealed } from '../db/sealed';
import { addressesOf } from './addresses';

/** Returns the windows that somebody follows with a key of their own, as long as they are open. */
export async function ownFeeds(userId: string, publicUrl: string): Promise<OwnFeed[]> {
  const keys = await KeyRow.findAll({ where: { userId }, order: [['createdAt', 'ASC']] });
  const windows = await WindowRow.findAll({ where: { id: keys.map((k) => k.windowId), closedAt: null } });
  return keys.flatMap((key) => {
    const window = windows.find((w) => w.id === key.windowId);
    if (!window || keyState(key, Date.now()) === 'ended') return [];
    const { see, feed } = addressesOf(publicUrl, unsealed(key.token));
    return [{ keyId: key.id, window: window.name, cap: key.cap, see, feed }];
  });
}
