import { timeText } from '@zonal/core/forms';
import { isoWeekOf, partsOfDay, weekdayOf, type Day } from '@zonal/core/zones';
import { memo, useMemo } from 'react';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import type { Calendar, OutwardWindow } from '@zonal/core/api';
import { Plate } from '../../ui/Plate';
import { Block, Ghost } from './Block';
import { Marks, slipMark } from './marks';
import { lanesOf, type DrawnInLane } from './laneLayout';
import { useFrame } from './useFrame';
import { ViewBox, useViewShell, within, type BlockTools } from './ViewShell';
import type { Place, ViewProps } from './viewTypes';
import { t } from '../../texts/inside';
import { dayText } from '../../texts/formWords';

/** Height of the days' names in pixels. */
const HEADS = 46;

const Box = styled(ViewBox)`
  --head: 13rem;
  @media (max-width: 44rem) {
    --head: 6.5rem;
  }
`;

const Heads = styled.div`
  position: sticky;
  top: 0;
  z-index: 6;
  display: flex;
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
  width: fit-content;
`;

const Corner = styled.div`
  position: sticky;
  left: 0;
  z-index: 7;
  flex: none;
  width: var(--head);
  background: var(--sheet);
  padding: 0.3rem 0.6rem;
  font-size: 0.8rem;
  color: var(--faded);
`;

const DayHead = styled.div<{ $today: boolean; $weekend: boolean }>`
  flex: none;
  padding: 0.3rem 0.1rem 0.2rem 0.3rem;
  border-left: 1px solid var(--hair);
  background: ${(p) => (p.$weekend ? 'var(--shade)' : 'var(--sheet)')};
  font-size: 0.78rem;
  line-height: 1.25;
  overflow: hidden;
  white-space: nowrap;
  font-weight: ${(p) => (p.$today ? 700 : 400)};
  box-shadow: ${(p) => (p.$today ? 'inset 0 -3px 0 var(--ink)' : 'none')};
  small {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    color: var(--faded);
    font-weight: 400;
  }
`;

const LaneRow = styled.div`
  display: flex;
  border-bottom: 1px solid var(--line);
  width: fit-content;
`;

const Head = styled.div`
  position: sticky;
  left: 0;
  z-index: 5;
  flex: none;
  width: var(--head);
  background: var(--sheet);
  padding: 0.4rem 0.6rem;
  font-size: 0.88rem;
  display: grid;
  gap: 0.15rem;
  align-content: start;
  line-height: 1.3;
  /* Not hidden: what sticks within would stick to nothing. */
  overflow: clip;
  border-right: 1px solid var(--line);
`;

/** What a lane is called stays in sight while a tall lane goes by. */
const Called = styled.div`
  position: sticky;
  top: ${HEADS + 6}px;
  display: grid;
  gap: 0.15rem;
  > div {
    display: -webkit-box;
    -webkit-line-clamp: 3;
    -webkit-box-orient: vertical;
    overflow: hidden;
  }
  &[data-empty] > * {
    -webkit-line-clamp: 1;
  }
`;

const Ground = styled.div`
  position: relative;
  flex: none;
`;

const Stripe = styled.div<{ $weekend: boolean; $monday: boolean }>`
  position: absolute;
  inset-block: 0;
  background: ${(p) => (p.$weekend ? 'var(--shade)' : 'none')};
  border-left: 1px solid ${(p) => (p.$monday ? 'var(--line)' : 'var(--hair)')};
`;

const Outside = styled.span`
  color: var(--outside);
  font-size: 0.75rem;
  line-height: 1.2;
  overflow: hidden;
  text-overflow: ellipsis;
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
`;

const CalendarName = styled(AriaButton)`
  display: inline-block;
  min-height: 24px;
  border: 0;
  padding: 0;
  background: none;
  text-align: left;
  cursor: pointer;
  overflow: hidden;
  text-overflow: ellipsis;
  &[data-hovered] {
    text-decoration: underline;
  }
`;

const SlipLine = styled.div`
  position: absolute;
  height: 0;
  border-top: 2px dotted var(--ink);
  pointer-events: none;
  &::before {
    content: '';
    position: absolute;
    width: 9px;
    height: 9px;
    top: -6px;
    border: 2px solid var(--ink);
    border-radius: 50%;
    background: var(--sheet);
  }
  &[data-later]::before {
    left: -5px;
  }
  &[data-earlier]::before {
    right: -5px;
  }
`;

/** The days that an entry takes, where its label is wider than they are. */
const Days = styled.span`
  position: absolute;
  left: 0;
  bottom: 0;
  height: 3px;
  background: var(--ink);
`;

const Cursor = styled.div`
  position: absolute;
  inset-block: 2px;
  border: 2px solid var(--focus);
  pointer-events: none;
`;

