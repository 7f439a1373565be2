import { type Scope } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import { may } from '@zonal/core/rights';
import { DAY, MINUTE, dayToText, type Day } from '@zonal/core/zones';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import type { Calendar, EntryChange } from '@zonal/core/api';
import {
  both,
  carrying,
  copying,
  named,
  removing,
  shifting,
  type EditLabel,
  type Shift,
  type Target,
} from './changes';
import type { Edits } from './useEdits';
import type { DeskItem } from './deskDays';
import type { EntryForm } from './entryForm';
import { SNAP, shiftOf } from './views/gestures';
import { isTyping, keyOfItem, nudgeOf } from './views/keys';
import type { Gesture, Place } from './views/viewTypes';
import { t } from '../texts/inside';
import { whoMay } from '../texts/rightsWords';
import { problemText } from '../texts/problemText';

/** A change of a series that waits for which dates are meant. */
export interface Waiting {
  readonly what: string;
  readonly target: Target & { readonly slot: NonNullable<Target['slot']> };
  readonly make: (scope: Scope) => EntryChange[];
  readonly label: EditLabel;
}

interface DeskEditsOptions {
  readonly calendars: readonly Calendar[];
  readonly items: readonly DeskItem[];
  readonly edits: Edits;
  /** Whether a change is on its way, so that the entries here are about to be replaced by newer ones. */
  readonly busy: boolean;
  readonly onWrite: (calendarId: string, day: Day, form: Partial<EntryForm>) => void;
  readonly onOpen: (item: DeskItem) => void;
  readonly onChoose: (key: string) => void;
}

