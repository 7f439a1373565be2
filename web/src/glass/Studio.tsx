import { goneFrom, lackOf, type SourceGlass } from '@zonal/core/glass';
import { may } from '@zonal/core/rights';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import styled from 'styled-components';
import {
  problemOf,
  useCalendarsQuery,
  useCeilingsQuery,
  useHouseQuery,
  useLabelsQuery,
  useScheduleDraftMutation,
  useShutWindowMutation,
  useWindowsQuery,
} from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import type { Calendar, OutwardWindow, WindowDraft } from '@zonal/core/api';
import type { PreviewAnswer } from '../workers/questions';
import { Button, OutsideButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Faded, Row, Stack } from '../ui/layout';
import { Empty, Loading, Notice } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { ClosingNote, ClosingSheet } from './ClosingSheet';
import { DeleteWindow } from './DeleteWindow';
import { Keys } from './Keys';
import { ceilingsOf, regained, type DraftSetting } from './draft';
import { GlassPanel } from './GlassPanel';
import { InsidePanel, audiencesOf } from './InsidePanel';
import { OutsidePanel } from './OutsidePanel';
import { PublishSheet } from './PublishSheet';
import { SharedWindow } from './SharedWindow';
import { StudioTour } from './StudioTour';
import { startingDraft } from './startingDraft';
import { COPY_PARAMETER, StartFrom } from './StartFrom';
import { differs, useDraft } from './useDraft';
import { troubleWords } from '../rehearsal/troubleWords';
import { LOCALE } from '../texts/language';
import { t } from '../texts/glass';
import { whoMay } from '../texts/rightsWords';

const Columns = styled.div`
  display: grid;
  grid-template-columns: 22rem 18.5rem minmax(0, 1fr);
  border: 1px solid var(--line);
  background: var(--sheet);
  > section {
    padding: 0.8rem 0.8rem 1.2rem;
    min-width: 0;
  }
  > section + section {
    border-left: 3px double var(--line);
  }
  > section[data-shown] {
    outline: 3px solid var(--focus);
    outline-offset: -3px;
  }
  /* Columns scroll by themselves: the true outside view stays in sight beside whatever setting is being changed. */
  @media (min-width: 70.01rem) {
    height: calc(100dvh - 12rem);
    min-height: 34rem;
    > section {
      position: relative;
      overflow: auto;
      overscroll-behavior: contain;
    }
    > section:last-child > div {
      height: 100%;
    }
  }
  @media (max-width: 70rem) {
    grid-template-columns: 1fr 1fr;
    > section:last-child {
      grid-column: 1 / -1;
      border-left: 0;
      border-top: 3px double var(--line);
    }
  }
  @media (max-width: 44rem) {
    grid-template-columns: 1fr;
    > section + section {
      border-left: 0;
      border-top: 3px double var(--line);
    }
  }
`;

const Head = styled.header`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.6rem 1.5rem;
  align-items: center;
  h1 {
    overflow-wrap: anywhere;
  }
`;

const Search = styled(Field)`
  flex: 0 1 22rem;
`;

const Live = styled.span`
  color: var(--outside);
  font-size: 0.9rem;
`;

/** Inside, glass, outside: the rules of one window with what they let out. */
export function Studio() {
  const { id } = useParams();
  const calendars = useCalendarsQuery();
  const windows = useWindowsQuery();
  // What the rules speak of has to be known first: else for a moment labels look gone and the page jumps.
  const spokenOf = [useLabelsQuery(), useHouseQuery(), useCeilingsQuery()];
  if ([calendars, windows, ...spokenOf].some((query) => query.isLoading))
    return <Loading what={t('fetchingWindow')} />;
  if (!calendars.data || !windows.data)
    return <Waiting what={t('fetchingWindow')} error={calendars.error ?? windows.error} />;
  const window = windows.data.find((w) => w.id === id);
  if (id !== 'new' && !window) return <Empty>{t('noSuchWindow')}</Empty>;
  const own = calendars.data.filter((c) => may('publish', c.who));
  const isOwn = (calendarId: string) => own.some((c) => c.id === calendarId);
  if (window && !window.sources.every((s) => isOwn(s.calendarId)))
    return <SharedWindow window={window} own={own} />;
  if (!window && !own.length) return <Empty>{t('openNeeds', { who: whoMay('publish') })}</Empty>;
  const copyable = windows.data.filter((w) => w.sources.every((s) => isOwn(s.calendarId)));
  return <Desk key={id} calendars={own} window={window ?? null} copyable={copyable} />;
}

