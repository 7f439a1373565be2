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
import { t } from '../../texts/outside';

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
  { value: 'all', text: t('allWindows') },
  { value: 'behind', text: t('notAllHave') },
  { value: 'trouble', text: t('lateOrSilent') },
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
          <Term word="reach">{t('reach')}</Term>
        </h1>
        <Faded>{t('reachHint')}</Faded>
      </div>
      {!data && <Waiting what={t('counting')} error={error} />}
      {data && (
        <>
          <Alerts now={Date.parse(data.at)} />
          <Row>
            <SelectOne label={t('show')} value={show} options={SHOW} onChange={setShow} />
            <Field label={t('name')} value={find} onChange={setFind} />
          </Row>
          {lines!.length === 0 ? (
            <Empty>{data.windows.length ? t('noSuchReach') : t('noReach')}</Empty>
          ) : (
            <PlainTable aria-label={t('windowsAndReaders')}>
              <thead>
                <tr>
                  <th>{t('window')}</th>
                  <th style={{ width: '34%' }}>{t('readers')}</th>
                  <th>{t('haveLatest')}</th>
                  <th>{t('theRest')}</th>
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
            <summary>{t('statesMean')}</summary>
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
          {t('addresses', { count: keys })}
          {changedAt && t('changedAgo', { length: agoWords(changedAt, now) })}
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
            <small>{t('holdingOf', { holding, readers: readersWords(readers) })}</small>
          </>
        ) : (
          '–'
        )}
      </td>
      <td>
        {rest === 0 ? (
          readers > 0 && t('allHaveIt')
        ) : (
          <>
            {holding * 2 < readers && <span>{t('halfBy', { time: byWords(halfBy, now) })} </span>}
            {holding < readers * 0.9 && (
              <span>{nineInTenBy ? t('nineBy', { time: byWords(nineInTenBy, now) }) : t('nineNot')}</span>
            )}
            <small>
              {never
                ? t('neverHave', { readers: readersWords(never) })
                : t('stillToPoll', { readers: readersWords(rest) })}
            </small>
          </>
        )}
      </td>
    </tr>
  );
}
