import { keyState, type KeyState } from '@zonal/core/glass';
import { isPassedOn } from '@zonal/core/reach';
import { troubleWords } from '../rehearsal/troubleWords';
import type { Calendar, OutwardWindow } from '@zonal/core/api';

/** Returns names that a filter has lost as they are read: `label “works”`, or the name of a calendar that is gone. */
export function goneWords(name: string, nameOf: (calendarId: string) => string): string {
  const [kind, ...rest] = name.split(':');
  const value = rest.join(':');
  return kind === 'calendar' ? nameOf(value) : `${kind} “${value}”`;
}

/** Returns what an organiser should know of an open window before opening it, most pressing first. */
export function windowNotes(window: OutwardWindow, calendars: readonly Calendar[], now: number): string[] {
  const { draft, gone, keys, sources, closedAt, trouble } = window;
  const calendarOf = (id: string) => calendars.find((c) => c.id === id);
  const locked = sources.flatMap(({ calendarId }) => {
    const calendar = calendarOf(calendarId);
    return calendar?.lockedAt ? [calendar.name] : [];
  });
  const inState = (state: KeyState) => keys.filter((k) => keyState(k, now) === state).length;
  const [ended, ending] = [inState('ended'), inState('ends-soon')];
  const count = (n: number, one: string, many: string) => (n === 1 ? `One key ${one}` : `${n} keys ${many}`);
  const passedOn = keys.filter((k) => keyState(k, now) !== 'ended' && isPassedOn(k.readers, k.meantFor));
  const open = !closedAt && [
    passedOn.length > 0 &&
      `Probably passed on: the key of ${passedOn.map((k) => k.madeOutTo).join(', the key of ')}`,
    trouble && troubleWords(trouble),
    gone.length > 0 &&
      `Shows less: its filter names ${gone
        .map((g) => goneWords(g, (id) => calendarOf(id)?.name ?? 'a calendar that is gone'))
        .join(', ')}, which is gone`,
    locked.length > 0 && `Locked down: ${locked.join(', ')}`,
    ended > 0 && count(ended, 'has ended', 'have ended'),
    ending > 0 && count(ending, 'ends within 30 days', 'end within 30 days'),
  ];
  const kept =
    draft &&
    (draft.stopped
      ? `The draft was not shown when its time came: ${draft.stopped}`
      : draft.publishAt
        ? `A draft is shown by itself at ${new Date(draft.publishAt).toLocaleString('en-GB')}`
        : `A draft by ${draft.by} is not outside yet`);
  return [...(open || []), kept].filter((note) => typeof note === 'string');
}
