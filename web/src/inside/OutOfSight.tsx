import type { Calendar } from '@zonal/core/api';
import { dayText } from '@zonal/core/forms';
import type { ZoneName } from '@zonal/core/zones';
import { TextButton } from '../ui/Button';
import type { DayRange, DeskItem } from './deskDays';
import { firstItemOf, isOutOfDays, type Written } from './writtenItem';

interface OutOfSightProps {
  readonly written: Written;
  readonly calendars: readonly Calendar[];
  readonly hidden: readonly string[];
  readonly range: DayRange;
  /** The zone whose clocks are shown; empty for each calendar's own. */
  readonly readAs: ZoneName | '';
  readonly onShow: (item: DeskItem) => void;
}

/** Says that what was just written is not on the screen, and where it is. */
export function OutOfSight({ written, calendars, hidden, range, readAs, onShow }: OutOfSightProps) {
  const calendar = calendars.find((c) => c.id === written.entry.calendarId);
  if (!calendar) return null;
  const zone = readAs || calendar.zone;
  const isHidden = hidden.includes(calendar.id);
  if (!isHidden && !isOutOfDays(written, range, zone, calendar.zone)) return null;
  const item = firstItemOf(written, zone, calendar.zone);
  if (!item) return null;
  return (
    <span role="status">
      “{item.one.content.title || 'Untitled entry'}” is on {dayText(item.firstDay)}
      {isHidden && ` in ${calendar.name}, which is switched off`}.{' '}
      <TextButton onPress={() => onShow(item)}>Show it</TextButton>
    </span>
  );
}
