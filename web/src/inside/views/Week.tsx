import { offsetText, timeText, dayText, zoneText } from '@zonal/core/forms';
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
import { useEffect, useMemo, useRef, useState, type CSSProperties, type KeyboardEvent } from 'react';
import styled from 'styled-components';
import { Block, Ghost } from './Block';
import { Marks, slipMark } from './marks';
import { isPut } from './keys';
import { usePointerEdit } from './usePointerEdit';
import { useViewport } from './useViewport';
import type { Drag, Place, ViewProps } from './viewTypes';
import { ROW, rowsOf, type DrawnInDay } from './weekLayout';

const Frame = styled.div`
  --head: 8.5rem;
  position: relative;
  overflow: auto;
  border: 1px solid var(--line);
  background: var(--sheet);
  height: max(22rem, calc(100dvh - var(--above)));
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
  const frame = useRef<HTMLDivElement>(null);
  const viewport = useViewport(frame);
  const [headWidth, setHeadWidth] = useState(136);
  useEffect(() => {
    const corner = frame.current?.querySelector<HTMLElement>('[data-corner]');
    if (corner) setHeadWidth(corner.offsetWidth);
    // Most of what is planned happens by day.
    if (frame.current && frame.current.scrollLeft === 0) {
      frame.current.scrollLeft = frame.current.scrollWidth > frame.current.clientWidth ? 6.5 * 34 : 0;
    }
  }, [viewport.width]);
  const hour = Math.max(34, Math.floor((viewport.width - headWidth - 4) / 24));
  const rulers = secondZone ? 40 : 20;
  const rows = useMemo(() => rowsOf(calendars, items, range, hour), [calendars, items, range, hour]);
  const clockRow = wallAt(zone, now);
  const [cursor, setCursor] = useState<{ day: Day; minutes: number } | null>(null);

  const locate = (x: number, y: number): Place | null => {
    const el = frame.current;
    if (!el) return null;
    const box = el.getBoundingClientRect();
    const inX = x - box.left - headWidth + el.scrollLeft;
    const inY = y - box.top + el.scrollTop - rulers;
    const n = rows.findIndex((r) => inY < r.top + r.height);
    const row = rows[n < 0 ? rows.length - 1 : n];
    if (!row) return null;
    const minutes = Math.min(1440 - SNAP, Math.max(0, Math.floor(((inX / hour) * 60) / SNAP) * SNAP));
    return { day: row.day, minutes, calendarId: null };
  };
  const { gesture, hold, wasGesture } = usePointerEdit(locate, props.onGesture);

  const onKey = (event: KeyboardEvent) => {
    if (event.target !== frame.current || event.altKey) return;
    const at = cursor ?? { day: Math.min(range.to - 1, Math.max(range.from, today)), minutes: 9 * 60 };
    const steps: Record<string, [number, number]> = {
      ArrowLeft: [0, -SNAP],
      ArrowRight: [0, SNAP],
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
    };
    const step = steps[event.key];
    if (step) {
      event.preventDefault();
      const day = Math.min(range.to - 1, Math.max(range.from, at.day + (cursor ? step[0] : 0)));
      setCursor({ day, minutes: Math.min(1440 - SNAP, Math.max(0, at.minutes + (cursor ? step[1] : 0))) });
    } else if (cursor && isPut(event)) {
      event.preventDefault();
      const from = { ...cursor, calendarId: null };
      if (event.key !== 'Enter') return props.onGesture({ kind: 'paste', at: from });
      props.onGesture({
        kind: 'draw',
        from,
        to: { ...from, minutes: Math.min(1440 - SNAP, from.minutes + 45) },
      });
    }
  };

  useEffect(() => {
    const el = frame.current;
    if (!chosen || !el || el.querySelector(`[data-key="${CSS.escape(chosen)}"]`)) return;
    for (const row of rows) {
      const found = row.drawn.find((d) => d.item.key === chosen);
      if (found) el.scrollTop = row.top + found.top - el.clientHeight / 2;
    }
  }, [chosen, rows]);

  return (
    <>
      <Frame
        ref={frame}
        tabIndex={0}
        role="region"
        aria-label="Week: days as rows, hours as columns. Arrow keys choose a time, Enter writes an entry there."
        onKeyDown={onKey}
        onBlur={(e) => e.target === frame.current && setCursor(null)}
      >
        <Ruler style={{ height: rulers }}>
          <Corner data-corner="">
            <div title={zone}>{place(zone)}</div>
            {secondZone && <div title={secondZone}>{place(secondZone)}</div>}
          </Corner>
          <div style={{ width: 24 * hour }}>
            <Hours aria-label={`Hours in ${zoneText(zone)}`}>
              {HOURS.map((h) => (
                <span key={h} style={{ left: h * hour }}>
                  {hour < 46 ? h : `${String(h).padStart(2, '0')}:00`}
                </span>
              ))}
            </Hours>
            {secondZone && (
              <Hours data-second="" aria-label={`The same hours in ${zoneText(secondZone)}`}>
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
            <Ground $hour={hour} style={{ width: 24 * hour }} onPointerDown={hold({ kind: 'draw' })}>
              {clockJumps(zone, row.day).map((at) => (
                <Shown key={at} style={{ left: (at / HOUR) * hour }} title="The clocks change here" />
              ))}
              {Math.floor(clockRow / DAY) === row.day && (
                <Now style={{ left: ((clockRow - row.day * DAY) / HOUR) * hour }} />
              )}
              {cursor?.day === row.day && (
                <Ghost style={{ left: (cursor.minutes / 60) * hour, width: hour, top: 2, height: ROW }} />
              )}
              {row.drawn
                .filter((d) => row.top + d.top < viewport.bottom && row.top + d.top > viewport.top - 40)
                .map((d) => (
                  <Block
                    key={`${d.item.key}@${row.day}`}
                    item={d.item}
                    calendar={d.calendar}
                    zone={d.calendar.zone}
                    chosen={d.item.key === chosen}
                    lifted={gesture !== null && gesture.kind !== 'draw' && gesture.item.key === d.item.key}
                    style={{ left: d.left, width: d.width, top: d.top, height: ROW - 3 }}
                    box={d.box}
                    onOpen={props.onOpen}
                    onChoose={props.onChoose}
                    wasGesture={wasGesture}
                    onHold={(kind) => hold({ kind, item: d.item })}
                    stretches={
                      !d.item.allDay && d.item.one.content.kind === 'event' && d.item.end > d.item.start
                    }
                  >
                    <span className={d.box ? 'words' : ''} style={wordsAt(d)}>
                      <strong>{d.calendar.plate}</strong>{' '}
                      <time>{d.item.allDay ? 'all day' : timeText(d.item.start)} </time>
                      <Marks item={d.item} />
                      <span className="what">{d.item.one.content.title || 'Untitled'}</span>{' '}
                      {slipMark(d.item, zone)}
                    </span>
                  </Block>
                ))}
              {gesture && ghostOf(gesture, row.day, hour)}
            </Ground>
          </DayRow>
        ))}
      </Frame>
      <span role="status" className="unseen">
        {cursor && `${dayText(cursor.day)}, ${timeText(cursor.minutes * MINUTE)}`}
      </span>
    </>
  );
}

const SNAP = 15;
const HOURS = Array.from({ length: 24 }, (_, h) => h);
const place = (zone: ZoneName) => zoneText(zone).split('/').at(-1);

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
      {place(other)} is {offsetText(distance(day)).replace('UTC', '') || '0:00'} h from here today
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

function ghostOf(gesture: Drag, day: Day, hour: number) {
  const x = (minutes: number | null) => ((minutes ?? 0) / 60) * hour;
  const { from, to } = gesture;
  if (gesture.kind === 'draw') {
    if (to.day !== day || from.day !== day) {
      const [first, last] = [Math.min(from.day, to.day), Math.max(from.day, to.day)];
      if (day < first || day > last) return null;
      return <Ghost style={{ left: 2, width: 24 * hour - 4, top: 2, height: ROW }}>{dayText(day)}</Ghost>;
    }
    const [a, b] = [Math.min(from.minutes!, to.minutes!), Math.max(from.minutes!, to.minutes!) + SNAP];
    return (
      <Ghost style={{ left: x(a), width: x(b) - x(a), top: 2, height: ROW }}>
        {timeText(a * MINUTE)}–{timeText(b * MINUTE)}
      </Ghost>
    );
  }
  if (to.day !== day) return null;
  const { item } = gesture;
  const by = (to.minutes! - from.minutes!) * MINUTE;
  const start = (item.start % DAY) + (gesture.kind === 'end' || item.allDay ? 0 : by);
  const length = item.end - item.start + (gesture.kind === 'end' ? by : gesture.kind === 'start' ? -by : 0);
  const left = item.allDay ? 2 : (start / HOUR) * hour;
  const width = item.allDay ? 24 * hour - 4 : Math.max(12, (length / HOUR) * hour);
  return (
    <Ghost style={{ left, width, top: 2, height: ROW }}>
      {item.allDay ? dayText(day) : `${timeText(start)}–${timeText(start + Math.max(0, length))}`}
      {gesture.kind === 'move' && gesture.copy ? ', a copy' : ''}
    </Ghost>
  );
}
