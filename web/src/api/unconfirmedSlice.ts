import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { t } from '../texts/base';
import { LOCALE } from '../texts/language';

/** Servers that have not confirmed a change, and until when at the latest they show what was before (ISO 8601). */
export interface Unconfirmed {
  readonly servers: number;
  readonly until: string;
}

/** What the newest change has not reached yet; null where all is confirmed. */
export const unconfirmedSlice = createSlice({
  name: 'unconfirmed',
  initialState: null as Unconfirmed | null,
  reducers: { unconfirmedChanged: (_, { payload }: PayloadAction<Unconfirmed | null>) => payload },
});

export const { unconfirmedChanged } = unconfirmedSlice.actions;

/** Reads the header with which a server says so, or null. */
export function unconfirmedIn(header: string | null): Unconfirmed | null {
  const found = /^servers=(\d+); until=(\S+)$/.exec(header ?? '');
  return found ? { servers: Number(found[1]), until: found[2]! } : null;
}

/** Says which servers have not confirmed a change, and when they stop by themselves. */
export function unconfirmedWords({ servers, until }: Unconfirmed): string {
  const time = new Date(until).toLocaleTimeString(LOCALE, { hour: '2-digit', minute: '2-digit' });
  return servers === 1 ? t('oneServerUnconfirmed', { time }) : t('serversUnconfirmed', { servers, time });
}
