import { weekdayOf, type Day } from '@zonal/core/zones';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo } from 'react';
import styled from 'styled-components';
import { Plate } from '../../ui/Plate';
import type { DeskItem } from '../deskDays';
import { Marks, slipMark, timeOf, wordsOf } from './marks';
import type { GhostSpan } from './gestures';
import { useFrame } from './useFrame';
import { ViewBox, useViewShell, within } from './ViewShell';
import type { Place, ViewProps } from './viewTypes';
import { t } from '../../texts/inside';
import { dayText } from '../../texts/formWords';

/** Height of the calendars' names in pixels. */
const HEAD = 34;

const Grid = styled.div<{ $columns: number }>`
  display: grid;
  grid-template-columns: 7rem repeat(${(p) => p.$columns}, minmax(9rem, 1fr));
  min-width: fit-content;
`;

const HeadRow = styled(Grid)`
  height: ${HEAD}px;
  position: sticky;
  top: 0;
  z-index: 3;
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
  font-size: 0.85rem;
  > div {
    padding: 0.35rem 0.5rem;
    display: flex;
    gap: 0.4rem;
    align-items: center;
    border-left: 1px solid var(--hair);
    overflow: hidden;
    white-space: nowrap;
  }
`;

const Row = styled(Grid)<{ $weekend: boolean; $today: boolean }>`
  border-bottom: 1px solid var(--hair);
  background: ${(p) => (p.$weekend ? 'var(--shade)' : 'none')};
  > div {
    padding: 0.2rem 0.5rem;
    border-left: 1px solid var(--hair);
    min-height: 2rem;
    min-width: 0;
  }
  > div[data-cursor] {
    outline: 2px solid var(--focus);
    outline-offset: -2px;
  }
  > div[data-over] {
    background: var(--hair);
    outline: 2px dashed var(--ink);
    outline-offset: -3px;
    font-size: 0.78rem;
  }
  > div:first-child {
    font-size: 0.82rem;
    font-weight: ${(p) => (p.$today ? 700 : 400)};
    box-shadow: ${(p) => (p.$today ? 'inset 4px 0 0 var(--ink)' : 'none')};
    small {
      display: block;
      color: var(--faded);
      font-size: 0.72rem;
      font-weight: 400;
    }
  }
`;

const Line = styled.button`
  display: block;
  width: 100%;
  border: 0;
  border-left: 3px solid var(--line);
  background: none;
  padding: 0.05rem 0.3rem;
  margin-bottom: 0.15rem;
  text-align: left;
  font-size: 0.82rem;
  line-height: 1.3;
  cursor: pointer;
  overflow-wrap: anywhere;
  &:hover {
    background: var(--paper);
  }
  &[data-chosen] {
    outline: 2px solid var(--ink);
  }
  &[data-lifted] {
    opacity: 0.45;
  }
  &[data-status='cancelled'] {
    text-decoration: line-through;
  }
  time {
    color: var(--faded);
    font-variant-numeric: tabular-nums;
  }
  svg {
    width: 0.8rem;
    height: 0.8rem;
    vertical-align: -0.12em;
    margin-right: 0.15rem;
  }
`;

