import { describe, expect, it } from 'vitest';
import { DAY } from '../zones';
import { checkLink, leadsOn, type LinkState } from './linkCheck';

const NOW = Date.UTC(2026, 5, 10);
const usual: LinkState = {
  key: { expiresAt: null, withdrawnAt: null },
  listed: false,
  publicUntil: null,
  closedAt: null,
  closesAt: null,
  stopped: false,
  shows: 'entries',
};
const check = (parts: Partial<LinkState>) => checkLink({ ...usual, ...parts }, NOW);

describe('an address that is to be handed out', () => {
  it('has nothing to be said of it where it works', () => {
    expect(check({})).toEqual([]);
    expect(check({ key: null, listed: true, shows: null })).toEqual([]);
    expect(leadsOn([])).toBe(true);
  });

  it.each([
    ['withdrawn', { key: { expiresAt: NOW - 1, withdrawnAt: new Date(NOW) } }],
    ['ended', { key: { expiresAt: new Date(NOW).toISOString() } }],
    ['closed', { closedAt: NOW - DAY, stopped: true }],
    ['closed', { closesAt: NOW }],
    ['unlisted', { key: null }],
    ['unlisted', { key: null, publicUntil: NOW }],
    ['stopped', { stopped: true }],
  ] as const)('is %s, and leads nowhere then', (note, parts) => {
    expect(check({ shows: 'nothing', ...parts })).toEqual([note]);
    expect(leadsOn([note])).toBe(false);
  });

  it('says what is to be known of one that works', () => {
    expect(check({ shows: 'busy' })).toEqual(['busy-only']);
    expect(check({ key: null, publicUntil: NOW + 1 })).toEqual(['ends-soon']);
    const soon = NOW + 30 * DAY - 1;
    const notes = check({ shows: 'nothing', key: { expiresAt: soon }, closesAt: soon });
    expect(notes).toEqual(['shows-nothing', 'ends-soon', 'closes-soon']);
    expect(leadsOn(notes)).toBe(true);
    expect(check({ key: { expiresAt: soon + 1 }, closesAt: soon + 1 })).toEqual([]);
  });

  it('tells all that keeps it from leading on', () => {
    expect(check({ key: { expiresAt: null, withdrawnAt: 0 }, closedAt: 0 })).toEqual(['withdrawn', 'closed']);
  });
});
