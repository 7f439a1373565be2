import { dayText, timeText } from '@zonal/core/forms';
import { DAY, isoWeekOf, partsOfDay, wallAt, weekdayOf, type Day } from '@zonal/core/zones';
import { EyeOff, Plus } from 'lucide-react';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import type { Calendar, OutwardWindow } from '../api/types';
import { Plate } from '../ui/Plate';
import { useNow } from '../ui/useNow';
import { packRows, type DeskItem } from './deskDays';

const Frame = styled.div`
  overflow: auto;
  border: 1px solid var(--line);
  background: var(--sheet);
  max-height: max(20rem, calc(100dvh - 17rem));
`;

const Table = styled.div<{ $days: number }>`
  display: grid;
  grid-template-columns: 13rem repeat(
      ${(p) => p.$days},
      minmax(${(p) => (p.$days > 7 ? '5.5rem' : '8rem')}, 1fr)
    );
  min-width: fit-content;
  @media (max-width: 44rem) {
    grid-template-columns: 7rem repeat(${(p) => p.$days}, minmax(7rem, 1fr));
  }
`;

const DayHead = styled.div<{ $today: boolean; $weekend: boolean }>`
  position: sticky;
  top: 0;
  z-index: 2;
  padding: 0.3rem 0.4rem;
  border-bottom: 1px solid var(--line);
  border-left: 1px solid var(--hair);
  background: ${(p) => (p.$weekend ? 'var(--shade)' : 'var(--sheet)')};
  font-size: 0.8rem;
  font-weight: ${(p) => (p.$today ? 700 : 400)};
  text-decoration: ${(p) => (p.$today ? 'underline 2px' : 'none')};
  text-underline-offset: 0.2em;
`;

const Corner = styled.div`
  position: sticky;
  top: 0;
  left: 0;
  z-index: 3;
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
  padding: 0.3rem 0.6rem;
  font-size: 0.8rem;
  color: var(--faded);
`;

const Head = styled.div<{ $row: number; $rows: number }>`
  grid-column: 1;
  grid-row: ${(p) => `${p.$row} / span ${p.$rows}`};
  position: sticky;
  left: 0;
  z-index: 1;
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
  padding: 0.5rem 0.6rem;
  font-size: 0.9rem;
  display: grid;
  gap: 0.25rem;
  align-content: start;
  min-height: 4.2rem;
`;

const Outside = styled.span`
  color: var(--outside);
  font-size: 0.75rem;
`;

const Ground = styled.div<{ $row: number; $rows: number; $column: number; $weekend: boolean }>`
  grid-column: ${(p) => p.$column};
  grid-row: ${(p) => `${p.$row} / span ${p.$rows}`};
  border-left: 1px solid var(--hair);
  border-bottom: 1px solid var(--line);
  background: ${(p) => (p.$weekend ? 'var(--shade)' : 'none')};
  display: flex;
  align-items: end;
  justify-content: end;
`;

const Add = styled(AriaButton)`
  border: 0;
  background: none;
  opacity: 0;
  padding: 0.15rem;
  cursor: pointer;
  width: 100%;
  height: 100%;
  display: flex;
  align-items: end;
  justify-content: end;
  &[data-hovered],
  &[data-focus-visible] {
    opacity: 1;
  }
  svg {
    width: 0.9rem;
  }
`;

const Block = styled(AriaButton)<{
  $from: number;
  $to: number;
  $row: number;
  $status: string;
  $free: boolean;
  $roomy: boolean;
}>`
  grid-column: ${(p) => `${p.$from} / ${p.$to}`};
  grid-row: ${(p) => p.$row};
  margin: 2px 3px 0;
  padding: 0.1rem 0.35rem;
  text-align: left;
  font-size: 0.78rem;
  line-height: 1.3;
  background: var(--paper);
  border: 1px ${(p) => (p.$status === 'tentative' ? 'dashed' : 'solid')} var(--line);
  border-left-width: ${(p) => (p.$free ? '1px' : '4px')};
  color: var(--ink);
  cursor: pointer;
  overflow: hidden;
  white-space: ${(p) => (p.$roomy ? 'normal' : 'nowrap')};
  text-overflow: ellipsis;
  text-decoration: ${(p) => (p.$status === 'cancelled' ? 'line-through' : 'none')};
  min-width: 0;
  z-index: 0;
  &[data-hovered] {
    background: var(--shade);
    border-color: var(--ink);
  }
  time {
    color: var(--faded);
    font-variant-numeric: tabular-nums;
  }
  svg {
    width: 0.8rem;
    height: 0.8rem;
    vertical-align: -0.12em;
  }
`;

