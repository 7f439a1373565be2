import { finder, type FindIn } from '@zonal/core/entries';
import { zoneWithOffset } from '@zonal/core/forms';
import { may } from '@zonal/core/rights';
import { dayFromText, dayToText, partsOfDay, type Day, dayAt } from '@zonal/core/zones';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { problemOf, useCalendarsQuery, useHouseQuery, useWindowsQuery } from '../api/zonalApi';
import type { Calendar } from '@zonal/core/api';
import { useEdits } from './useEdits';
import { useAppDispatch, useAppSelector } from '../store';
import { MainButton } from '../ui/Button';
import { Stack } from '../ui/layout';
import { Empty, Loading, Notice } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { useNow } from '../ui/useNow';
import { CalendarSheet } from './CalendarSheet';
import { ClocksRow } from './ClocksRow';
import { itemsOf, itemsWhere, keyOf, rangeOf, stepOf, type DeskItem } from './deskDays';
import { calendarSwitched, deskSet, layerSwitched, type Desk as DeskState } from './deskSlice';
import { DeskBar } from './DeskBar';
import { EntryEditor } from './EntryEditor';
import { EntryGlance } from './EntryGlance';
import type { Editing } from './entryDraft';
import type { EntryForm } from './entryForm';
import { ExportSheet } from './ExportSheet';
import { FindField } from './FindField';
import { ImportSheet } from './import/ImportSheet';
import { PlateBar } from './PlateBar';
import { QuickLine } from './QuickLine';
import { useDayNotes } from './readymade';
import { ScopeSheet } from './ScopeSheet';
import { useDeskEdits } from './useDeskEdits';
import { useEntries } from './useEntries';
import { Columns } from './views/Columns';
import { isTyping } from './views/keys';
import { Lanes } from './views/Lanes';
import { List } from './views/List';
import { Month } from './views/Month';
import type { ViewProps } from './views/viewTypes';
import { Week } from './views/Week';

/** The height of what stands above and below the views is known, so that they fill the rest. */
const Views = styled.div<{ $above: number }>`
  --above: ${(p) => p.$above}rem;
  min-width: 0;
`;