/** Least width of a day in pixels, by the number of days. */
const leastWidth = (days: number) => (days > 60 ? 22 : days > 20 ? 46 : days > 10 ? 84 : 118);
/** Least height of a lane, by the width of its name: a narrow name takes more lines. One with nothing in it takes less. */
const leastLane = (headWidth: number) =>
  headWidth < 130 ? { least: 112, leastEmpty: 62 } : { least: 76, leastEmpty: 47 };

interface LanesProps extends ViewProps {
  windows: readonly OutwardWindow[];
  onCalendar: (calendar: Calendar) => void;
}

/** Calendars as rows, days as columns. What is published stands beside each calendar's name. */
export function Lanes(props: LanesProps) {
  const { calendars, items, range, today, chosen, notes, windows } = props;
  const frame = useFrame(208);
  const { viewport, headWidth } = frame;
  const count = range.to - range.from;
  const dayWidth = Math.max(leastWidth(count), Math.floor((viewport.width - headWidth - 2) / count));
  const rowHeight = count <= 7 ? 38 : 23;
  const lanes = useMemo(
    () => lanesOf(calendars, items, range.from, count, { dayWidth, rowHeight, ...leastLane(headWidth) }),
    [calendars, items, range.from, count, dayWidth, rowHeight, headWidth],
  );
  const days = Array.from({ length: count }, (_, i) => range.from + i);
  const laneOf = (place: Place) =>
    Math.max(
      0,
      lanes.findIndex((l) => l.calendar.id === place.calendarId),
    );
  const placeIn = (lane: number, day: Day): Place | null => {
    const at = lanes[within(lane, 0, lanes.length - 1)];
    if (!at) return null;
    return { day: within(day, range.from, range.to - 1), minutes: null, calendarId: at.calendar.id };
  };
  const shell = useViewShell(frame, props, {
    heads: { left: headWidth, top: HEADS },
    layout: lanes,
    placeAt: ({ x, y }) => {
      const lane = lanes.findIndex((l) => y - HEADS < l.top + l.height);
      const day = range.from + Math.floor((x - headWidth) / dayWidth);
      return placeIn(lane < 0 ? lanes.length - 1 : lane, day);
    },
    first: () => placeIn(0, today)!,
    step: (at, right, down) => placeIn(laneOf(at) + down, at.day + right)!,
    words: (at) => `${lanes[laneOf(at)]?.calendar.name}, ${dayText(at.day)}`,
    boxOfPlace: (at) => ({
      left: headWidth + (at.day - range.from) * dayWidth,
      width: dayWidth,
      top: lanes[laneOf(at)]!.top + HEADS,
      height: 40,
    }),
    boxOfItem: (key) => {
      for (const lane of lanes) {
        const found = lane.drawn.find((d) => d.item.key === key);
        if (found)
          return {
            left: headWidth + found.left,
            width: found.width,
            top: lane.top + found.top + HEADS,
            height: rowHeight,
          };
      }
      return null;
    },
  });
  const { cursor, ghost } = shell;

  return (
    <Box box={frame.ref} shell={shell} label={t('lanesLabel')}>
      <Heads style={{ height: HEADS }}>
        <Corner data-corner="">{t('weekNumber', { week: isoWeekOf(range.from) })}</Corner>
        {days.map((day, i) => (
          <LaneDayHead
            key={day}
            day={day}
            first={i === 0}
            width={dayWidth}
            today={day === today}
            notes={notes.get(day)}
          />
        ))}
      </Heads>
      {lanes.map((lane) => (
        <LaneRow key={lane.calendar.id} style={{ height: lane.height }}>
          <Head>
            <Called {...(lane.drawn.length ? {} : { 'data-empty': '' })}>
              <div>
                <Plate {...lane.calendar} />{' '}
                <CalendarName onPress={() => props.onCalendar(lane.calendar)}>
                  {lane.calendar.name}
                </CalendarName>
              </div>
              <Outward calendar={lane.calendar} windows={windows} />
            </Called>
          </Head>
          <Ground style={{ width: count * dayWidth }} onPointerDown={shell.onGround}>
            <Stripes from={range.from} count={count} dayWidth={dayWidth} />
            {cursor?.calendarId === lane.calendar.id && (
              <Cursor style={{ left: (cursor.day - range.from) * dayWidth, width: dayWidth }} />
            )}
            {lane.drawn
              .filter(
                (d) =>
                  lane.top + d.top < viewport.bottom &&
                  lane.top + d.top > viewport.top - 60 &&
                  ((d.left < viewport.right && d.left + d.width > viewport.left - headWidth) ||
                    d.item.plannedDay !== null),
              )
              .map((d) => (
                <LaneItem
                  key={d.item.key}
                  drawn={d}
                  calendar={lane.calendar}
                  from={range.from}
                  dayWidth={dayWidth}
                  rowHeight={rowHeight}
                  chosen={d.item.key === chosen}
                  lifted={shell.lifted === d.item.key}
                  tools={shell.tools}
                />
              ))}
            {ghost?.calendarId === lane.calendar.id && (
              <Ghost
                style={{
                  left: (ghost.first - range.from) * dayWidth,
                  width: (ghost.last - ghost.first + 1) * dayWidth,
                  top: 2,
                  height: 24,
                }}
              >
                {ghost.words}
              </Ghost>
            )}
          </Ground>
        </LaneRow>
      ))}
    </Box>
  );
}