interface LanesProps {
  calendars: readonly Calendar[];
  items: ReadonlyMap<string, readonly DeskItem[]>;
  windows: readonly OutwardWindow[];
  from: Day;
  to: Day;
  onOpen: (item: DeskItem) => void;
  onAdd: (calendar: Calendar, day: Day) => void;
  onCalendar: (calendar: Calendar) => void;
}

/** Calendars as rows, days as columns. What is published stands beside each calendar's name. */
export function Lanes({ calendars, items, windows, from, to, onOpen, onAdd, onCalendar }: LanesProps) {
  const days = Array.from({ length: to - from }, (_, i) => from + i);
  const now = useNow();
  const lanes = lanesOf(calendars, items);
  return (
    <Frame tabIndex={0} role="region" aria-label="Lanes: calendars as rows, days as columns">
      <Table $days={days.length}>
        <Corner style={{ gridColumn: 1, gridRow: 1 }}>Week {isoWeekOf(from)}</Corner>
        {days.map((day, i) => {
          const { date } = partsOfDay(day);
          const [weekday, , month] = dayText(day).split(' ');
          const today = calendars.some((c) => Math.floor(wallAt(c.zone, now) / DAY) === day);
          return (
            <DayHead
              key={day}
              style={{ gridColumn: i + 2, gridRow: 1 }}
              $today={today}
              $weekend={weekdayOf(day) > 4}
            >
              {weekday} {date} {date === 1 || i === 0 ? month : ''}
            </DayHead>
          );
        })}
        {lanes.map(({ calendar, own, rows, count, start }) => {
          return (
            <Lane
              key={calendar.id}
              {...{ calendar, own, rows, count, start, days, onOpen, onAdd, onCalendar }}
              windows={windows.filter(
                (w) =>
                  !w.closedAt && w.sources.some((s) => s.calendarId === calendar.id && s.glass !== 'shut'),
              )}
            />
          );
        })}
      </Table>
    </Frame>
  );
}

/** Returns for each calendar the rows of the grid that it takes: the first is below the day heads. */
function lanesOf(calendars: LanesProps['calendars'], items: LanesProps['items']) {
  const out: Pick<LaneProps, 'calendar' | 'own' | 'rows' | 'count' | 'start'>[] = [];
  for (const calendar of calendars) {
    const own = items.get(calendar.id) ?? [];
    const rows = packRows(own);
    const last = out.at(-1);
    const start = last ? last.start + last.count : 2;
    out.push({ calendar, own, rows, count: Math.max(2, ...[...rows.values()].map((r) => r + 2)), start });
  }
  return out;
}

interface LaneProps extends Pick<LanesProps, 'windows' | 'onOpen' | 'onAdd' | 'onCalendar'> {
  calendar: Calendar;
  own: readonly DeskItem[];
  rows: ReadonlyMap<DeskItem, number>;
  count: number;
  start: number;
  days: readonly Day[];
}

function Lane({ calendar, own, rows, count, start, days, windows, onOpen, onAdd, onCalendar }: LaneProps) {
  const from = days[0]!;
  return (
    <>
      <Head $row={start} $rows={count}>
        <span>
          <Plate plate={calendar.plate} colour={calendar.colour} />
        </span>
        <CalendarName onPress={() => onCalendar(calendar)}>{calendar.name}</CalendarName>
        {windows.length > 0 && <Outside>Outside: {windows.map((w) => w.wording.name).join(', ')}</Outside>}
      </Head>
      {days.map((day, i) => (
        <Ground key={day} $row={start} $rows={count} $column={i + 2} $weekend={weekdayOf(day) > 4}>
          <Add
            aria-label={`Write an entry in ${calendar.name} on ${dayText(day)}`}
            onPress={() => onAdd(calendar, day)}
          >
            <Plus aria-hidden="true" />
          </Add>
        </Ground>
      ))}
      {own.map((item) => (
        <Block
          key={item.key}
          $from={Math.max(0, item.firstDay - from) + 2}
          $to={Math.min(days.length, item.lastDay - from + 1) + 2}
          $row={start + rows.get(item)!}
          $status={item.one.content.status}
          $free={item.one.content.shows === 'free'}
          $roomy={days.length <= 7}
          onPress={() => onOpen(item)}
        >
          {!item.allDay && <time>{timeText(item.start)} </time>}
          {item.one.content.hold !== 'none' && (
            <EyeOff aria-label={item.one.content.hold === 'frost' ? 'frosted' : 'kept in'} />
          )}{' '}
          {item.one.content.title || 'Untitled'}
        </Block>
      ))}
    </>
  );
}

const CalendarName = styled(AriaButton)`
  border: 0;
  padding: 0;
  background: none;
  text-align: left;
  cursor: pointer;
  overflow-wrap: anywhere;
  &[data-hovered] {
    text-decoration: underline;
  }
`;
