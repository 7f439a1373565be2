import { keyState, type KeyState } from '@zonal/core/glass';
import { isPassedOn } from '@zonal/core/reach';
import { troubleWords } from '../rehearsal/troubleWords';
import type { Calendar, OutwardWindow } from '@zonal/core/api';
import { LOCALE } from '../texts/language';
import { t } from '../texts/glass';

/** Returns names that a filter has lost as they are read: `label “works”`, or the name of a calendar that is gone. */
export function goneWords(name: string, nameOf: (calendarId: string) => string): string {
  const [kind = '', ...rest] = name.split(':');
  const value = rest.join(':');
  return kind === 'calendar'
    ? nameOf(value)
    : t('goneName', {
        kind: kind === 'label' ? t('labelWord') : kind === 'property' ? t('propertyWord') : kind,
        name: value,
      });
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
  const passedOn = keys.filter((k) => keyState(k, now) !== 'ended' && isPassedOn(k.readers, k.meantFor));
  const open = !closedAt && [
    passedOn.length > 0 && t('sharedKeys', { names: passedOn.map((k) => k.madeOutTo).join(', ') }),
    trouble && troubleWords(trouble),
    gone.length > 0 &&
      t('filterLost', {
        names: gone.map((g) => goneWords(g, (id) => calendarOf(id)?.name ?? t('deletedCalendar'))).join(', '),
      }),
    locked.length > 0 && t('lockedNames', { names: locked.join(', ') }),
    ended > 0 && t('keysEnded', { count: ended }),
    ending > 0 && t('keysEnding', { count: ending }),
  ];
  const kept =
    draft &&
    (draft.stopped
      ? t('draftNotShown', { reason: draft.stopped })
      : draft.publishAt
        ? t('draftShownAt', { time: new Date(draft.publishAt).toLocaleString(LOCALE) })
        : t('draftBy', { by: draft.by }));
  return [...(open || []), kept].filter((note) => typeof note === 'string');
}