const Foot = styled.small`
  display: flex;
  justify-content: space-between;
  gap: 0.2rem 1.5rem;
  flex-wrap: wrap;
  strong {
    max-width: 60ch;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

export function CalendarsPage() {
  const { data: calendars, error, isLoading } = useCalendarsQuery();
  if (isLoading) return <Loading what="Fetching calendars" />;
  if (error || !calendars) return <ProblemNotice problem={problemOf(error)} />;
  return <Desk calendars={calendars} />;
}

type Work =
  | { readonly kind: 'entry'; readonly editing: Editing }
  | { readonly kind: 'calendar'; readonly calendar: Calendar | null }
  | { readonly kind: 'import' | 'export' };

function Desk({ calendars: all }: { calendars: readonly Calendar[] }) {
  const dispatch = useAppDispatch();
  const desk = useAppSelector((state) => state.desk);
  const set = useCallback((part: Partial<DeskState>) => void dispatch(deskSet(part)), [dispatch]);
  const { data: windows } = useWindowsQuery();
  const { data: house } = useHouseQuery();
  const [work, setWork] = useState<Work | null>(null);
  const [tools, setTools] = useState(false);
  const edits = useEdits();
  const now = useNow();

  const calendars = useMemo(() => all.filter((c) => !c.archivedAt && c.onDesk), [all]);
  const shown = useMemo(() => calendars.filter((c) => !desk.hidden.includes(c.id)), [calendars, desk.hidden]);
  const writable = useMemo(() => calendars.filter((c) => may('write', c.who)), [calendars]);
  const toWrite = shown.filter((c) => may('write', c.who));
  const home = desk.readAs || (house?.name ? house.zone : (calendars[0]?.zone ?? 'UTC'));
  const today = dayAt(home, now);
  const day = desk.from ? dayFromText(desk.from) : today;
  const { from, to } = rangeOf(desk.view, day, desk.weeks);
  const { entries, loading, stale, problem } = useEntries(shown, from, to);
  const items = useMemo(() => {
    const own = (c: Calendar) =>
      itemsOf(entries.get(c.id) ?? [], { from, to }, desk.readAs || c.zone, c.zone);
    return itemsWhere(new Map(shown.map((c) => [c.id, own(c)])), finder(desk.find));
  }, [shown, entries, from, to, desk.readAs, desk.find]);
  const ordered = useMemo(
    () => [...items.values()].flat().sort((a, b) => a.firstDay - b.firstDay || a.start - b.start),
    [items],
  );
  const spot = shown.find((c) => c.latitude !== null && c.longitude !== null);
  const notes = useDayNotes({
    layers: desk.layers,
    from,
    to,
    zone: home,
    country: house?.country ?? '',
    region: house?.region ?? '',
    spot: spot ? { latitude: spot.latitude!, longitude: spot.longitude! } : null,
  });

  const go = useCallback((to: Day) => set({ from: dayToText(to) }), [set]);
  const choose = useCallback((chosen: string) => set({ chosen }), [set]);
  const find = useCallback((query: { text: string; in: FindIn }) => set({ find: query }), [set]);
  const open = useCallback((item: DeskItem) => {
    setWork({ kind: 'entry', editing: { entry: item.entry, date: item.one } });
  }, []);
  const write = (calendarId: string, on: Day, form?: Partial<EntryForm>) =>
    setWork({ kind: 'entry', editing: { calendarId, day: on, ...(form ? { form } : {}) } });
  const deskEdits = useDeskEdits({
    calendars: shown,
    items: ordered,
    edits,
    busy: edits.busy || stale,
    onWrite: write,
    onOpen: open,
    onChoose: choose,
  });
  useUndoKeys(edits.undo, edits.redo, work === null && deskEdits.waiting === null);

  /** In another view the same days stay in sight; what is chosen goes before the first day. */
  const showView = (view: DeskState['view']) => {
    const chosen = ordered.find((i) => i.key === desk.chosen);
    const next = rangeOf(view, day, desk.weeks);
    const lost = chosen && (chosen.firstDay < next.from || chosen.firstDay >= next.to);
    set({ view, ...(lost ? { from: dayToText(chosen.firstDay) } : {}) });
  };

  const view: ViewProps = {
    calendars: shown,
    items,
    range: { from, to },
    today,
    chosen: desk.chosen,
    notes,
    onChoose: choose,
    onOpen: open,
    onGesture: deskEdits.onGesture,
  };
  const beside = desk.sideBySide && (desk.view === 'week' || desk.view === 'month');

  const glanced = work?.kind === 'entry' ? glanceOf(work.editing, all) : null;

  return (
    <Stack style={{ gap: '0.6rem' }}>
      <DeskBar
        desk={desk}
        range={{ from, to }}
        day={day}
        set={set}
        onGo={go}
        onStep={(way) => go(stepOf(desk.view, day, desk.weeks, way))}
        onToday={() => set({ from: '' })}
        onView={showView}
        edits={edits}
      />
      <PlateBar
        calendars={calendars}
        archived={all.filter((c) => c.archivedAt)}
        hidden={desk.hidden}
        onSwitch={(id) => void dispatch(calendarSwitched(id))}
        onCalendar={(calendar) => setWork({ kind: 'calendar', calendar })}
        onImport={() => setWork({ kind: 'import' })}
        onExport={() => setWork({ kind: 'export' })}
        onWrite={() => toWrite[0] && write(toWrite[0].id, today >= from && today < to ? today : from)}
        canWrite={toWrite.length > 0}
        canImport={writable.length > 0}
        tools={tools}
        onTools={setTools}
        fields={
          shown.length > 0 && (
            <>
              {toWrite.length > 0 ? (
                <QuickLine calendars={toWrite} edits={edits} onWritten={(e) => choose(keyOf(e))} />
              ) : (
                <span />
              )}
              <FindField query={desk.find} onChange={find} here={ordered.length} onGo={go} />
            </>
          )
        }
      />
      {desk.clocksOpen && (
        <ClocksRow
          desk={desk}
          set={set}
          onLayer={(layer) => void dispatch(layerSwitched(layer))}
          home={home}
          house={house}
          spotName={spot ? spot.place || spot.name : null}
          now={now}
        />
      )}
      {problem && <ProblemNotice problem={problem} />}
      {(deskEdits.refused || edits.problem) && <Notice>{deskEdits.refused || edits.problem?.message}</Notice>}
      {!calendars.length && (
        <Empty>
          <p>
            {all.length
              ? 'No calendar is on your desk. The directory has those of the house; or make one of your own.'
              : 'There are no calendars yet. Make the first one, then write entries or bring in a file.'}
          </p>
          <MainButton onPress={() => setWork({ kind: 'calendar', calendar: null })}>New calendar</MainButton>
          <Link to="/calendars/directory">Look what there is in the house</Link>
          <Link to="/first-day">Be led through a first day, step by step</Link>
        </Empty>
      )}
      {calendars.length > 0 && !shown.length && (
        <Empty>All calendars are switched off. Switch one on above.</Empty>
      )}
      {shown.length > 0 && (
        <Views $above={desk.clocksOpen ? 21 : 12.2} onKeyDown={deskEdits.onKeyDown} aria-busy={loading}>
          {beside && <Columns {...view} />}
          {desk.view === 'lanes' && (
            <Lanes
              {...view}
              windows={windows ?? []}
              onCalendar={(calendar) => setWork({ kind: 'calendar', calendar })}
            />
          )}
          {desk.view === 'week' && !beside && (
            <Week {...view} zone={home} secondZone={desk.secondZone} now={now} />
          )}
          {desk.view === 'month' && !beside && <Month {...view} month={partsOfDay(day).month} />}
          {desk.view === 'list' && (loading ? <Loading what="Fetching entries" /> : <List {...view} />)}
        </Views>
      )}
      <Foot>
        {shown.length > 0 && (
          <span role="status">
            {loading ? 'Fetching entries … ' : `${ordered.length} entries. `}
            {desk.readAs
              ? `Everything is shown as clocks in ${zoneWithOffset(desk.readAs, now)} show it.`
              : `Times are on the clocks of each calendar: ${[...new Set(shown.map((c) => zoneWithOffset(c.zone, now)))].join(', ')}.`}
          </span>
        )}
        <strong role="status" title={edits.said}>
          {edits.said}
        </strong>
      </Foot>
      {glanced && <EntryGlance {...glanced} onClose={() => setWork(null)} />}
      {work?.kind === 'entry' && !glanced && (
        <EntryEditor
          calendars={writable}
          editing={work.editing}
          edits={edits}
          readers={[desk.secondZone, desk.readAs].filter((z) => z !== '')}
          onClose={() => setWork(null)}
        />
      )}
      {work?.kind === 'calendar' && (
        <CalendarSheet calendar={work.calendar} calendars={all} onClose={() => setWork(null)} />
      )}
      {work?.kind === 'import' && <ImportSheet calendars={writable} onClose={() => setWork(null)} />}
      {work?.kind === 'export' && (
        <ExportSheet calendars={calendars} items={ordered} onClose={() => setWork(null)} />
      )}
      {deskEdits.waiting && (
        <ScopeSheet
          what={deskEdits.waiting.what}
          entry={deskEdits.waiting.target.entry}
          slot={deskEdits.waiting.target.slot}
          calendar={all.find((c) => c.id === deskEdits.waiting!.target.entry.calendarId)!}
          onChoose={deskEdits.choose}
          onClose={deskEdits.leave}
        />
      )}
    </Stack>
  );
}

/** Returns what is only looked at: an entry of a calendar in which one may not write. */
function glanceOf(editing: Editing, calendars: readonly Calendar[]) {
  if (!('entry' in editing)) return null;
  const calendar = calendars.find((c) => c.id === editing.entry.calendarId)!;
  return may('write', calendar.who) ? null : { entry: editing.entry, date: editing.date, calendar };
}

/** Ctrl+Z takes back, Ctrl+Shift+Z or Ctrl+Y does again, unless something is being typed. */
function useUndoKeys(undo: () => Promise<void>, redo: () => Promise<void>, on: boolean): void {
  useEffect(() => {
    if (!on) return;
    const key = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || isTyping(event.target)) return;
      const letter = event.key.toLowerCase();
      if (letter === 'y' || (letter === 'z' && event.shiftKey)) void redo();
      else if (letter === 'z') void undo();
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', key);
    return () => window.removeEventListener('keydown', key);
  });
}
