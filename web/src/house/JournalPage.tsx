import type { JournalLine } from '@zonal/core/api';
import { journalTable } from '@zonal/core/forms';
import { JOURNAL_AREAS, JOURNAL_KINDS, JOURNAL_TURNS } from '@zonal/core/journal';
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
    <HousePart title="Journal of changes">
      <Faded>
        What was changed is noted as it is changed, and can be altered by nobody here. Moments are told in
        UTC. What calendars hold has a history of its own, what readers saw stands in the ledger.
      </Faded>
      <Row style={{ alignItems: 'end' }}>
        <SelectOne
          label="About"
          value={filter.area}
          options={[
            { value: '', text: 'everything' },
            ...Object.entries(JOURNAL_AREAS).map(([value, text]) => ({ value, text })),
          ]}
          onChange={(area) => set({ area })}
        />
        <SelectOne
          label="By"
          value={filter.by}
          options={[
            { value: '', text: 'anybody' },
            ...(data?.people ?? []).map((p) => ({ value: p.id, text: p.name })),
          ]}
          onChange={(by) => set({ by })}
        />
        <DateField label="From" value={filter.from} onChange={(from) => set({ from })} />
        <DateField label="To the end of" value={filter.to} onChange={(to) => set({ to })} />
        {(filter.from || filter.to) && <Button onPress={() => set({ from: '', to: '' })}>At any time</Button>}
        <Export asked={asked} />
      </Row>
      {!data && <Waiting what="Fetching the journal" error={error} />}
      {data && !data.lines.length && <Empty>Nothing that fits was changed.</Empty>}
      {data && data.lines.length > 0 && (
        <Table aria-label="Journal" aria-busy={isFetching}>
          <thead>
            <tr>
              <th scope="col">When</th>
              <th scope="col">By</th>
              <th scope="col">What</th>
              <th scope="col">From what to what</th>
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
        {before.length > 0 && <Button onPress={() => setBefore(before.slice(0, -1))}>Newer</Button>}
        {data?.more && <Button onPress={() => setBefore([...before, data.lines.at(-1)!.id])}>Older</Button>}
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
      <td>{by || 'nobody signed in'}</td>
      <td>
        {JOURNAL_KINDS[kind].word} {JOURNAL_TURNS[turn]}
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
        setSaid(data.more ? `The newest ${lines.length} lines. Choose days to get older ones.` : '');
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
          <FileDown aria-hidden="true" /> Take out as CSV
        </Button>
      ) : (
        <Button onPress={() => (going.current = false)}>Stop: {got} lines so far</Button>
      )}
      {said && <span role="status">{said}</span>}
    </>
  );
}
