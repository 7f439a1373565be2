import { offsetText, timeText, zoneText } from '@zonal/core/forms';
import {
  DAY,
  HOUR,
  MINUTE,
  instantOf,
  offsetAt,
  wallAt,
  weekdayOf,
  type Day,
  type ZoneName,
} from '@zonal/core/zones';
import { useEffect, useMemo, type CSSProperties } from 'react';
import styled from 'styled-components';
import { Block, Ghost } from './Block';
import { Marks, slipMark } from './marks';
import { SNAP, type GhostSpan } from './gestures';
import { useFrame } from './useFrame';
import type { Viewport } from './useViewport';
import { ViewBox, useViewShell, within } from './ViewShell';
import type { Place, ViewProps } from './viewTypes';
import { LEAST_DAY, ROW, rowsOf, type DayRow as Row, type DrawnInDay } from './weekLayout';
import { t } from '../../texts/inside';
import { dayText } from '../../texts/formWords';

const Box = styled(ViewBox)`
  --head: 8.5rem;
  @media (max-width: 44rem) {
    --head: 5.2rem;
  }
`;

const Ruler = styled.div`
  position: sticky;
  top: 0;
  z-index: 6;
  display: flex;
  width: fit-content;
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
`;

const Corner = styled.div`
  position: sticky;
  left: 0;
  z-index: 7;
  flex: none;
  width: var(--head);
  background: var(--sheet);
  font-size: 0.72rem;
  line-height: 20px;
  padding-left: 0.5rem;
  color: var(--faded);
  border-right: 1px solid var(--line);
  white-space: nowrap;
  overflow: hidden;
`;

const Hours = styled.div`
  position: relative;
  height: 20px;
  font-size: 0.72rem;
  line-height: 20px;
  font-variant-numeric: tabular-nums;
  span {
    position: absolute;
    padding-left: 3px;
    border-left: 1px solid var(--line);
  }
  &[data-second] {
    color: var(--faded);
    font-style: italic;
    border-top: 1px solid var(--hair);
  }
`;

const DayRow = styled.div`
  display: flex;
  width: fit-content;
  border-bottom: 1px solid var(--line);
`;

const Head = styled.div<{ $today: boolean; $weekend: boolean }>`
  position: sticky;
  left: 0;
  z-index: 5;
  flex: none;
  width: var(--head);
  padding: 0.3rem 0.5rem;
  font-size: 0.85rem;
  background: ${(p) => (p.$weekend ? 'var(--shade)' : 'var(--sheet)')};
  border-right: 1px solid var(--line);
  box-shadow: ${(p) => (p.$today ? 'inset 4px 0 0 var(--ink)' : 'none')};
  font-weight: ${(p) => (p.$today ? 700 : 400)};
  overflow: hidden;
  small {
    display: block;
    color: var(--faded);
    font-weight: 400;
    font-size: 0.74rem;
  }
`;

const Ground = styled.div<{ $hour: number }>`
  position: relative;
  flex: none;
  background-image: repeating-linear-gradient(
    90deg,
    var(--hair) 0 1px,
    transparent 1px ${(p) => p.$hour}px
  );
`;

/** Whole days stand apart from the hours, and stay in sight beside the day's name. */
const Band = styled.div`
  position: absolute;
  inset: 0 0 auto 0;
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
  > div {
    position: sticky;
    left: var(--head);
    height: 100%;
    background: color-mix(in srgb, var(--shade) 55%, var(--sheet));
  }
`;

const Now = styled.div`
  position: absolute;
  inset-block: 0;
  width: 0;
  border-left: 2px solid var(--ink);
  pointer-events: none;
  z-index: 0;
`;

const Shown = styled.div`
  position: absolute;
  width: 2px;
  inset-block: 0;
  background: var(--warn);
  pointer-events: none;
`;

interface WeekProps extends ViewProps {
  /** The zone of the ruler. */
  zone: ZoneName;
  /** A second zone below it, or empty. */
  secondZone: ZoneName | '';
  now: number;
}

