import { finder, type FindIn } from '@zonal/core/entries';
import { zoneWithOffset } from '@zonal/core/forms';
import { may } from '@zonal/core/rights';
import { dayFromText, dayToText, partsOfDay, type Day, dayAt } from '@zonal/core/zones';
import { useCallback, useMemo, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useCalendarsQuery, useHouseQuery, useWindowsQuery } from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import type { Calendar } from '@zonal/core/api';
import { useEdits } from './useEdits';
import { useAppDispatch, useAppSelector } from '../store';
import { MainButton } from '../ui/Button';
import { LazyScreen, lazyScreen } from '../ui/LazyScreen';
import { Stack } from '../ui/layout';
import { Empty, Loading, Notice } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { useNow } from '../ui/useNow';
import { usePrinting } from '../ui/usePrinting';
import { itemsOf, itemsWhere, keyOf, rangeOf, stepOf, type DeskItem } from './deskDays';
import { calendarSwitched, deskSet, layerSwitched, type Desk as DeskState } from './deskSlice';
import { BulkBar } from './BulkBar';
import { DeskBar } from './DeskBar';
import { currentOf, firstEntry, glanceOf, type Work } from './deskWork';
import { EntryGlance } from './EntryGlance';
import type { EntryForm } from './entryForm';
import { FindField } from './FindField';
import { OutOfSight } from './OutOfSight';
import type { Written } from './writtenItem';
import { PlateBar } from './PlateBar';
import { PrintedList } from './PrintedList';
import { QuickLine } from './QuickLine';
import { useDayNotes } from './readymade';
import { ScopeSheet } from './ScopeSheet';
import { useDeskEdits } from './useDeskEdits';
import { useEntries } from './useEntries';
import { useSelection } from './useSelection';
import { useUndoKeys } from './useUndoKeys';
import { useWriteKey, useWritesOnArrival } from './useWriteKey';
import { Columns } from './views/Columns';
import { Lanes } from './views/Lanes';
import { List } from './views/List';
import { Month } from './views/Month';
import type { ViewProps } from './views/viewTypes';
import { Week } from './views/Week';
import { t } from '../texts/inside';

// These need more script than all the rest of the desk: it is fetched when one of them is opened first.
const EntryEditor = lazyScreen(() => import('./EntryEditor').then((file) => file.EntryEditor));
const CalendarSheet = lazyScreen(() => import('./CalendarSheet').then((file) => file.CalendarSheet));
const ImportSheet = lazyScreen(() => import('./import/ImportSheet').then((file) => file.ImportSheet));
const BulkSheet = lazyScreen(() => import('./BulkSheet').then((file) => file.BulkSheet));
const ExportSheet = lazyScreen(() => import('./ExportSheet').then((file) => file.ExportSheet));
const ClocksRow = lazyScreen(() => import('./ClocksRow').then((file) => file.ClocksRow));

/** The height of what stands above and below the views is known, so that they fill the rest. */
const Views = styled.div<{ $above: number }>`
  --above: ${(p) => p.$above}rem;
  min-width: 0;
  /* Rows that grow while the first entries arrive would move everything below them. */
  &[data-empty] {
    visibility: hidden;
  }
`;

/** Everything but what is drawn for paper. */
const OnScreen = styled(Stack)`
  gap: 0.6rem;
  @media print {
    display: none;
  }
`;

