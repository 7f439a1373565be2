import { slipOf } from '@zonal/core/entries';
import { timeText } from '@zonal/core/forms';
import { AlertTriangle, EyeOff, Flag, Hourglass, Repeat } from 'lucide-react';
import type { DeskItem } from '../deskDays';
import { t } from '../../texts/inside';
import { statusWord } from '../../texts/entryWords';
import { slipText } from '../../texts/formWords';

/** Returns by how much a milestone has slipped, in short, such as `+6 d (4 w)`; empty when it has not. */
export function slipMark(item: DeskItem, zone: string): string {
  const { planned } = item.one.content;
  if (!planned) return '';
  const { days, workingDays, minutes } = slipOf(planned, item.one.start, zone);
  const signed = (n: number) => (n < 0 ? `−${-n}` : `+${n}`);
  if (days) return t('slipDays', { days: signed(days), working: signed(workingDays) });
  return minutes ? t('slipMinutes', { minutes: signed(minutes) }) : '';
}

/** Icons that stand before a title: kind, hold, recurrence, a time in a clock change. */
export function Marks({ item }: { item: DeskItem }) {
  const { kind, hold } = item.one.content;
  return (
    <>
      {kind === 'milestone' && <Flag aria-label={t('milestone')} />}
      {kind === 'due' && <Hourglass aria-label={t('due')} />}
      {item.odd && <AlertTriangle aria-label={t('inClockChange')} />}
      {hold !== 'none' && <EyeOff aria-label={hold === 'frost' ? t('frosted') : t('keptIn')} />}
      {item.entry.recurrence && <Repeat aria-label={t('recurring')} />}
    </>
  );
}

/** Returns all that is to be said of an item in words, for screen readers and as its tip. */
export function wordsOf(item: DeskItem, calendar: string, zone: string): string {
  const { content } = item.one;
  const { planned } = content;
  return [
    content.title || t('untitled'),
    calendar,
    timeOf(item),
    content.place,
    content.status !== 'confirmed' && statusWord(content.status, content.kind),
    content.shows === 'free' && t('free'),
    planned && slipText(slipOf(planned, item.one.start, zone)),
    item.odd && t('oddTime'),
  ]
    .filter(Boolean)
    .join(', ');
}

/** Returns `09:00–10:30`, `all day`, or one time for a moment. */
export function timeOf({ allDay, start, end }: DeskItem): string {
  if (allDay) return t('allDay');
  return end > start ? `${timeText(start)}–${timeText(end)}` : timeText(start);
}
