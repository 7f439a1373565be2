import type { Calendar } from '@zonal/core/api';
import type { ZoneName } from '@zonal/core/zones';
import { TextButton } from '../ui/Button';
import type { DayRange, DeskItem } from './deskDays';
import { firstItemOf, isOutOfDays, type Written } from './writtenItem';
import { t } from '../texts/inside';
import { dayText } from '../texts/formWords';

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
      {t.rich(isHidden ? 'outOfSightHidden' : 'outOfSight', {
        title: item.one.content.title || t('untitledEntry'),
        day: dayText(item.firstDay),
        calendar: calendar.name,
        show: (text) => <TextButton onPress={() => onShow(item)}>{text}</TextButton>,
      })}
    </span>
  );
}
