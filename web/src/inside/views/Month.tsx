import { timeText } from '@zonal/core/forms';
import { WEEKDAY_NAMES, isoWeekOf, partsOfDay, weekdayOf, type Day } from '@zonal/core/zones';
import { useEffect, useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import styled from 'styled-components';
import { Plate } from '../../ui/Plate';
import type { DeskItem } from '../deskDays';
import { Block } from './Block';
import { Marks, slipMark, timeOf } from './marks';
import { shownOn, weekOf, type Placed } from './monthLayout';
import { useFrame } from './useFrame';
import { ViewBox, useViewShell, within } from './ViewShell';
import type { Place, ViewProps } from './viewTypes';
import { t } from '../../texts/inside';
import { dayText, monthText } from '../../texts/formWords';

const Box = styled(ViewBox)`
  height: max(26rem, calc(100dvh - var(--above)));
  display: grid;
  grid-template-rows: auto;
  grid-auto-rows: minmax(5rem, 1fr);
`;

const Names = styled.div`
  position: sticky;
  top: 0;
  z-index: 5;
  display: grid;
  grid-template-columns: 2.4rem repeat(7, minmax(0, 1fr));
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
  font-size: 0.78rem;
  color: var(--faded);
  height: 1.5rem;
  span {
    padding: 0.15rem 0.4rem;
  }
  @media (max-width: 44rem) {
    grid-template-columns: 1.6rem repeat(7, minmax(0, 1fr));
  }
`;

const WeekRow = styled.div`
  display: grid;
  grid-template-columns: 2.4rem minmax(0, 1fr);
  border-bottom: 1px solid var(--line);
  min-height: 5rem;
  @media (max-width: 44rem) {
    time,
    svg,
    small,
    button > span:not(.what) {
      display: none;
    }
    grid-template-columns: 1.6rem minmax(0, 1fr);
  }
`;

const WeekNumber = styled.div`
  font-size: 0.72rem;
  color: var(--faded);
  padding: 0.2rem 0.3rem;
  border-right: 1px solid var(--hair);
  writing-mode: vertical-rl;
  transform: rotate(180deg);
  text-align: end;
`;

const Ground = styled.div`
  position: relative;
  min-height: 0;
`;

const Cell = styled.div<{ $other: boolean; $weekend: boolean; $today: boolean; $over: boolean }>`
  position: absolute;
  inset-block: 0;
  width: calc(100% / 7);
  border-left: 1px solid var(--hair);
  background: ${(p) => (p.$over ? 'var(--hair)' : p.$weekend ? 'var(--shade)' : 'none')};
  color: ${(p) => (p.$other ? 'var(--faded)' : 'inherit')};
  font-size: 0.8rem;
  padding: 0.1rem 0.35rem;
  overflow: hidden;
  white-space: nowrap;
  &[data-cursor] {
    outline: 2px solid var(--focus);
    outline-offset: -2px;
  }
  b {
    font-weight: ${(p) => (p.$today ? 700 : 400)};
    box-shadow: ${(p) => (p.$today ? 'inset 0 -2px 0 var(--ink)' : 'none')};
  }
  small {
    color: var(--faded);
    margin-left: 0.35rem;
    font-size: 0.7rem;
  }
`;

const More = styled(AriaButton)`
  position: absolute;
  bottom: 1px;
  width: calc(100% / 7 - 6px);
  border: 0;
  background: none;
  text-align: left;
  font-size: 0.72rem;
  text-decoration: underline;
  cursor: pointer;
  padding: 0 0.35rem;
  line-height: 1.1rem;
  white-space: nowrap;
  overflow: hidden;
`;

const Card = styled(Popover)`
  background: var(--paper);
  border: 1px solid var(--ink);
  padding: 0.6rem;
  width: min(24rem, 92vw);
  max-height: 60vh;
  overflow: auto;
  h3 {
    margin-bottom: 0.4rem;
  }
`;

const Line = styled.button`
  display: flex;
  gap: 0.4rem;
  align-items: baseline;
  width: 100%;
  padding: 0.15rem 0.2rem;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
  font-size: 0.85rem;
  &:hover {
    background: var(--shade);
  }
  svg {
    width: 0.8rem;
    height: 0.8rem;
  }
`;

const TOP = 22;
const ROW = 20;

/** Weeks as rows, as on a wall calendar; what has no room stands behind “more”. */
export function Month(props: ViewProps & { month: number }) {
  const { range, today, notes, month, chosen, calendars } = props;
  const frame = useFrame(0);
  const [height, setHeight] = useState(100);
  const weeks = Array.from({ length: (range.to - range.from) / 7 }, (_, i) => range.from + i * 7);
  useEffect(() => {
    const el = frame.ref.current;
    if (!el) return;
    const observer = new ResizeObserver(() =>
      setHeight(el.querySelector<HTMLElement>('[data-week]')?.clientHeight ?? 100),
    );
    observer.observe(el);
    return () => observer.disconnect();
  }, [weeks.length, frame.ref]);
  const room = Math.max(1, Math.floor((height - TOP - 16) / ROW));

  const placeOn = (day: Day): Place => ({
    day: within(day, range.from, range.to - 1),
    minutes: null,
    calendarId: null,
  });
  const shell = useViewShell(frame, props, {
    heads: { left: 0, top: TOP },
    layout: null,
    placeAt: ({ screenX, screenY }) => {
      for (const el of frame.ref.current?.querySelectorAll<HTMLElement>('[data-week]') ?? []) {
        const box = el.getBoundingClientRect();
        if (screenY < box.top || screenY >= box.bottom) continue;
        const n = within(Math.floor(((screenX - box.left) / box.width) * 7), 0, 6);
        return placeOn(Number(el.dataset['week']) + n);
      }
      return null;
    },
    first: () => placeOn(today),
    step: (at, right, down) => placeOn(at.day + right + 7 * down),
    words: (at) => dayText(at.day),
  });
  const { cursor, ghost } = shell;

  return (
    <Box box={frame.ref} shell={shell} label={t('monthLabel', { month: monthText(range.from + 10) })}>
      <Names>
        <span />
        {WEEKDAY_NAMES.map((name) => (
          <span key={name}>{name.slice(0, 3)}</span>
        ))}
      </Names>
      {weeks.map((monday) => {
        const { drawn, more } = weekOf(calendars, props.items, monday, room);
        return (
          <WeekRow key={monday}>
            <WeekNumber aria-label={t('weekNumber', { week: isoWeekOf(monday) })}>
              {isoWeekOf(monday)}
            </WeekNumber>
            <Ground data-week={monday} onPointerDown={shell.onGround}>
              {Array.from({ length: 7 }, (_, i) => monday + i).map((day) => (
                <Cell
                  key={day}
                  style={{ left: `calc(100% / 7 * ${day - monday})` }}
                  $other={partsOfDay(day).month !== month}
                  $weekend={weekdayOf(day) > 4}
                  $today={day === today}
                  $over={ghost !== null && day >= ghost.first && day <= ghost.last}
                  title={notes
                    .get(day)
                    ?.map((n) => n.text)
                    .join(', ')}
                  {...(cursor?.day === day ? { 'data-cursor': '' } : {})}
                >
                  <b>{partsOfDay(day).date}</b>
                  {notes.get(day)?.map((n) => (
                    <small key={n.layer}>{n.short}</small>
                  ))}
                </Cell>
              ))}
              {drawn.map(({ item, calendar, from, to, row }) => (
                <Block
                  key={item.key}
                  item={item}
                  calendar={calendar}
                  zone={calendar.zone}
                  chosen={item.key === chosen}
                  lifted={shell.lifted === item.key}
                  style={{
                    left: `calc(100% / 7 * ${from} + 2px)`,
                    width: `calc(100% / 7 * ${to - from} - 4px)`,
                    top: TOP + row * ROW,
                    height: ROW - 2,
                  }}
                  tools={shell.tools}
                  stretches={item.allDay && item.one.content.kind === 'event'}
                >
                  {!item.allDay && <time>{timeText(item.start)} </time>}
                  <Marks item={item} />
                  <span className="what">{item.one.content.title || t('untitled')}</span>{' '}
                  {slipMark(item, calendar.zone)}
                </Block>
              ))}
              {more.map(([day, list]) => (
                <DayCard
                  key={day}
                  day={day}
                  monday={monday}
                  list={list}
                  onOpen={props.onOpen}
                  hidden={list.length - shownOn(drawn, day, monday)}
                />
              ))}
            </Ground>
          </WeekRow>
        );
      })}
    </Box>
  );
}

function DayCard({
  day,
  monday,
  list,
  hidden,
  onOpen,
}: {
  day: Day;
  monday: Day;
  list: readonly Placed[];
  hidden: number;
  onOpen: (item: DeskItem) => void;
}) {
  return (
    <DialogTrigger>
      <More
        style={{ left: `calc(100% / 7 * ${day - monday} + 3px)` }}
        aria-label={t('moreOnDay', { count: hidden, day: dayText(day) })}
      >
        +{hidden}
        <span> {t('moreWord')}</span>
      </More>
      <Card>
        <Dialog aria-label={t('everythingOn', { day: dayText(day) })}>
          <h3>{dayText(day)}</h3>
          {list.map(({ item, calendar }) => (
            <Line key={item.key} type="button" onClick={() => onOpen(item)}>
              <Plate {...calendar} />
              <time>{timeOf(item)}</time>
              <Marks item={item} />
              <span>{item.one.content.title || t('untitled')}</span>
            </Line>
          ))}
        </Dialog>
      </Card>
    </DialogTrigger>
  );
}
