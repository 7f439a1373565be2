import { dayText } from '@zonal/core/forms';
import { weekdayOf } from '@zonal/core/zones';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef } from 'react';
import styled from 'styled-components';
import { Plate } from '../../ui/Plate';
import type { DeskItem } from '../deskDays';
import { Marks, slipMark, timeOf, wordsOf } from './marks';
import type { ViewProps } from './viewTypes';

const Frame = styled.div`
  overflow: auto;
  border: 1px solid var(--line);
  background: var(--sheet);
  height: max(22rem, calc(100dvh - var(--above)));
`;

const Grid = styled.div<{ $columns: number }>`
  display: grid;
  grid-template-columns: 7rem repeat(${(p) => p.$columns}, minmax(9rem, 1fr));
  min-width: fit-content;
`;

const HeadRow = styled(Grid)`
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
export function Columns({ calendars, items, range, today, chosen, notes, onOpen, onChoose }: ViewProps) {
  const frame = useRef<HTMLDivElement>(null);
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
    getScrollElement: () => frame.current,
    estimateSize: () => 64,
    overscan: 6,
  });
  const rows = virtual.getVirtualItems();
  return (
    <Frame ref={frame} tabIndex={0} role="region" aria-label="Calendars side by side, a row a day">
      <HeadRow $columns={calendars.length}>
        <div>Day</div>
        {calendars.map((c) => (
          <div key={c.id}>
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
                  <div key={c.id}>
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
                          onFocus={() => onChoose(item.key)}
                          onClick={() => onOpen(item)}
                        >
                          <time>{timeOf(item)}</time> <Marks item={item} />
                          {item.one.content.title || 'Untitled'} {slipMark(item, c.zone)}
                        </Line>
                      ))}
                  </div>
                ))}
              </Row>
            );
          })}
        </div>
      </div>
    </Frame>
  );
}
