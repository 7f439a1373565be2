import type { ReachForecast, ReachView } from '@zonal/core/api';
import { shareAfter } from '@zonal/core/reach';
import { Suspense, lazy, useState } from 'react';
import styled from 'styled-components';
import { SelectOne } from '../../ui/Choice';
import { Faded, PlainTable, Stack } from '../../ui/layout';
import { Loading } from '../../ui/Notice';
import { useNow } from '../../ui/useNow';
import { byWords, lengthWords, momentWords, percent, readersWords } from '../../ui/timeWords';
import { t } from '../../texts/outside';

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
    halfBy && t('halfExpected', { time: byWords(halfBy, made - 1) }),
    nineInTenBy && t('nineBy', { time: byWords(nineInTenBy, made - 1) }),
    never > 0 && t('probablyNever', { readers: readersWords(never) }),
  ].filter(Boolean);
  return t('expectedWhenMade', { readers: readersWords(readers), forecast: by.join(', ') });
}

/** How the newest revisions of a view spread, one at a time: what was expected of each, and what happened. */
export function Spread({ view }: { view: ReachView }) {
  const now = useNow();
  const { revisions } = view;
  const [chosen, setChosen] = useState<number | null>(null);
  const revision =
    revisions.find((r) => r.number === chosen) ?? revisions.find((r) => r.forecast) ?? revisions[0];
  if (!revision) return <Faded>{t('nothingShownSo')}</Faded>;
  const { forecast, actual, at } = revision;
  const last = actual.at(-1);
  const parts = [
    revision.appeared && t('appeared', { count: revision.appeared }),
    revision.vanished && t('vanished', { count: revision.vanished }),
    revision.changed && t('changed', { count: revision.changed }),
  ].filter(Boolean);
  return (
    <Stack>
      <SelectOne
        label={t('change')}
        value={String(revision.number)}
        options={revisions.map((r) => ({
          value: String(r.number),
          text: t('revisionAt', { number: r.number, time: momentWords(r.at, now) }),
        }))}
        onChange={(n) => setChosen(Number(n))}
      />
      <p>
        {parts.join(', ') || t('textsChanged')}.{' '}
        {forecast ? expectedWords(forecast, Date.parse(at)) : t('nobodyFollowed')}
        {last && t('hadItAfter', { share: percent(last.share), length: lengthWords(last.after || 1000) })}
      </p>
      {forecast && (
        <>
          <Suspense fallback={<Loading what={t('drawing')} />}>
            <SpreadChart
              label={t('spreadChart', { number: revision.number })}
              expected={forecast.curve}
              happened={actual}
            />
          </Suspense>
          <Key aria-hidden="true">
            <span>
              <i /> {t('expected')}
            </span>
            <span>
              <i data-solid="" /> {t('happened')}
            </span>
          </Key>
          <details>
            <summary>{t('sameAsTable')}</summary>
            <PlainTable>
              <thead>
                <tr>
                  <th>{t('after')}</th>
                  <th>{t('expectedToHave')}</th>
                  <th>{t('hadIt')}</th>
                </tr>
              </thead>
              <tbody>
                {forecast.curve.map(({ after, share }) => (
                  <tr key={after}>
                    <td>{after ? lengthWords(after) : t('atOnce')}</td>
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