interface DeskProps {
  /** Calendars that the person publishes. */
  readonly calendars: readonly Calendar[];
  /** The window, or null for a new one. */
  readonly window: OutwardWindow | null;
  /** Windows that a new one can be a copy of. */
  readonly copyable: readonly OutwardWindow[];
}

function Desk({ calendars, window, copyable }: DeskProps) {
  const navigate = useNavigate();
  const [params] = useSearchParams();
  const [copied] = useState(
    () => (!window && copyable.find((w) => w.id === params.get(COPY_PARAMETER))) || null,
  );
  const copy = copied && startingDraft({ kind: 'copy', window: copied }, calendars).draft;
  const work = useDraft(window, calendars, copy);
  const { draft, set, kept, conflict } = work;
  const { data: labels = [] } = useLabelsQuery();
  const { data: house } = useHouseQuery();
  const { data: ceilings } = useCeilingsQuery();
  const [shut, shutting] = useShutWindowMutation();
  const [schedule] = useScheduleDraftMutation();
  const [startingGlass, setStartingGlass] = useState<SourceGlass>('frosted');
  const [asking, setAsking] = useState(false);
  const [rehearsing, setRehearsing] = useState(false);
  const [told, setTold] = useState<PreviewAnswer | null>(null);
  const [search, setSearch] = useState('');
  const problem = problemOf(shutting.error);
  const lack = lackOf(draft);
  const closed = !!window?.closedAt;
  // A filter may name the labels of the window's own calendars.
  const ownLabels = useMemo(
    () => labels.filter((l) => draft.sources.some((s) => l.calendarIds.includes(s.calendarId))),
    [labels, draft.sources],
  );
  const setting = useMemo(
    (): DraftSetting => ({
      window,
      ceilings: ceilingsOf(ceilings, calendars),
      known: {
        calendars: calendars.map((c) => c.id),
        labels: ownLabels.map((l) => l.name),
        properties: house?.properties.map((p) => p.name) ?? [],
      },
    }),
    [window, ceilings, calendars, ownLabels, house],
  );
  const gone = useMemo(() => goneFrom(draft.filter, setting.known), [draft.filter, setting.known]);

  // What a filter had lost stays lost outside until somebody shows the window anew.
  const found = window ? regained(window, setting.known) : [];
  const changed = differs(draft, window) || found.length > 0;

  const published = (live: OutwardWindow) => {
    setRehearsing(false);
    work.settle(live);
    if (!window) void navigate(`/windows/${live.id}`, { replace: true });
  };
  const setShut = async (close: boolean) => {
    if (!window) return;
    const result = await shut({ id: window.id, close });
    setAsking(false);
    if (result.data) set({ version: result.data.version });
  };

  return (
    <Stack>
      <Head>
        <div>
          <h1>{draft.name.trim() || t('newWindow')}</h1>
          {closed ? (
            <Faded>{t('closedSay')}</Faded>
          ) : window && !changed ? (
            <Live>{t('visibleNow')}</Live>
          ) : (
            <Faded>
              {window ? draftWords(kept) : work.isStored ? t('notOutsideStored') : t('notOutside')}
            </Faded>
          )}
        </div>
        <Row>
          {window && <Link to={`/windows/${window.id}/ledger`}>{t('ledger')}</Link>}
          {window && <Link to={`/windows/new?${COPY_PARAMETER}=${window.id}`}>{t('copyWindow')}</Link>}
          {(window ? changed : work.isStored) && (
            <Button onPress={() => void work.discard()}>{t('discardDraft')}</Button>
          )}
          {!closed && (
            <OutsideButton isDisabled={!!lack || !changed} onPress={() => setRehearsing(true)}>
              {window ? t('showOutside') : t('openWindow')}
            </OutsideButton>
          )}
          {window && !closed && !asking && (
            <Button onPress={() => setAsking(true)}>{t('closeWindow')}</Button>
          )}
          {closed && <OutsideButton onPress={() => void setShut(false)}>{t('reopen')}</OutsideButton>}
          {window && closed && <DeleteWindow window={window} />}
        </Row>
      </Head>
      {!window && (
        <StartFrom
          calendars={calendars}
          windows={copyable}
          copied={copied}
          hadDraft={work.wasStored}
          hasWork={work.isStored}
          onStart={(start) => {
            work.replace(start.draft);
            setStartingGlass(start.glass);
          }}
        />
      )}
      {problem && <ProblemNotice problem={problem} />}
      {kept?.publishAt && (
        <Row role="status">
          <Live>{t('showsAt', { time: new Date(kept.publishAt).toLocaleString(LOCALE) })}</Live>
          <Button
            onPress={() =>
              void schedule({ id: window!.id, at: null, confirmed: [] }).then(
                ({ data }) => data && work.setKept(data.draft),
              )
            }
          >
            {t('cancelSchedule')}
          </Button>
        </Row>
      )}
      {work.problem && <Notice>{t('draftOnlyHere', { problem: work.problem.message })}</Notice>}
      {window?.trouble && <Notice>{troubleWords(window.trouble)}</Notice>}
      {kept?.stopped && <Notice>{t('draftNotShown', { reason: kept.stopped })}</Notice>}
      {conflict && (
        <Notice>
          <p>{t('draftConflict')}</p>
          <Row>
            <Button onPress={() => work.resolve('theirs')}>{t('useTheirs')}</Button>
            <Button onPress={() => work.resolve('mine')}>{t('replaceTheirs')}</Button>
          </Row>
        </Notice>
      )}
      {asking && window && (
        <ClosingSheet window={window} onClose={() => void setShut(true)} onLeave={() => setAsking(false)} />
      )}
      {window && <ClosingNote window={window} />}
      {found.length > 0 && <Notice>{t('filterFound', { names: found.join(', ') })}</Notice>}
      {lack && changed && <Faded>{lack}</Faded>}
      <Row>
        <Search
          hideLabel
          label={t('findSetting')}
          placeholder={t('findSetting')}
          value={search}
          onChange={setSearch}
        />
        <StudioTour />
      </Row>
      <Columns>
        <section aria-labelledby="inside">
          <InsidePanel
            calendars={calendars}
            startingGlass={work.isStored ? startingGlass : 'frosted'}
            labels={ownLabels}
            house={house}
            ceilings={ceilings}
            draft={draft}
            audiences={audiencesOf(window?.keys, draft.audience ?? 'street')}
            gone={gone}
            taken={told}
            search={search}
            set={set}
          />
        </section>
        <section aria-labelledby="glass">
          <GlassPanel
            draft={draft}
            set={set}
            isNew={!window}
            calendars={calendars}
            labels={labels}
            titles={told?.titles ?? null}
            search={search}
          />
        </section>
        <section aria-labelledby="outside">
          <OutsidePanel draft={draft} setting={setting} onTold={setTold} />
        </section>
      </Columns>
      {window && !closed && <Keys window={window} />}
      {rehearsing && (
        <PublishSheet
          draft={draft}
          setting={setting}
          onPublished={published}
          onScheduled={(d) => {
            work.setKept(d);
            setRehearsing(false);
          }}
          onTake={(current, whose) => {
            if (whose === 'theirs') work.settle(current);
            else set({ version: current.version });
            setRehearsing(false);
          }}
          onClose={() => setRehearsing(false)}
        />
      )}
    </Stack>
  );
}

/** Says that a window has a draft, and who saved it. */
function draftWords(kept: WindowDraft | null): string {
  if (!kept) return t('draftSay');
  return kept.by ? t('draftStoredBySay', { by: kept.by }) : t('draftStoredSay');
}
