import { sightlineTable } from '@zonal/core/forms';
import {
  AUDIENCES,
  ceilingsInForce,
  groupedExposures,
  type SightCell,
  type SightPath,
  type SightRow,
} from '@zonal/core/glass';
import { Download, Printer, TriangleAlert } from 'lucide-react';
import { Fragment, useMemo, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import {
  insideCellOf,
  insideSight,
  may,
  type InsideCell,
  type InsideRow,
  type Sight,
} from '@zonal/core/rights';
import {
  useCalendarsQuery,
  useCeilingsQuery,
  useStandingsQuery,
  useWatchQuery,
  useWindowsQuery,
} from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import type { Calendar } from '@zonal/core/api';
import type { SightQuestion } from '../workers/questions';
import { ExposureList } from '../rehearsal/ExposureList';
import { sighted } from '../rehearsal/sighted';
import { useAnswer } from '../workers/useAnswer';
import { Button } from '../ui/Button';
import { GlassMark, Rings } from '../ui/GlassMark';
import { Faded, Row, Stack } from '../ui/layout';
import { Empty, Loading, Notice } from '../ui/Notice';
import { Plate } from '../ui/Plate';
import { saveFile } from '../ui/saveFile';
import { EntryCheck } from './EntryCheck';
import { LockDown } from './LockDown';
import { Term } from '../ui/Term';
import { LANGUAGE, LOCALE } from '../texts/language';
import { t } from '../texts/glass';
import { reasonWords } from '../texts/formWords';
import { AUDIENCE_WORDS, GLASS_WORDS, SIGHT_MARK_WORDS } from '../texts/glassWords';

const Wide = styled.div`
  overflow-x: auto;
`;

const Table = styled.table`
  width: 100%;
  min-width: 46rem;
  border-collapse: collapse;
  background: var(--sheet);
  border: 1px solid var(--line);
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 0.45rem 0.7rem;
    border-bottom: 1px solid var(--hair);
    font-weight: 400;
  }
  thead small {
    display: block;
    color: var(--faded);
  }
  td + td {
    border-left: 1px solid var(--hair);
  }
  td > button {
    border: 0;
    background: none;
    padding: 0;
    min-height: 24px;
    cursor: pointer;
    text-align: left;
    display: grid;
    align-content: start;
    gap: 0.15rem;
  }
  td > button:hover strong {
    text-decoration: underline;
  }
  td[data-open] {
    background: var(--shade);
  }
  small {
    font-size: 0.78rem;
  }
  @media print {
    min-width: 0;
    font-size: 9pt;
  }
`;

const Mark = styled.small`
  color: var(--outside);
  display: block;
`;

const MAX_LISTED_FINDINGS = 40;

const Paths = styled.ul`
  margin: 0;
  padding-left: 1.1rem;
  display: grid;
  gap: 0.3rem;
`;

const OnPaper = styled.div`
  display: none;
  @media print {
    display: block;
  }
`;

const OffPaper = styled.div`
  @media print {
    display: none;
  }
`;

/** The matrix of calendars by audiences, the check of one entry, and lock-down. */
export function SightlinesPage() {
  const known = useCalendarsQuery();
  // Who does not see its windows is told nothing of where they lead.
  const calendars = useMemo(
    () => ({ ...known, data: known.data?.filter((c) => may('see-windows', c.who)) }),
    [known],
  );
  const windows = useWindowsQuery();
  const { data: watch } = useWatchQuery();
  const [now] = useState(() => Date.now());
  const question = useMemo((): SightQuestion | null => {
    if (!calendars.data || !windows.data || !watch) return null;
    return {
      kind: 'sightlines',
      calendarIds: calendars.data.map((c) => c.id),
      windows: windows.data.map(sighted),
      watch,
      now,
    };
  }, [calendars.data, windows.data, watch, now]);
  const { answer, problem, busy } = useAnswer(question);
  const { data: standings } = useStandingsQuery();
  const { data: set } = useCeilingsQuery();
  const inside = useMemo(() => {
    const locked = (calendars.data ?? []).filter((c) => c.lockedAt).map((c) => c.id);
    const ceilings = ceilingsInForce(set?.ceilings ?? [], locked);
    return (standings?.calendars ?? []).map((c) =>
      insideSight(c.calendarId, { ...c, stewards: standings!.stewards }, ceilings, LANGUAGE),
    );
  }, [calendars.data, set, standings]);
  if (!calendars.data || !windows.data)
    return <Waiting what={t('computingSightlines')} error={calendars.error ?? windows.error} />;
  if (!answer) return problem ? <Notice>{problem}</Notice> : <Loading what={t('computingSightlines')} />;
  const nameOf = (id: string) => calendars.data?.find((c) => c.id === id)?.name ?? '';
  return (
    <Stack>
      <Row style={{ justifyContent: 'space-between' }}>
        <h1>
          <Term word="sightlines">{t('sightlines')}</Term>
        </h1>
        <OffPaper>
          <Row>
            <Button
              onPress={() => saveFile(sightlineTable(answer, nameOf, inside), 'sightlines.csv')}
              isDisabled={!answer.length}
            >
              <Download aria-hidden="true" /> {t('tableCsv')}
            </Button>
            <Button onPress={() => window.print()}>
              <Printer aria-hidden="true" /> {t('printReview')}
            </Button>
          </Row>
        </OffPaper>
      </Row>
      <p>
        {t.rich('sightlinesHint', { term: (text) => <Term word="zone">{text}</Term> })}{' '}
        <Faded role="status">{busy ? t('computingAgain') : ''}</Faded>
      </p>
      {problem && <Notice>{problem}</Notice>}
      <OnPaper>{t('asOf', { time: new Date(now).toLocaleString(LOCALE) })}</OnPaper>
      {!answer.length ? (
        <Empty>{t('noSightlines')}</Empty>
      ) : (
        <Matrix rows={answer} inside={inside} calendars={calendars.data} />
      )}
      <OffPaper>
        <EntryCheck calendars={calendars.data} windows={windows.data} now={now} />
      </OffPaper>
    </Stack>
  );
}

interface MatrixProps {
  rows: readonly SightRow[];
  /** Who sees them from inside. */
  inside: readonly InsideRow[];
  calendars: readonly Calendar[];
}

function Matrix({ rows, inside, calendars }: MatrixProps) {
  const [open, setOpen] = useState('');
  return (
    <Wide>
      <Table>
        <thead>
          <tr>
            <th scope="col">{t('calendar')}</th>
            {AUDIENCES.map((a) => (
              <th scope="col" key={a}>
                <Row style={{ gap: '0.35rem' }}>
                  <Rings audience={a} /> {AUDIENCE_WORDS[a].word}
                </Row>
                <small>{AUDIENCE_WORDS[a].plain}</small>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const calendar = calendars.find((c) => c.id === row.calendarId)!;
            const chosen = row.cells.find((c) => open === `${row.calendarId}|${c.audience}`);
            return (
              <Fragment key={row.calendarId}>
                <tr>
                  <th scope="row">
                    <Row style={{ flexWrap: 'nowrap' }}>
                      <Plate {...calendar} /> {calendar.name}
                    </Row>
                    <LockDown calendar={calendar} />
                  </th>
                  {row.cells.map((cell) => {
                    const key = `${row.calendarId}|${cell.audience}`;
                    const on = open === key;
                    const within = insideCellOf(inside, row.calendarId, cell.audience);
                    return (
                      <td key={cell.audience} {...(on ? { 'data-open': '' } : {})}>
                        <button
                          type="button"
                          aria-expanded={on}
                          aria-label={cellWords(cell, within, calendar.name)}
                          onClick={() => setOpen(on ? '' : key)}
                        >
                          <Cell cell={cell} within={within} />
                        </button>
                        <OnPaper>
                          <WaysInside within={within} />
                          <PathList paths={cell.paths} />
                        </OnPaper>
                      </td>
                    );
                  })}
                </tr>
                {chosen && (
                  <tr>
                    <td colSpan={AUDIENCES.length + 1}>
                      <Detail
                        cell={chosen}
                        within={insideCellOf(inside, row.calendarId, chosen.audience)}
                        usual={row.usual}
                        name={calendar.name}
                      />
                    </td>
                  </tr>
                )}
              </Fragment>
            );
          })}
        </tbody>
      </Table>
    </Wide>
  );
}

/** Returns how clearly something is seen, in one word. */
const sightWord = (sight: Sight) => (sight === 'all' ? t('everything') : GLASS_WORDS[sight].word);

/** Returns how many people inside see how much: `Everything: 3, Tinted: 1`. */
function countWords({ ways }: InsideCell): string {
  const sights = [...new Set(ways.map((w) => w.sight))];
  return sights
    .map((s) => t('sightCount', { sight: sightWord(s), count: ways.filter((w) => w.sight === s).length }))
    .join(', ');
}

function WaysInside({ within }: { within: InsideCell | null }) {
  if (!within?.ways.length) return null;
  return (
    <Paths>
      {within.ways.map(({ name, standing, sight, why }) => (
        <li key={`${standing}|${name}`}>
          {t.rich('wayInside', {
            name: name || t('everybodyInHouse'),
            sight: sightWord(sight),
            why,
            strong: (text) => <strong>{text}</strong>,
            faded: (text) => <Faded>{text}</Faded>,
          })}
        </li>
      ))}
    </Paths>
  );
}

function cellWords(cell: SightCell, within: InsideCell | null, name: string): string {
  const { audience, glass, paths, marks } = cell;
  const own = { name, audience: AUDIENCE_WORDS[audience].word };
  if (within?.ways.length) {
    const sight = audience === 'crew' ? countWords(within) : sightWord(within.sight);
    return t('cellSight', { ...own, sight });
  }
  const keys = t('keysCount', { count: paths.length });
  const words = t('cellKeys', { ...own, glass: GLASS_WORDS[glass].word, keys });
  return [words, ...marks.map((m) => SIGHT_MARK_WORDS[m])].join(', ');
}

function Cell({ cell, within }: { cell: SightCell; within: InsideCell | null }) {
  const { audience, glass, paths, marks } = cell;
  if (within?.ways.length)
    return (
      <>
        <Row style={{ gap: '0.4rem', flexWrap: 'nowrap' }}>
          {within.sight !== 'all' && <GlassMark glass={within.sight} />}{' '}
          <strong>{sightWord(within.sight)}</strong>
        </Row>
        <small>
          {audience === 'crew'
            ? t('byName', { count: within.ways.length, sights: countWords(within) })
            : t('everybodyWithAccount')}
        </small>
      </>
    );
  if (!paths.length) return <Faded>{within ? t('nobody') : t('noWayToIt')}</Faded>;
  return (
    <>
      <Row style={{ gap: '0.4rem', flexWrap: 'nowrap' }}>
        <GlassMark glass={glass} /> <strong>{GLASS_WORDS[glass].word}</strong>
        {paths.some((p) => p.cut) && <small>{t('cutWord')}</small>}
      </Row>
      <small>
        {t('keysIn', {
          count: paths.length,
          windows: [...new Set(paths.map((p) => p.window))].join(', '),
        })}
      </small>
      {marks.map((m) => (
        <Mark key={m}>
          <TriangleAlert aria-hidden="true" size={12} /> {SIGHT_MARK_WORDS[m]}
        </Mark>
      ))}
    </>
  );
}

function PathList({ paths }: { paths: readonly SightPath[] }) {
  return (
    <Paths>
      {paths.map((p) => (
        <li key={p.keyId}>
          {t.rich('pathKey', {
            window: p.window,
            place: p.madeOutTo,
            glass: GLASS_WORDS[p.glass].word,
            cut: p.cut ? t('cutByField') : '',
            reasons: reasonWords(p.reasons),
            link: (text) => <Link to={`/windows/${p.windowId}`}>{text}</Link>,
            strong: (text) => <strong>{text}</strong>,
            faded: (text) => <Faded>{text}</Faded>,
          })}{' '}
          {p.marks.map((m) => (
            <Mark key={m}>{SIGHT_MARK_WORDS[m]}</Mark>
          ))}
        </li>
      ))}
    </Paths>
  );
}

interface DetailProps {
  cell: SightCell;
  within: InsideCell | null;
  usual: SightRow['usual'];
  name: string;
}

function Detail({ cell, within, usual, name }: DetailProps) {
  const { audience, paths, exposed } = cell;
  const zone = AUDIENCE_WORDS[audience].word;
  const waysTo = t('waysTo', { name, audience: zone });
  const groups = groupedExposures(exposed);
  return (
    <Stack style={{ gap: '0.5rem' }} role="region" aria-label={waysTo}>
      <strong>
        {t('audienceAnd', { audience: zone, name })}
        {!within && t('usuallyHere', { glass: GLASS_WORDS[usual].word.toLowerCase() })}
      </strong>
      <WaysInside within={within} />
      {within && !within.ways.length && <Faded>{t('nobodyOfThem')}</Faded>}
      {paths.length > 0 && <PathList paths={paths} />}
      {!within && !paths.length && <Faded>{t('noKeyShows')}</Faded>}
      {exposed.length > 0 && (
        <div>
          <Mark>{t('sensitiveReadable', { count: groups.length })}</Mark>
          <ExposureList
            groups={groups.slice(0, MAX_LISTED_FINDINGS)}
            more={groups.length - MAX_LISTED_FINDINGS}
          />
        </div>
      )}
    </Stack>
  );
}
