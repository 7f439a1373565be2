import type { OutwardWindow, WindowKey } from '@zonal/core/api';
import { describe, expect, it } from 'vitest';
import { choosable, draftOf, itemName, movedItem, withItem } from './sheetDraft';

const NOW = Date.UTC(2026, 5, 10);
const key = (id: string, parts: Partial<WindowKey> = {}) =>
  ({ id, madeOutTo: `To ${id}`, expiresAt: null, withdrawnAt: null, ...parts }) as WindowKey;
const window = (parts: Partial<OutwardWindow>) =>
  ({ id: 'w', listed: false, closedAt: null, keys: [], ...parts }) as OutwardWindow;
const item = (keyId: string) => ({ windowId: 'w', keyId });
const [a, b, c] = [item('a'), item('b'), item('c')];

describe('what is put on a link sheet', () => {
  it('is chosen from addresses that lead somewhere', () => {
    const ended = key('ended', { expiresAt: new Date(NOW).toISOString() });
    const withdrawn = key('withdrawn', { withdrawnAt: new Date(NOW - 1).toISOString() });
    const keys = [key('open'), ended, withdrawn];
    expect(choosable(window({ listed: true, keys }), NOW).map((i) => i.madeOutTo)).toEqual(['', 'To open']);
    expect(choosable(window({ keys }), NOW).map(itemName)).toEqual(['w|open']);
    expect(choosable(window({ listed: true, keys, closedAt: 'x' }), NOW)).toEqual([]);
  });

  it('comes last, once, and can be taken off and moved', () => {
    expect(withItem([a, b], c, true)).toEqual([a, b, c]);
    expect(withItem([a, b], a, true)).toEqual([b, a]);
    expect(withItem([a, b], { ...item('a') }, false)).toEqual([b]);
    expect(movedItem([a, b, c], c, -1)).toEqual([a, c, b]);
    expect(movedItem([a, b, c], a, 1)).toEqual([b, a, c]);
    expect(movedItem([a, b, c], a, -1)).toEqual([a, b, c]);
    expect(movedItem([a, b, c], c, 5)).toEqual([a, b, c]);
    expect(movedItem([a, b], c, 1)).toEqual([a, b]);
  });

  it('starts with what the sheet says, without what was found out about it', () => {
    expect(draftOf(null)).toEqual({ name: '', note: '', items: [] });
    const checked = { ...a, name: 'N', madeOutTo: 'x', see: 's', feed: 'f', notes: [] };
    const sheet = { id: 's', name: 'Agents', note: 'n', items: [checked], version: 3, address: 'x' };
    expect(draftOf({ ...sheet, withdrawnAt: null, by: '', at: '' })).toEqual({
      name: 'Agents',
      note: 'n',
      items: [a],
      version: 3,
    });
  });
});