const Foot = styled.small`
  display: flex;
  align-items: baseline;
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
  const { data: calendars, error } = useCalendarsQuery();
  if (!calendars) return <Waiting what={t('fetchingCalendars')} error={error} />;
  return <Desk calendars={calendars} />;
}

function Desk({ calendars: all }: { calendars: readonly Calendar[] }) {
  const dispatch = useAppDispatch();
  const desk = useAppSelector((state) => state.desk);
  const set = useCallback((part: Partial<DeskState>) => void dispatch(deskSet(part)), [dispatch]);
  const { data: windows } = useWindowsQuery();
  const { data: house } = useHouseQuery();
  const now = useNow();
  const writes = useWritesOnArrival();
  const [work, setWork] = useState<Work | null>(() =>
    writes ? firstEntry(all, desk.lastCalendarId, now) : null,
  );
  const [tools, setTools] = useState(false);
  const [written, setWritten] = useState<Written | null>(null);
  const edits = useEdits();

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
  const selection = useSelection(ordered, writable);
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
  const showWritten = (item: DeskItem) => {
    if (desk.hidden.includes(item.entry.calendarId)) dispatch(calendarSwitched(item.entry.calendarId));
    set({ from: dayToText(item.firstDay), chosen: item.key });
    setWritten(null);
  };
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
  // A new entry starts in the calendar of the chosen one, or in the one written last.
  const chosenIn = ordered.find((i) => i.key === desk.chosen)?.entry.calendarId;
  const startIn = [chosenIn, desk.lastCalendarId, toWrite[0]?.id].find((id) =>
    toWrite.some((c) => c.id === id),
  );
  const writeNow = () => startIn && write(startIn, today >= from && today < to ? today : from);
  useWriteKey(startIn && work === null && deskEdits.waiting === null ? writeNow : null);
  const beside = desk.sideBySide && (desk.view === 'week' || desk.view === 'month');

  const glanced = work?.kind === 'entry' ? glanceOf(work.editing, all) : null;
  const clocks = desk.readAs
    ? t('shownIn', { zone: zoneWithOffset(desk.readAs, now) })
    : t('shownInOwn', { zones: [...new Set(shown.map((c) => zoneWithOffset(c.zone, now)))].join(', ') });
  const isPrinting = usePrinting();
  const isSelecting = desk.view === 'list' && selection.items.length > 0;

  const screen = (
    // The editor's script is fetched with the first move, so that the first entry opens at once.
    <OnScreen onPointerMove={EntryEditor.prepare} onFocus={EntryEditor.prepare}>
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
        onWrite={writeNow}
        canWrite={toWrite.length > 0}
        tools={tools}
        onTools={setTools}
        fields={
          shown.length > 0 && (
            <>
              {toWrite.length > 0 ? (
                <QuickLine
                  calendars={toWrite}
                  edits={edits}
                  onWritten={(entry) => {
                    choose(keyOf(entry));
                    setWritten({ entry, slot: null });
                  }}
                />
              ) : (
                <span />
              )}
              <FindField query={desk.find} onChange={find} here={ordered.length} onGo={go} />
            </>
          )
        }
      />
      {desk.clocksOpen && (
        <LazyScreen>
          <ClocksRow
            desk={desk}
            set={set}
            onLayer={(layer) => void dispatch(layerSwitched(layer))}
            home={home}
            house={house}
            spotName={spot ? spot.place || spot.name : null}
            now={now}
          />
        </LazyScreen>
      )}
      {problem && <ProblemNotice problem={problem} />}
      {(deskEdits.refused || edits.problem) && <Notice>{deskEdits.refused || edits.problem?.message}</Notice>}
      {!calendars.length && (
        <Empty>
          <p>{all.length ? t('noneInView') : t('noCalendars')}</p>
          <MainButton onPress={() => setWork({ kind: 'calendar', calendar: null })}>
            {t('newCalendar')}
          </MainButton>
          <Link to="/calendars/directory">{t('openDirectory')}</Link>
          <Link to="/first-day">{t('openFirstDay')}</Link>
        </Empty>
      )}
      {calendars.length > 0 && !shown.length && <Empty>{t('allOff')}</Empty>}
      {isSelecting && (
        <BulkBar
          selected={selection.items.length}
          writable={selection.changeable.length}
          isBusy={edits.busy || stale}
          onChange={() => setWork({ kind: 'bulk' })}
          onClear={selection.clear}
        />
      )}
      {shown.length > 0 && (
        <Views
          $above={(desk.clocksOpen ? 21 : 12.2) + (isSelecting ? 3.5 : 0)}
          onKeyDown={deskEdits.onKeyDown}
          aria-busy={loading}
          {...(loading && !ordered.length ? { 'data-empty': '' } : {})}
        >
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
          {desk.view === 'list' &&
            (loading ? (
              <Loading what={t('fetchingEntries')} />
            ) : (
              <List {...view} selected={selection.keys} onSelect={selection.select} />
            ))}
        </Views>
      )}
      <Foot>
        {shown.length > 0 && (
          <span role="status">
            {loading ? t('fetchingEntriesNow') : t('entriesCount', { count: ordered.length })} {clocks}
          </span>
        )}
        {written && (
          <OutOfSight
            written={written}
            calendars={calendars}
            hidden={desk.hidden}
            range={{ from, to }}
            readAs={desk.readAs}
            onShow={showWritten}
          />
        )}
        <strong role="status" title={edits.said}>
          {edits.said}
        </strong>
      </Foot>
      {glanced && <EntryGlance {...glanced} onClose={() => setWork(null)} />}
      <LazyScreen key={work?.kind} onCancel={() => setWork(null)}>
        {work?.kind === 'entry' && !glanced && (
          <EntryEditor
            key={'entry' in work.editing ? work.editing.entry.id : 'new'}
            calendars={writable}
            editing={work.editing}
            edits={edits}
            current={currentOf(work.editing, entries)}
            readers={[desk.secondZone, desk.readAs].filter((z) => z !== '')}
            onWritten={setWritten}
            onDuplicate={(calendarId, form) => write(calendarId, today, form)}
            onClose={() => setWork(null)}
          />
        )}
        {work?.kind === 'calendar' && (
          <CalendarSheet calendar={work.calendar} calendars={all} onClose={() => setWork(null)} />
        )}
        {work?.kind === 'import' && <ImportSheet calendars={writable} onClose={() => setWork(null)} />}
        {work?.kind === 'bulk' && (
          <BulkSheet
            items={selection.changeable}
            calendars={writable}
            edits={edits}
            onDone={() => {
              selection.clear();
              setWork(null);
            }}
            onClose={() => setWork(null)}
          />
        )}
        {work?.kind === 'export' && (
          <ExportSheet calendars={calendars} items={ordered} onClose={() => setWork(null)} />
        )}
      </LazyScreen>
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
    </OnScreen>
  );
  return (
    <>
      {screen}
      {isPrinting && <PrintedList calendars={shown} items={ordered} range={{ from, to }} clocks={clocks} />}
    </>
  );
}