/** Calendars side by side: a column each, a row a day. */
export function Columns(props: ViewProps) {
  const { calendars, items, range, today, chosen, notes } = props;
  const frame = useFrame(0);
  const days = range.to - range.from;
  const byDay = useMemo(
    () =>
      new Map(
        calendars.map((c) => {
          const own = new Map<number, DeskItem[]>();
          for (const item of items.get(c.id) ?? []) {
            for (
              let d = Math.max(range.from, item.firstDay);
              d <= Math.min(range.to - 1, item.lastDay);
              d++
            ) {
              own.set(d, [...(own.get(d) ?? []), item]);
            }
          }
          return [c.id, own] as const;
        }),
      ),
    [calendars, items, range.from, range.to],
  );
  const virtual = useVirtualizer({
    count: days,
    getScrollElement: () => frame.ref.current,
    estimateSize: () => 64,
    overscan: 6,
  });
  const rows = virtual.getVirtualItems();

  const columnOf = (place: Place) =>
    Math.max(
      0,
      calendars.findIndex((c) => c.id === place.calendarId),
    );
  const placeIn = (column: number, day: Day): Place => ({
    day: within(day, range.from, range.to - 1),
    minutes: null,
    calendarId: calendars[within(column, 0, calendars.length - 1)]!.id,
  });
  const rowBox = (day: Day) => {
    const found = virtual.measurementsCache[day - range.from];
    return found ? { top: HEAD + found.start, height: found.size } : { top: 0, height: 0 };
  };
  const columnBox = (column: number) => {
    const head = frame.ref.current?.querySelectorAll<HTMLElement>('[data-column]')[column];
    return { left: head?.offsetLeft ?? 0, width: head?.offsetWidth ?? 0 };
  };
  const shell = useViewShell(frame, props, {
    heads: { left: 0, top: HEAD },
    layout: byDay,
    placeAt: ({ x, y }) => {
      const row = virtual.measurementsCache.find((m) => y - HEAD < m.end);
      const column = calendars.findIndex((_, i) => x < columnBox(i).left + columnBox(i).width);
      return placeIn(column < 0 ? calendars.length - 1 : column, range.from + (row?.index ?? days - 1));
    },
    first: () => placeIn(0, today),
    step: (at, right, down) => placeIn(columnOf(at) + right, at.day + down),
    words: (at) => `${calendars[columnOf(at)]?.name}, ${dayText(at.day)}`,
    boxOfPlace: (at) => ({ ...rowBox(at.day), ...columnBox(columnOf(at)) }),
    boxOfItem: (key) => {
      for (const [column, calendar] of calendars.entries()) {
        const item = items.get(calendar.id)?.find((i) => i.key === key);
        if (item) return { ...rowBox(Math.max(range.from, item.firstDay)), ...columnBox(column) };
      }
      return null;
    },
  });
  const { cursor, ghost, tools } = shell;

  return (
    <ViewBox box={frame.ref} shell={shell} label={t('columnsLabel')}>
      <HeadRow $columns={calendars.length}>
        <div>{t('day')}</div>
        {calendars.map((c) => (
          <div key={c.id} data-column="">
            <Plate {...c} /> {c.name}
          </div>
        ))}
      </HeadRow>
      <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        <div style={{ position: 'absolute', insetInline: 0, top: rows[0]?.start ?? 0 }}>
          {rows.map(({ index, key }) => {
            const day = range.from + index;
            return (
              <Row
                key={key}
                data-index={index}
                ref={virtual.measureElement}
                $columns={calendars.length}
                $weekend={weekdayOf(day) > 4}
                $today={day === today}
              >
                <div>
                  {dayText(day).replace(/ \d{4}$/, '')}
                  {notes.get(day)?.map((n) => (
                    <small key={n.layer}>{n.text}</small>
                  ))}
                </div>
                {calendars.map((c) => (
                  <div
                    key={c.id}
                    onPointerDown={shell.onGround}
                    {...(cursor?.day === day && cursor.calendarId === c.id ? { 'data-cursor': '' } : {})}
                    {...(isOver(ghost, day, c.id) ? { 'data-over': '' } : {})}
                  >
                    {isOver(ghost, day, c.id) && ghost!.words}
                    {byDay
                      .get(c.id)!
                      .get(day)
                      ?.map((item) => (
                        <Line
                          key={item.key}
                          type="button"
                          data-key={item.key}
                          data-status={item.one.content.status}
                          title={wordsOf(item, c.name, c.zone)}
                          style={{ borderLeftColor: c.colour }}
                          {...(item.key === chosen ? { 'data-chosen': '' } : {})}
                          {...(item.key === shell.lifted ? { 'data-lifted': '' } : {})}
                          onPointerDown={tools.onHold('move', item)}
                          onFocus={() => tools.onChoose(item.key)}
                          onClick={() => {
                            if (!tools.wasGesture()) tools.onOpen(item);
                          }}
                        >
                          <time>{timeOf(item)}</time> <Marks item={item} />
                          {item.one.content.title || t('untitled')} {slipMark(item, c.zone)}
                        </Line>
                      ))}
                  </div>
                ))}
              </Row>
            );
          })}
        </div>
      </div>
    </ViewBox>
  );
}

/** Whether what is dragged or drawn would stand on a day of a calendar. */
function isOver(ghost: GhostSpan | null, day: Day, calendarId: string): boolean {
  return ghost !== null && ghost.calendarId === calendarId && day >= ghost.first && day <= ghost.last;
}
