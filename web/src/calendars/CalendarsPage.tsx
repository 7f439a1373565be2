import { dayText, zoneWithOffset } from '@zonal/core/forms';
import { dayFromText, dayOfWall, dayToText, wallAt, type Day } from '@zonal/core/zones';
import { CalendarPlus, ChevronLeft, ChevronRight, FileInput, Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
import { ToggleButton } from 'react-aria-components';
import styled from 'styled-components';
import { problemOf, useCalendarsQuery, useWindowsQuery } from '../api/zonalApi';
import type { Calendar } from '../api/types';
import { useAppDispatch, useAppSelector } from '../store';
import { Button, MainButton, QuietButton } from '../ui/Button';
import { ChoiceStrip } from '../ui/Choice';
import { Row, Stack } from '../ui/layout';
import { Empty, Loading, Notice } from '../ui/Notice';
import { Plate } from '../ui/Plate';
import { useNow } from '../ui/useNow';
import { CalendarSheet } from './CalendarSheet';
import { itemsOf, mondayOf, type DeskItem } from './deskDays';
import { WEEKS, calendarSwitched, viewChosen, weeksChosen, wentTo, type Weeks } from './deskSlice';
import { EntryEditor, type Editing } from './EntryEditor';
import { EntryList } from './EntryList';
import { ImportSheet } from './ImportSheet';
import { Lanes } from './Lanes';
import { QuickLine } from './QuickLine';
import { useEntries } from './useEntries';

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 0.6rem 1.2rem;
`;

const Switch = styled(ToggleButton)`
  display: inline-flex;
  align-items: center;
  padding: 0.15rem;
  border: 0;
  border-bottom: 3px solid var(--ink);
  background: none;
  cursor: pointer;
  opacity: 1;
  &:not([data-selected]) {
    opacity: 0.45;
    border-color: transparent;
  }
`;

export function CalendarsPage() {
  const { data: calendars, error, isLoading } = useCalendarsQuery();
  if (isLoading) return <Loading what="Fetching calendars" />;
  if (error || !calendars) return <Notice>{problemOf(error)?.message}</Notice>;
  return <Desk calendars={calendars} />;
}

type Work =
  | { readonly kind: 'entry'; readonly editing: Editing }
  | { readonly kind: 'calendar'; readonly calendar: Calendar | null }
  | { readonly kind: 'import' };

function Desk({ calendars }: { calendars: readonly Calendar[] }) {
  const dispatch = useAppDispatch();
  const desk = useAppSelector((state) => state.desk);
  const { data: windows } = useWindowsQuery();
  const [work, setWork] = useState<Work | null>(null);
  const home = calendars[0]?.zone ?? 'UTC';
  const now = useNow();
  const thisMonday = mondayOf(now, home);
  const from = desk.from ? dayFromText(desk.from) : thisMonday;
  const to = from + desk.weeks * 7;
  const shown = calendars.filter((c) => !desk.hidden.includes(c.id));
  const { entries, loading, problem } = useEntries(shown, from, to);
  const items = useMemo(
    () => new Map(shown.map((c) => [c.id, itemsOf(entries.get(c.id) ?? [], from, to, c.zone)])),
    [shown, entries, from, to],
  );
  const go = (day: Day) => dispatch(wentTo(dayToText(day)));
  const open = (item: DeskItem) => setWork({ kind: 'entry', editing: { entry: item.entry, date: item.one } });
  const add = (calendar: Calendar, day: Day) =>
    setWork({ kind: 'entry', editing: { calendarId: calendar.id, day } });
  const done = () => setWork(null);

  return (
    <Stack>
      <Bar>
        <Row>
          <h1>Calendars</h1>
          <QuietButton aria-label="Earlier" onPress={() => go(from - desk.weeks * 7)}>
            <ChevronLeft aria-hidden="true" />
          </QuietButton>
          <Button onPress={() => go(thisMonday)}>This week</Button>
          <QuietButton aria-label="Later" onPress={() => go(to)}>
            <ChevronRight aria-hidden="true" />
          </QuietButton>
          <span>
            {dayText(from)} to {dayText(to - 1)}
          </span>
        </Row>
        <Row>
          <ChoiceStrip
            label="View"
            hideLabel
            value={desk.view}
            options={[
              { value: 'lanes', text: 'Lanes' },
              { value: 'list', text: 'List' },
            ]}
            onChange={(view) => dispatch(viewChosen(view))}
          />
          <ChoiceStrip
            label="Weeks shown"
            hideLabel
            value={String(desk.weeks)}
            options={WEEKS.map((w) => ({ value: String(w), text: w === 1 ? '1 week' : `${w} weeks` }))}
            onChange={(w) => dispatch(weeksChosen(Number(w) as Weeks))}
          />
        </Row>
      </Bar>
      <Bar>
        <Row role="group" aria-label="Calendars shown">
          {calendars.map((c) => (
            <Switch
              key={c.id}
              aria-label={`Show ${c.name}`}
              isSelected={!desk.hidden.includes(c.id)}
              onChange={() => dispatch(calendarSwitched(c.id))}
            >
              <Plate plate={c.plate} colour={c.colour} />
            </Switch>
          ))}
          <QuietButton onPress={() => setWork({ kind: 'calendar', calendar: null })}>
            <CalendarPlus aria-hidden="true" /> New calendar
          </QuietButton>
        </Row>
        <Row>
          <Button isDisabled={!calendars.length} onPress={() => setWork({ kind: 'import' })}>
            <FileInput aria-hidden="true" /> Bring in a file
          </Button>
          <MainButton
            isDisabled={!shown.length}
            onPress={() =>
              shown[0] &&
              add(
                shown[0],
                from <= thisMonday && thisMonday < to ? dayOfWall(wallAt(shown[0].zone, now)) : from,
              )
            }
          >
            <Plus aria-hidden="true" /> Write an entry
          </MainButton>
        </Row>
      </Bar>
      {shown.length > 0 && <QuickLine calendars={shown} />}
      {problem && <Notice>{problem.message}</Notice>}
      {!calendars.length && (
        <Empty>
          <p>There are no calendars yet. Make the first one, then write entries or bring in a file.</p>
          <MainButton onPress={() => setWork({ kind: 'calendar', calendar: null })}>New calendar</MainButton>
        </Empty>
      )}
      {calendars.length > 0 && !shown.length && (
        <Empty>All calendars are switched off. Switch one on above.</Empty>
      )}
      {loading && <Loading what="Fetching entries" />}
      {shown.length > 0 && desk.view === 'lanes' && (
        <Lanes
          calendars={shown}
          items={items}
          windows={windows ?? []}
          from={from}
          to={to}
          onOpen={open}
          onAdd={add}
          onCalendar={(calendar) => setWork({ kind: 'calendar', calendar })}
        />
      )}
      {shown.length > 0 && desk.view === 'list' && !loading && (
        <EntryList
          calendars={shown}
          items={[...items.values()].flat().sort((a, b) => a.firstDay - b.firstDay || a.start - b.start)}
          onOpen={open}
        />
      )}
      {shown.length > 0 && (
        <small>
          Times are on the clocks of each calendar:{' '}
          {[...new Set(shown.map((c) => zoneWithOffset(c.zone, now)))].join(', ')}.
        </small>
      )}
      {work?.kind === 'entry' && <EntryEditor calendars={calendars} editing={work.editing} onClose={done} />}
      {work?.kind === 'calendar' && <CalendarSheet calendar={work.calendar} onClose={done} />}
      {work?.kind === 'import' && <ImportSheet calendars={calendars} onClose={done} />}
    </Stack>
  );
}
