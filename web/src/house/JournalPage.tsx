import type { JournalLine } from '@zonal/core/api';
import { journalTable } from '@zonal/core/forms';
import { FileDown } from 'lucide-react';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { problemOf, useJournalQuery, useLazyJournalQuery, type JournalQuery } from '../api/zonalApi';
import { isRefused } from '../api/fetchTrouble';
import { Waiting } from '../api/Waiting';
import { Button } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { DateField } from '../ui/DateFields';
import { Faded, PlainTable, Row } from '../ui/layout';
import { Empty } from '../ui/Notice';
import { saveFile } from '../ui/saveFile';
import { HousePart } from './HousePart';
import { t } from '../texts/house';
import { JOURNAL_AREAS, JOURNAL_TURNS, journalKindWord } from '../texts/houseWords';

const Table = styled(PlainTable)`
  font-variant-numeric: tabular-nums;
  td:first-child {
    white-space: nowrap;
  }
  td:nth-child(2) {
    min-width: 6.5rem;
  }
  td:nth-child(3) {
    min-width: 13rem;
  }
`;

/** Lines of one table at most. */
const MOST = 20_000;

/** Who changed people, rights, ceilings, windows and keys, when, and from what to what. */
export function JournalPage() {
  const [filter, setFilter] = useState({ area: '', by: '', from: '', to: '' });
  const [before, setBefore] = useState<readonly number[]>([]);
  const asked = askedOf(filter);
  const last = before.at(-1);
  const {
    data: journal,
    error,
    isFetching,
  } = useJournalQuery(
    { ...asked, ...(last === undefined ? {} : { before: String(last) }) },
    { refetchOnMountOrArgChange: true },
  );
  const data = isRefused(error) ? undefined : journal;
  const set = (part: Partial<typeof filter>) => {
    setFilter({ ...filter, ...part });
    setBefore([]);
  };
  return (
    <HousePart title={t('journalOfChanges')}>
      <Faded>{t('journalHint')}</Faded>
      <Row style={{ alignItems: 'end' }}>
        <SelectOne
          label={t('about')}
          value={filter.area}
          options={[
            { value: '', text: 'everything' },
            ...Object.entries(JOURNAL_AREAS).map(([value, text]) => ({ value, text })),
          ]}
          onChange={(area) => set({ area })}
        />
        <SelectOne
          label={t('by')}
          value={filter.by}
          options={[
            { value: '', text: 'anybody' },
            ...(data?.people ?? []).map((p) => ({ value: p.id, text: p.name })),
          ]}
          onChange={(by) => set({ by })}
        />
        <DateField label={t('from')} value={filter.from} onChange={(from) => set({ from })} />
        <DateField label={t('toEndOf')} value={filter.to} onChange={(to) => set({ to })} />
        {(filter.from || filter.to) && (
          <Button onPress={() => set({ from: '', to: '' })}>{t('anyTime')}</Button>
        )}
        <Export asked={asked} />
      </Row>
      {!data && <Waiting what={t('fetchingJournal')} error={error} />}
      {data && !data.lines.length && <Empty>{t('noJournalLines')}</Empty>}
      {data && data.lines.length > 0 && (
        <Table aria-label={t('journal')} aria-busy={isFetching}>
          <thead>
            <tr>
              <th scope="col">{t('when')}</th>
              <th scope="col">{t('by')}</th>
              <th scope="col">{t('what')}</th>
              <th scope="col">{t('fromWhatToWhat')}</th>
            </tr>
          </thead>
          <tbody>
            {data.lines.map((line) => (
              <Line key={line.id} line={line} />
            ))}
          </tbody>
        </Table>
      )}
      <Row>
        {before.length > 0 && <Button onPress={() => setBefore(before.slice(0, -1))}>{t('newer')}</Button>}
        {data?.more && (
          <Button onPress={() => setBefore([...before, data.lines.at(-1)!.id])}>{t('older')}</Button>
        )}
      </Row>
    </HousePart>
  );
}

function askedOf({
  area,
  by,
  from,
  to,
}: {
  area: string;
  by: string;
  from: string;
  to: string;
}): JournalQuery {
  return {
    ...(area ? { area } : {}),
    ...(by ? { by } : {}),
    ...(from ? { from: `${from}T00:00:00Z` } : {}),
    ...(to ? { to: new Date(Date.parse(`${to}T00:00:00Z`) + 86_400_000).toISOString() } : {}),
  };
}

function Line({ line }: { line: JournalLine }) {
  const { at, by, kind, turn, about, changes } = line;
  return (
    <tr>
      <td>
        {at.slice(0, 10)} {at.slice(11, 16)}
      </td>
      <td>{by || t('notSignedIn')}</td>
      <td>
        {journalKindWord(kind)} {JOURNAL_TURNS[turn]}
        {about && <strong style={{ display: 'block' }}>{about}</strong>}
      </td>
      <td>
        {changes.map(({ what, from, to }) => (
          <div key={what}>
            <Faded>{what}:</Faded> {turn === 'made' ? to : turn === 'gone' ? from : `${from} → ${to}`}
          </div>
        ))}
      </td>
    </tr>
  );
}

/** Takes all that fits out as a table, page by page; it can be stopped. */
function Export({ asked }: { asked: JournalQuery }) {
  const [ask] = useLazyJournalQuery();
  const [got, setGot] = useState<number | null>(null);
  const [said, setSaid] = useState('');
  const going = useRef(false);
  const take = async () => {
    going.current = true;
    setSaid('');
    const lines: JournalLine[] = [];
    for (let before = ''; going.current;) {
      setGot(lines.length);
      const { data, error } = await ask({ ...asked, ...(before ? { before } : {}) });
      if (!data) {
        setSaid(problemOf(error)?.message ?? '');
        break;
      }
      for (const line of data.lines) lines.push(line);
      if (!data.more || lines.length >= MOST) {
        saveFile(journalTable(lines), 'journal.csv');
        setSaid(data.more ? t('newestLines', { count: lines.length }) : '');
        break;
      }
      before = String(data.lines.at(-1)!.id);
    }
    going.current = false;
    setGot(null);
  };
  return (
    <>
      {got === null ? (
        <Button onPress={() => void take()}>
          <FileDown aria-hidden="true" /> {t('exportCsv')}
        </Button>
      ) : (
        <Button onPress={() => (going.current = false)}>{t('stopLines', { count: got })}</Button>
      )}
      {said && <span role="status">{said}</span>}
    </>
  );
}