/** Turns what is done in a view by pointer or keyboard into edits, and asks which dates of a series are meant. */
export function useDeskEdits(options: DeskEditsOptions) {
  const { calendars, items, edits, busy, onWrite, onOpen, onChoose } = options;
  const [waiting, setWaiting] = useState<Waiting | null>(null);
  const [refused, setRefused] = useState('');
  const copied = useRef<DeskItem | null>(null);
  const held = useRef<{ key: string; shift: Shift } | null>(null);
  const targetOf = (item: DeskItem): Target => ({ entry: item.entry, slot: item.one.slot });
  const homeOf = (item: DeskItem) => calendars.find((c) => c.id === item.entry.calendarId)?.zone ?? 'UTC';

  /** Whether one may write where something is to go; says why not. */
  const allowed = (...calendarIds: readonly string[]): boolean => {
    const shut = calendars.find((c) => calendarIds.includes(c.id) && !may('write', c.who));
    setRefused(shut ? t('mayNotWrite', { calendar: shut.name, who: whoMay('write') }) : '');
    return !shut;
  };

  const send = (label: EditLabel, target: Target, work: () => EntryChange[]) => {
    setRefused('');
    try {
      void edits.edit(named(label, target.entry, work()));
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      setRefused(problemText(error));
    }
  };

  const ask = (what: string, label: EditLabel, item: DeskItem, make: (scope: Scope) => EntryChange[]) => {
    const target = targetOf(item);
    if (target.slot) setWaiting({ what, label, target: { ...target, slot: target.slot }, make });
    else send(label, target, () => make('all'));
  };

  const move = (item: DeskItem, shift: Shift, to: string) => {
    if (!allowed(item.entry.calendarId, to)) return;
    const target = targetOf(item);
    if (to !== item.entry.calendarId) {
      ask(t('move'), 'labelMoved', item, (scope) => carrying(target, to, shift, scope, homeOf(item)));
    } else if (shift.start || shift.end) {
      ask(
        shift.start === shift.end ? t('move') : t('change'),
        shift.start === shift.end ? 'labelMoved' : 'labelResized',
        item,
        (scope) => shifting(target, shift, scope),
      );
    }
  };

  const copy = (item: DeskItem, shift: Shift, to: string) =>
    allowed(to) && send('labelCopied', targetOf(item), () => copying(targetOf(item), to, shift));

  const paste = (at: Place) => {
    const item = copied.current;
    if (!item) return setRefused(t('nothingCopied'));
    const minutes = at.minutes !== null && !item.allDay ? at.minutes * MINUTE - (item.start % DAY) : 0;
    copy(item, both(at.day - item.firstDay, minutes), at.calendarId ?? item.entry.calendarId);
  };

  const onGesture = (gesture: Gesture) => {
    if (gesture.kind === 'paste') return paste(gesture.at);
    if (gesture.kind === 'draw') {
      const to = gesture.from.calendarId ?? calendars.find((c) => may('write', c.who))?.id;
      if (to && allowed(to)) draw(gesture.from, gesture.to, to, onWrite);
      return;
    }
    const { item, to } = gesture;
    const calendarId = to.calendarId ?? item.entry.calendarId;
    const shift = shiftOf(gesture);
    if (gesture.kind !== 'move') return move(item, shift, item.entry.calendarId);
    return gesture.copy ? copy(item, shift, calendarId) : move(item, shift, calendarId);
  };

  /** Presses that come while a change is on its way are added up and follow it as one change. */
  const nudgeBy = (item: DeskItem, { start, end }: Shift) => {
    if (!busy) return move(item, { start, end }, item.entry.calendarId);
    const before = held.current?.key === item.key ? held.current.shift : { start: 0, end: 0 };
    held.current = { key: item.key, shift: { start: before.start + start, end: before.end + end } };
  };
  useEffect(() => {
    if (busy || !held.current) return;
    const { key, shift } = held.current;
    held.current = null;
    const item = items.find((i) => i.key === key);
    if (item) move(item, shift, item.entry.calendarId);
  });

  const remove = (item: DeskItem) =>
    allowed(item.entry.calendarId) &&
    ask(t('delete'), 'labelDeleted', item, (scope) => removing(targetOf(item), scope, homeOf(item)));

  const focus = (item: DeskItem | undefined) => {
    if (!item) return;
    onChoose(item.key);
    // It may have to be scrolled into sight and drawn first.
    const find = (tries: number) => {
      const el = document.querySelector<HTMLElement>(`[data-key="${CSS.escape(item.key)}"]`);
      if (el) el.focus();
      else if (tries > 0) requestAnimationFrame(() => find(tries - 1));
    };
    requestAnimationFrame(() => find(10));
  };

  /** Keys on an entry: arrows go on, Alt and arrows move it, Delete, Ctrl+C and Ctrl+V. */
  const onKeyDown = (event: KeyboardEvent) => {
    if (isTyping(event.target)) return;
    const key = keyOfItem(event.target);
    const at = key === null ? -1 : items.findIndex((i) => i.key === key);
    const item = items[at];
    if (!item) return;
    const nudge = nudgeOf(event);
    const control = event.ctrlKey || event.metaKey;
    if (nudge) {
      const ms = item.allDay ? 0 : nudge.minutes * MINUTE;
      nudgeBy(item, { start: nudge.edge ? 0 : nudge.days * DAY + ms, end: nudge.days * DAY + ms });
    } else if (control && event.key.toLowerCase() === 'c') {
      copied.current = item;
    } else if (control && event.key.toLowerCase() === 'v') {
      paste({ day: item.firstDay, minutes: null, calendarId: item.entry.calendarId });
    } else if (event.key === 'Delete') remove(item);
    else if (['ArrowRight', 'ArrowDown'].includes(event.key) && !control) focus(items[at + 1]);
    else if (['ArrowLeft', 'ArrowUp'].includes(event.key) && !control) focus(items[at - 1]);
    else if (event.key === 'Enter') onOpen(item);
    else return;
    event.preventDefault();
  };

  return {
    onGesture,
    onKeyDown,
    refused,
    waiting,
    choose: (scope: Scope) => {
      if (waiting) send(waiting.label, waiting.target, () => waiting.make(scope));
      setWaiting(null);
    },
    leave: () => setWaiting(null),
  };
}

const clock = (minutes: number) =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

/** A drawn span becomes a new entry: hours of a day where the view has hours, else whole days. */
function draw(a: Place, b: Place, calendarId: string, onWrite: DeskEditsOptions['onWrite']): void {
  const [first, last] = [Math.min(a.day, b.day), Math.max(a.day, b.day)];
  const days = { startDate: dayToText(first), endDate: dayToText(last) };
  if (a.minutes === null || b.minutes === null || first !== last) {
    return onWrite(calendarId, first, { ...days, clock: 'date' });
  }
  const [from, to] = [Math.min(a.minutes, b.minutes), Math.max(a.minutes, b.minutes) + SNAP];
  const end =
    to >= 1440 ? { endDate: dayToText(first + 1), endTime: clock(to - 1440) } : { endTime: clock(to) };
  onWrite(calendarId, first, { ...days, startTime: clock(from), ...end });
}
