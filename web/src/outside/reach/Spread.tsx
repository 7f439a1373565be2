import type { ReachForecast, ReachView } from '@zonal/core/api';
import { shareAfter } from '@zonal/core/reach';
import { Suspense, lazy, useState } from 'react';
import styled from 'styled-components';
import { SelectOne } from '../../ui/Choice';
import { Faded, PlainTable, Stack } from '../../ui/layout';
import { Loading } from '../../ui/Notice';
import { useNow } from '../../ui/useNow';
import { byWords, lengthWords, momentWords, percent, readersWords } from '../../ui/timeWords';

const SpreadChart = lazy(() => import('./SpreadChart'));

const Key = styled.p`
  display: flex;
  gap: 1.2rem;
  flex-wrap: wrap;
  color: var(--faded);
  font-size: 0.85rem;
  i {
    display: inline-block;
    width: 1.8rem;
    border-top: 2px dashed var(--ink);
    vertical-align: 0.25em;
    margin-right: 0.4rem;
  }
  i + i,
  i[data-solid] {
    border-top: 3px solid var(--ink);
  }
`;

/** Returns what was expected of a revision when it was made, in words. */
function expectedWords({ readers, halfBy, nineInTenBy, never }: ReachForecast, made: number): string {
  const by = [
    halfBy && `half were expected ${byWords(halfBy, made - 1)}`,
    nineInTenBy && `nine in ten ${byWords(nineInTenBy, made - 1)}`,
    never > 0 && `${readersWords(never)} probably never`,
  ].filter(Boolean);
  return `When it was made, ${readersWords(readers)} followed: ${by.join(', ')}.`;
}

/** How the newest revisions of a view spread, one at a time: what was expected of each, and what happened. */
export function Spread({ view }: { view: ReachView }) {
  const now = useNow();
  const { revisions } = view;
  const [chosen, setChosen] = useState<number | null>(null);
  const revision =
    revisions.find((r) => r.number === chosen) ?? revisions.find((r) => r.forecast) ?? revisions[0];
  if (!revision) return <Faded>Nothing was shown in this way yet.</Faded>;
  const { forecast, actual, at } = revision;
  const last = actual.at(-1);
  const parts = [
    revision.appeared && `${revision.appeared} appeared`,
    revision.vanished && `${revision.vanished} vanished`,
    revision.changed && `${revision.changed} changed`,
  ].filter(Boolean);
  return (
    <Stack>
      <SelectOne
        label="Change"
        value={String(revision.number)}
        options={revisions.map((r) => ({
          value: String(r.number),
          text: `Revision ${r.number}, ${momentWords(r.at, now)}`,
        }))}
        onChange={(n) => setChosen(Number(n))}
      />
      <p>
        {parts.join(', ') || 'The window named itself otherwise'}.{' '}
        {forecast ? expectedWords(forecast, Date.parse(at)) : 'Nobody followed when it was made.'}
        {last && ` ${percent(last.share)} had it after ${lengthWords(last.after || 1000)}.`}
      </p>
      {forecast && (
        <>
          <Suspense fallback={<Loading what="Drawing" />}>
            <SpreadChart
              label={`How revision ${revision.number} spread: the table below says the same`}
              expected={forecast.curve}
              happened={actual}
            />
          </Suspense>
          <Key aria-hidden="true">
            <span>
              <i /> expected
            </span>
            <span>
              <i data-solid="" /> happened
            </span>
          </Key>
          <details>
            <summary>The same as a table</summary>
            <PlainTable>
              <thead>
                <tr>
                  <th>After</th>
                  <th>Expected to hold it</th>
                  <th>Held it</th>
                </tr>
              </thead>
              <tbody>
                {forecast.curve.map(({ after, share }) => (
                  <tr key={after}>
                    <td>{after ? lengthWords(after) : 'at once'}</td>
                    <td>{percent(share)}</td>
                    <td>{last && after <= last.after ? percent(shareAfter(actual, after)) : '–'}</td>
                  </tr>
                ))}
              </tbody>
            </PlainTable>
          </details>
        </>
      )}
    </Stack>
  );
}
