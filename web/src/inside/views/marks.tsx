import { slipOf, statusWord } from '@zonal/core/entries';
import { slipText, timeText } from '@zonal/core/forms';
import { AlertTriangle, EyeOff, Flag, Hourglass, Repeat } from 'lucide-react';
import type { DeskItem } from '../deskDays';

/** Returns by how much a milestone has slipped, in short, such as `+6 d (4 w)`; empty when it has not. */
export function slipMark(item: DeskItem, zone: string): string {
  const { planned } = item.one.content;
  if (!planned) return '';
  const { days, workingDays, minutes } = slipOf(planned, item.one.start, zone);
  const signed = (n: number) => (n < 0 ? `−${-n}` : `+${n}`);
  if (days) return `${signed(days)} d (${signed(workingDays)} working)`;
  return minutes ? `${signed(minutes)} min` : '';
}

/** Icons that stand before a title: kind, hold, recurrence, a time in a clock change. */
export function Marks({ item }: { item: DeskItem }) {
  const { kind, hold } = item.one.content;
  return (
    <>
      {kind === 'milestone' && <Flag aria-label="milestone" />}
      {kind === 'due' && <Hourglass aria-label="due" />}
      {item.odd && <AlertTriangle aria-label="in a clock change" />}
      {hold !== 'none' && <EyeOff aria-label={hold === 'frost' ? 'frosted' : 'kept in'} />}
      {item.entry.recurrence && <Repeat aria-label="recurring" />}
    </>
  );
}

/** Returns all that is to be said of an item in words, for screen readers and as its tip. */
export function wordsOf(item: DeskItem, calendar: string, zone: string): string {
  const { content } = item.one;
  const { planned } = content;
  return [
    content.title || 'Untitled',
    calendar,
    timeOf(item),
    content.place,
    content.status !== 'confirmed' && statusWord(content.status, content.kind),
    content.shows === 'free' && 'free',
    planned && slipText(slipOf(planned, item.one.start, zone)),
    item.odd && 'at a time that clocks skip or show twice',
  ]
    .filter(Boolean)
    .join(', ');
}

/** Returns `09:00–10:30`, `all day`, or one time for a moment. */
export function timeOf({ allDay, start, end }: DeskItem): string {
  if (allDay) return 'all day';
  return end > start ? `${timeText(start)}–${timeText(end)}` : timeText(start);
}
