import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef } from 'react';
import { slipOf } from '@zonal/core/entries';
import styled from 'styled-components';
import { Empty } from '../../ui/Notice';
import { Plate } from '../../ui/Plate';
import type { DeskItem } from '../deskDays';
import { keyOfItem } from './keys';
import { Marks, timeOf } from './marks';
import type { ViewProps } from './viewTypes';
import { t } from '../../texts/inside';
import { HOLD_WORDS, statusWord } from '../../texts/entryWords';
import { dayText, slipText } from '../../texts/formWords';

const Frame = styled.div`
  overflow: auto;
  border: 1px solid var(--line);
  background: var(--sheet);
  height: max(22rem, calc(100dvh - var(--above)));
  font-size: 0.9rem;
`;

const Row = styled.div`
  display: grid;
  grid-template-columns: 1.6rem 9.5rem 7rem 4.5rem minmax(12rem, 2fr) minmax(7rem, 1fr) minmax(8rem, 1fr);
  gap: 0 0.6rem;
  padding: 0.25rem 0.6rem;
  border-bottom: 1px solid var(--hair);
  align-items: baseline;
  > * {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    min-width: 0;
  }
  &[data-chosen] {
    background: var(--shade);
  }
  time {
    font-variant-numeric: tabular-nums;
  }
  svg {
    width: 0.85rem;
    height: 0.85rem;
    vertical-align: -0.12em;
    margin-right: 0.2rem;
  }
  @media (max-width: 44rem) {
    grid-template-columns: 1.4rem 5.6rem 5.2rem 3.2rem minmax(5rem, 1fr);
    column-gap: 0.4rem;
    .wide {
      display: none;
    }
  }
`;

const Heads = styled(Row)`
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--sheet);
  color: var(--faded);
  font-size: 0.8rem;
  border-bottom: 1px solid var(--line);
`;

const Open = styled.button`
  border: 0;
  padding: 0;
  background: none;
  font-weight: 700;
  cursor: pointer;
  text-align: left;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  &:hover {
    text-decoration: underline;
  }
`;

const HEIGHT = 33;

/** A tick box as large as a finger needs. */
const Box = styled.input.attrs({ type: 'checkbox' })`
  width: 1.1rem;
  height: 1.1rem;
  margin: 0;
  vertical-align: middle;
  accent-color: var(--ink);
`;

export interface ListProps extends ViewProps {
  /** Keys of the items that are selected to be changed together. */
  readonly selected: ReadonlySet<string>;
  /** Called with keys that are selected or no longer selected. */
  readonly onSelect: (keys: readonly string[], isSelected: boolean) => void;
}

/** Entries one below the other, in order of time; several can be selected. */
export function List({ calendars, items, chosen, selected, onOpen, onChoose, onSelect }: ListProps) {
  const frame = useRef<HTMLDivElement>(null);
  const calendarOf = useMemo(() => new Map(calendars.map((c) => [c.id, c])), [calendars]);
  const all = useMemo(
    () => [...items.values()].flat().sort((a, b) => a.firstDay - b.firstDay || a.start - b.start),
    [items],
  );
  const virtual = useVirtualizer({
    count: all.length,
    getScrollElement: () => frame.current,
    estimateSize: () => HEIGHT,
    // The head stands above the rows, and over them once they are scrolled.
    scrollPaddingEnd: HEIGHT,
    overscan: 12,
  });
  const at = all.findIndex((i) => i.key === chosen);
  useEffect(() => {
    // A row that is being pressed must not move away: its click would be lost.
    if (at >= 0 && keyOfItem(document.activeElement) !== chosen) virtual.scrollToIndex(at, { align: 'auto' });
    // Only when another one is chosen, or what was just written comes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [chosen, at >= 0]);
  if (!all.length) return <Empty>{t('listEmpty')}</Empty>;
  const rows = virtual.getVirtualItems();
  return (
    <Frame ref={frame} role="table" aria-label={t('listLabel')} aria-rowcount={all.length + 1} tabIndex={0}>
      <Heads role="row">
        <span role="columnheader">
          <Box
            aria-label={t('selectAll')}
            checked={all.every((item) => selected.has(item.key))}
            onChange={(event) =>
              onSelect(
                all.map((item) => item.key),
                event.target.checked,
              )
            }
          />
        </span>
        {[t('day'), t('time'), t('calendar'), t('entry')].map((name) => (
          <span key={name} role="columnheader">
            {name}
          </span>
        ))}
        <span role="columnheader" className="wide">
          {t('place')}
        </span>
        <span role="columnheader" className="wide">
          {t('marks')}
        </span>
      </Heads>
      <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        <div style={{ position: 'absolute', insetInline: 0, top: rows[0]?.start ?? 0 }}>
          {rows.map(({ index }) => {
            const item = all[index]!;
            const calendar = calendarOf.get(item.entry.calendarId)!;
            return (
              <Row
                key={item.key}
                role="row"
                aria-rowindex={index + 2}
                style={{ height: HEIGHT }}
                {...(item.key === chosen ? { 'data-chosen': '' } : {})}
              >
                <span role="cell">
                  <Box
                    aria-label={t('selectEntry', {
                      title: item.one.content.title || t('untitled'),
                      day: dayText(item.firstDay),
                    })}
                    checked={selected.has(item.key)}
                    onChange={(event) => onSelect([item.key], event.target.checked)}
                  />
                </span>
                <time role="cell">{dayText(item.firstDay)}</time>
                <time role="cell">{timeOf(item)}</time>
                <span role="cell">
                  <Plate {...calendar} />
                </span>
                <span role="cell">
                  <Open
                    type="button"
                    data-key={item.key}
                    onFocus={() => onChoose(item.key)}
                    onClick={() => onOpen(item)}
                    title={item.one.content.title}
                  >
                    <Marks item={item} />
                    {item.one.content.title || t('untitled')}
                  </Open>
                </span>
                <span role="cell" className="wide">
                  {item.one.content.place}
                </span>
                <span role="cell" className="wide">
                  {marksOf(item, calendar.zone)}
                </span>
              </Row>
            );
          })}
        </div>
      </div>
    </Frame>
  );
}

/** Returns what is marked about an entry, in words. */
export function marksOf(item: DeskItem, zone: string): string {
  const { content } = item.one;
  return [
    content.status !== 'confirmed' && statusWord(content.status, content.kind),
    content.shows === 'free' && t('free'),
    item.entry.recurrence && t('recurring'),
    HOLD_WORDS[content.hold].marked,
    content.planned && slipText(slipOf(content.planned, item.one.start, zone)),
  ]
    .filter(Boolean)
    .join(', ');
}
