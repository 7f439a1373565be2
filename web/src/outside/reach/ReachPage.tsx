import type { ReachLine } from '@zonal/core/api';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useReachQuery } from '../../api/zonalApi';
import { Waiting } from '../../api/Waiting';
import { SelectOne } from '../../ui/Choice';
import { Field } from '../../ui/Field';
import { Faded, PlainTable, Row, Stack } from '../../ui/layout';
import { Empty } from '../../ui/Notice';
import { Alerts } from './Alerts';
import { StateBar, Swatch } from './StateBar';
import { byWords, percent, readersWords } from '../../ui/timeWords';
import { STATE_ORDER, STATE_RULES, STATE_WORDS, agoWords, countWords } from './reachWords';
import { Term } from '../../ui/Term';

/** So often, in milliseconds, the figures are fetched anew. */
export const LIVE = 3_000;

const Legend = styled.dl`
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 0.25rem 0.8rem;
  margin: 0.5rem 0 0;
  dd {
    margin: 0;
    color: var(--faded);
  }
`;

const SHOW = [
  { value: 'all', text: 'all windows' },
  { value: 'behind', text: 'those that not all have' },
  { value: 'trouble', text: 'those with late or silent readers' },
] as const;
type Show = (typeof SHOW)[number]['value'];

const SHOWN: Readonly<Record<Show, (line: ReachLine) => boolean>> = {
  all: () => true,
  behind: (l) => l.holding < l.readers,
  trouble: (l) => l.counts.late + l.counts.silent + l.counts.once > 0,
};

/** Whether the subscribers of all windows are in sync, a line each. */
export function ReachPage() {
  const { data, error } = useReachQuery(undefined, { pollingInterval: LIVE });
  const [show, setShow] = useState<Show>('all');
  const [find, setFind] = useState('');
  const wanted = find.trim().toLowerCase();
  const lines = data?.windows.filter(
    (l) => !l.closed && SHOWN[show](l) && l.name.toLowerCase().includes(wanted),
  );
  return (
    <Stack>
      <div>
        <h1>
          <Term word="reach">Reach</Term>
        </h1>
        <Faded>
          Who has the latest version, and when the rest should get it. Times are on the clocks of this device.
        </Faded>
      </div>
      {!data && <Waiting what="Counting" error={error} />}
      {data && (
        <>
          <Alerts now={Date.parse(data.at)} />
          <Row>
            <SelectOne label="Show" value={show} options={SHOW} onChange={setShow} />
            <Field label="Name" value={find} onChange={setFind} />
          </Row>
          {lines!.length === 0 ? (
            <Empty>
              {data.windows.length
                ? 'No window is like that.'
                : 'There is no window over a calendar that you publish. Open one under Windows.'}
            </Empty>
          ) : (
            <PlainTable aria-label="Windows and their readers">
              <thead>
                <tr>
                  <th>Window</th>
                  <th style={{ width: '34%' }}>Readers</th>
                  <th>Hold the newest</th>
                  <th>The rest</th>
                </tr>
              </thead>
              <tbody>
                {lines!.map((line) => (
                  <Line key={line.id} line={line} now={Date.parse(data.at)} />
                ))}
              </tbody>
            </PlainTable>
          )}
          <details>
            <summary>What the states mean</summary>
            <Legend>
              {STATE_ORDER.map((s) => [
                <dt key={s}>
                  <Swatch $state={s} />
                  {STATE_WORDS[s]}
                </dt>,
                <dd key={`${s} rule`}>{STATE_RULES[s]}</dd>,
              ])}
            </Legend>
          </details>
        </>
      )}
    </Stack>
  );
}

function Line({ line, now }: { line: ReachLine; now: number }) {
  const { id, name, keys, readers, counts, holding, changedAt, halfBy, nineInTenBy, never } = line;
  const rest = readers - holding;
  return (
    <tr>
      <td>
        <Link to={`/reach/${id}`}>
          <strong>{name}</strong>
        </Link>
        <small>
          {keys} {keys === 1 ? 'address' : 'addresses'}
          {changedAt && `; changed ${agoWords(changedAt, now)}`}
        </small>
      </td>
      <td>
        {readers > 0 && <StateBar counts={counts} />}
        <small>{countWords(counts)}</small>
      </td>
      <td>
        {readers > 0 ? (
          <>
            <strong>{percent(holding / readers)}</strong>
            <small>
              {holding} of {readersWords(readers)}
            </small>
          </>
        ) : (
          '–'
        )}
      </td>
      <td>
        {rest === 0 ? (
          readers > 0 && 'all have it'
        ) : (
          <>
            {holding * 2 < readers && <span>half {byWords(halfBy, now)}; </span>}
            {holding < readers * 0.9 && (
              <span>
                {nineInTenBy
                  ? `nine in ten ${byWords(nineInTenBy, now)}`
                  : 'nine in ten will not have it this week'}
              </span>
            )}
            <small>
              {never
                ? `${readersWords(never)} will probably never have it`
                : `${readersWords(rest)} still to look`}
            </small>
          </>
        )}
      </td>
    </tr>
  );
}