/** Days as rows under a ruler of hours, so that titles have room to be read; a second ruler tells another zone's hours. */
export function Week(props: WeekProps) {
  const { calendars, items, range, today, chosen, notes, zone, secondZone, now } = props;
  const frame = useFrame(136);
  const { viewport, headWidth } = frame;
  useEffect(() => {
    // Most of what is planned happens by day.
    const el = frame.ref.current;
    if (el?.scrollLeft === 0) el.scrollTo({ left: el.scrollWidth > el.clientWidth ? 6.5 * 34 : 0 });
  }, [viewport.width, frame.ref]);
  const hour = Math.max(34, Math.floor((viewport.width - headWidth - 4) / 24));
  const rulers = secondZone ? 40 : 20;
  const room = Math.min(24 * hour, Math.max(160, viewport.width - headWidth));
  const rows = useMemo(
    () => rowsOf(calendars, items, range, hour, room),
    [calendars, items, range, hour, room],
  );
  const clockRow = wallAt(zone, now);

  const placeOn = (day: Day, minutes: number): Place => ({
    day: within(day, range.from, range.to - 1),
    minutes: within(minutes, 0, 1440 - SNAP),
    calendarId: null,
  });
  const shell = useViewShell(frame, props, {
    heads: { left: headWidth, top: rulers },
    layout: rows,
    placeAt: ({ x, y }) => {
      const row = rows.find((r) => y - rulers < r.top + r.height) ?? rows.at(-1);
      return row ? placeOn(row.day, Math.floor((((x - headWidth) / hour) * 60) / SNAP) * SNAP) : null;
    },
    first: () => placeOn(today, 9 * 60),
    step: (at, right, down) => placeOn(at.day + down, at.minutes! + right * SNAP),
    until: (at) => placeOn(at.day, at.minutes! + 45),
    words: (at) => `${dayText(at.day)}, ${timeText(at.minutes! * MINUTE)}`,
    boxOfPlace: (at) => ({
      left: headWidth + (at.minutes! / 60) * hour,
      width: hour,
      top: rulers + (rows.find((r) => r.day === at.day)?.top ?? 0),
      height: LEAST_DAY,
    }),
    boxOfItem: (key) => {
      for (const row of rows) {
        const found = row.drawn.find((d) => d.item.key === key);
        if (found)
          return {
            left: headWidth + found.left,
            width: found.width,
            top: rulers + row.top + found.top,
            height: ROW,
          };
      }
      return null;
    },
  });
  const { cursor, ghost } = shell;

  const dayBlock = (d: DrawnInDay, day: Day) => (
    <Block
      key={`${d.item.key}@${day}`}
      item={d.item}
      calendar={d.calendar}
      zone={d.calendar.zone}
      chosen={d.item.key === chosen}
      lifted={shell.lifted === d.item.key}
      style={{ left: d.left, width: d.width, top: d.top, height: ROW - 3 }}
      box={d.box}
      tools={shell.tools}
      stretches={!d.item.allDay && d.item.one.content.kind === 'event' && d.item.end > d.item.start}
    >
      <span className={d.box ? 'words' : ''} style={wordsAt(d)}>
        <strong>{d.calendar.plate}</strong> {d.box && <time>{timeText(d.item.start)} </time>}
        <Marks item={d.item} />
        <span className="what">{d.item.one.content.title || t('untitled')}</span> {slipMark(d.item, zone)}
      </span>
    </Block>
  );

  return (
    <Box box={frame.ref} shell={shell} label={t('weekLabel')}>
      <Ruler style={{ height: rulers }}>
        <Corner data-corner="">
          <div title={zone}>{place(zone)}</div>
          {secondZone && <div title={secondZone}>{place(secondZone)}</div>}
        </Corner>
        <div style={{ width: 24 * hour }}>
          <Hours aria-label={t('hoursIn', { zone: zoneText(zone) })}>
            {HOURS.map((h) => (
              <span key={h} style={{ left: h * hour }}>
                {hour < 46 ? h : `${String(h).padStart(2, '0')}:00`}
              </span>
            ))}
          </Hours>
          {secondZone && (
            <Hours data-second="" aria-label={t('sameHoursIn', { zone: zoneText(secondZone) })}>
              {HOURS.map((h) => (
                <span key={h} style={{ left: h * hour }}>
                  {shownIn(secondZone, zone, range.from, h, hour)}
                </span>
              ))}
            </Hours>
          )}
        </div>
      </Ruler>
      {rows.map((row) => (
        <DayRow key={row.day} style={{ height: row.height }}>
          <Head $today={row.day === today} $weekend={weekdayOf(row.day) > 4}>
            {dayText(row.day).replace(/ \d{4}$/, '')}
            {notes.get(row.day)?.map((n) => (
              <small key={n.layer}>{n.text}</small>
            ))}
            {secondZone && <Distance zone={zone} other={secondZone} day={row.day} first={range.from} />}
          </Head>
          <Ground $hour={hour} style={{ width: 24 * hour }} onPointerDown={shell.onGround}>
            {clockJumps(zone, row.day).map((at) => (
              <Shown key={at} style={{ left: (at / HOUR) * hour }} title={t('clocksChangeHere')} />
            ))}
            {Math.floor(clockRow / DAY) === row.day && (
              <Now style={{ left: ((clockRow - row.day * DAY) / HOUR) * hour }} />
            )}
            {cursor?.day === row.day && (
              <Ghost
                style={{
                  left: (cursor.minutes! / 60) * hour,
                  width: hour,
                  top: row.band + 2,
                  height: ROW,
                }}
              />
            )}
            {inSight(row, viewport)
              .filter((d) => d.box)
              .map((d) => dayBlock(d, row.day))}
            {row.band > 0 && (
              <Band style={{ height: row.band }}>
                <div style={{ width: room }}>
                  {inSight(row, viewport)
                    .filter((d) => !d.box)
                    .map((d) => dayBlock(d, row.day))}
                </div>
              </Band>
            )}
            {ghost && <DayGhost ghost={ghost} row={row} hour={hour} />}
          </Ground>
        </DayRow>
      ))}
    </Box>
  );
}

