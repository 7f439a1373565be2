import type { InsideLanguage } from '../texts/languages';
import { STATUS_DE } from '../words/german';
import type { Hold, Kind, Shows, Status } from './entry';

/** Each kind by itself, several of them, and what it is. */
export const KIND_WORDS: Readonly<Record<Kind, { word: string; many: string; plain: string }>> = {
  event: { word: 'event', many: 'events', plain: '' },
  milestone: { word: 'milestone', many: 'milestones', plain: 'one day or moment, can slip' },
  due: { word: 'due item', many: 'due items', plain: 'to be done by then' },
};

export const STATUS_WORDS: Readonly<Record<Status, string>> = {
  confirmed: 'confirmed',
  tentative: 'tentative',
  cancelled: 'cancelled',
  done: 'done',
};

/** Returns a status in words: a milestone that is done is reached. */
export function statusWord(status: Status, kind: Kind, language: InsideLanguage = 'en'): string {
  if (status === 'done' && kind === 'milestone') return language === 'de' ? 'erreicht' : 'reached';
  return (language === 'de' ? STATUS_DE : STATUS_WORDS)[status];
}

export const SHOWS_WORDS: Readonly<Record<Shows, string>> = { busy: 'busy', free: 'free' };

/** Each hold as something to do, as something that is so, and what it comes to. */
export const HOLD_WORDS: Readonly<Record<Hold, { word: string; marked: string; plain: string }>> = {
  none: {
    word: 'no hold',
    marked: '',
    plain: 'Windows decide how much of this entry is visible outside.',
  },
  frost: {
    word: 'frost it',
    marked: 'frosted: busy time at most',
    plain: 'Outside, this entry never shows more than busy time, whatever a window says.',
  },
  'keep-in': {
    word: 'keep in',
    marked: 'kept in',
    plain: 'This entry never goes out, whatever a window says.',
  },
};