interface StripesProps {
  from: Day;
  count: number;
  dayWidth: number;
}

/** The ground that entries stand on: the same for all lanes, and drawn anew only when the days are others. */
const Stripes = memo(function Stripes({ from, count, dayWidth }: StripesProps) {
  const days = Array.from({ length: count }, (_, i) => from + i);
  return days.map(
    (day, i) =>
      (weekdayOf(day) > 4 || count <= 31 || weekdayOf(day) === 0) && (
        <Stripe
          key={day}
          $weekend={weekdayOf(day) > 4}
          $monday={weekdayOf(day) === 0 && count > 7}
          style={{ left: i * dayWidth, width: dayWidth }}
        />
      ),
  );
});

const LaneDayHead = memo(function LaneDayHead({
  day,
  first,
  width,
  today,
  notes,
}: {
  day: Day;
  first: boolean;
  width: number;
  today: boolean;
  notes: ViewProps['notes'] extends ReadonlyMap<Day, infer N> ? N | undefined : never;
}) {
  const { date } = partsOfDay(day);
  const [weekday, , month] = dayText(day).split(' ');
  const label = date === 1 || first ? ` ${month}` : '';
  return (
    <DayHead
      style={{ width }}
      $today={today}
      $weekend={weekdayOf(day) > 4}
      title={[dayText(day), ...(notes ?? []).map((n) => n.text)].join(', ')}
    >
      {headText(width, weekday!, date, label)}
      {notes && <small>{notes.map((n) => (width < 40 ? n.short.slice(0, 2) : n.short)).join(' ')}</small>}
    </DayHead>
  );
});

/** As much of a day's name as there is room for. */
function headText(width: number, weekday: string, date: number, month: string): string {
  if (width < 30) return date === 1 ? month.trim() : `${date}`;
  if (width < 70) return month ? `${date}${month}` : `${weekday.slice(0, 2)} ${date}`;
  return `${weekday} ${date}${month}`;
}

function Outward({ calendar, windows }: { calendar: Calendar; windows: readonly OutwardWindow[] }) {
  const showing = windows.filter(
    (w) => !w.closedAt && w.sources.some((s) => s.calendarId === calendar.id && s.glass !== 'shut'),
  );
  if (!showing.length) return null;
  return <Outside>{t('outsideIn', { windows: showing.map((w) => w.wording.name).join(', ') })}</Outside>;
}

interface LaneItemProps {
  drawn: DrawnInLane;
  calendar: Calendar;
  from: Day;
  dayWidth: number;
  rowHeight: number;
  chosen: boolean;
  lifted: boolean;
  tools: BlockTools;
}

/** Drawn anew only when something of it changes, not whenever another part of the lanes comes into sight. */
const LaneItem = memo(function LaneItem({
  drawn,
  calendar,
  from,
  dayWidth,
  rowHeight,
  chosen,
  lifted,
  tools,
}: LaneItemProps) {
  const { item, left, width, top } = drawn;
  const slip = slipMark(item, calendar.zone);
  const days = item.lastDay - Math.max(from, item.firstDay) + 1;
  const middle = (day: Day) => (day - from + 0.5) * dayWidth;
  const [planned, present] = [middle(item.plannedDay ?? item.firstDay), middle(item.firstDay)];
  return (
    <>
      {slip && planned !== present && (
        <SlipLine
          {...(planned < present ? { 'data-later': '' } : { 'data-earlier': '' })}
          style={{
            left: Math.min(planned, present),
            width: Math.abs(present - planned),
            top: top + rowHeight / 2 - 2,
          }}
        />
      )}
      <Block
        item={item}
        calendar={calendar}
        zone={calendar.zone}
        chosen={chosen}
        lifted={lifted}
        style={{ left, width, top, height: rowHeight - 4 }}
        tools={tools}
        stretches={item.allDay && item.one.content.kind === 'event'}
      >
        {!item.allDay && <time>{timeText(item.start)} </time>}
        <Marks item={item} />
        {rowHeight > 30 && !item.allDay && <br />}
        <span className="what">{item.one.content.title || t('untitled')}</span>
        {slip && <strong> {slip}</strong>}
        {width > days * dayWidth && <Days style={{ width: days * dayWidth - 8 }} />}
      </Block>
    </>
  );
});