const HOURS = Array.from({ length: 24 }, (_, h) => h);
const place = (zone: ZoneName) => zoneText(zone).split('/').at(-1)!;

/** Where the words of a block stand, in pixels from its left or its right. */
function wordsAt({ box, words, width }: DrawnInDay): CSSProperties {
  if (!box) return {};
  if (words === 'inside') return { left: box.left + 8, right: width - box.left - box.width + 4 };
  if (words === 'after') return { left: box.left + box.width + 4, right: 0 };
  return { left: 0, right: width - box.left + 4, textAlign: 'right' };
}

/** Says by how much another zone is ahead on a day on which that is not as at the start of the week. */
function Distance({ zone, other, day, first }: { zone: ZoneName; other: ZoneName; day: Day; first: Day }) {
  const at = (d: Day) => instantOf(zone, d * DAY + 12 * HOUR);
  const distance = (d: Day) => offsetAt(other, at(d)) - offsetAt(zone, at(d));
  if (distance(day) === distance(first)) return null;
  return (
    <small>
      {t('hoursFromHere', {
        zone: place(other),
        hours: offsetText(distance(day)).replace('UTC', '') || '0:00',
      })}
    </small>
  );
}

function shownIn(other: ZoneName, zone: ZoneName, day: Day, h: number, hour: number): string {
  const text = timeText(wallAt(other, instantOf(zone, day * DAY + h * HOUR)));
  return hour < 46 && text.endsWith(':00') ? String(Number(text.slice(0, 2))) : text;
}

/** Times of a day at which the clocks of a zone change, in milliseconds after midnight. */
function clockJumps(zone: ZoneName, day: Day): number[] {
  const [from, to] = [instantOf(zone, day * DAY), instantOf(zone, (day + 1) * DAY)];
  if (to - from === DAY) return [];
  for (let at = from; at < to; at += 15 * MINUTE) {
    if (offsetAt(zone, at + 15 * MINUTE) !== offsetAt(zone, at))
      return [at + 15 * MINUTE + offsetAt(zone, at) - day * DAY];
  }
  return [];
}

/** What of a day's row is near what is in sight. */
function inSight(row: Row, { top, bottom }: Viewport): readonly DrawnInDay[] {
  return row.drawn.filter((d) => row.top + d.top < bottom && row.top + d.top > top - 40);
}

/** Where a dragged or drawn entry would stand on a day. */
function DayGhost({ ghost, row, hour }: { ghost: GhostSpan; row: Row; hour: number }) {
  const { day, band } = row;
  const [from, to] = [Math.max(ghost.start, day * DAY), Math.min(ghost.end, (day + 1) * DAY)];
  if (to < from || (to === from && ghost.end > ghost.start)) return null;
  const left = ghost.allDay ? 2 : ((from - day * DAY) / HOUR) * hour;
  const width = ghost.allDay ? 24 * hour - 4 : Math.max(12, ((to - from) / HOUR) * hour);
  return (
    <Ghost style={{ left, width, top: (ghost.allDay ? 0 : band) + 2, height: ROW }}>
      {ghost.allDay ? dayText(day) : ghost.words}
    </Ghost>
  );
}
