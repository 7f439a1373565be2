import { AUDIENCES, GLASSES, type Glass } from '@zonal/core/glass';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useCalendarsQuery, useCeilingsQuery } from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import { Rings } from '../ui/GlassMark';
import { Faded, Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Plate } from '../ui/Plate';
import { Term } from '../ui/Term';
import { dayOf } from '../ui/dayOf';
import { CeilingSheet, type WantedCeiling } from './CeilingSheet';
import { t } from '../texts/house';
import { AUDIENCE_WORDS, GLASS_WORDS } from '../texts/glassWords';

const Wide = styled.div`
  overflow-x: auto;
  table {
    border-collapse: collapse;
    background: var(--sheet);
    border: 1px solid var(--line);
    min-width: 44rem;
    width: 100%;
  }
  th,
  td {
    text-align: left;
    padding: 0.4rem 0.6rem;
    border-bottom: 1px solid var(--hair);
    font-weight: 400;
    vertical-align: top;
  }
  select {
    padding: 0.2rem 0.3rem;
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: 2px;
  }
  small {
    display: block;
    color: var(--faded);
    font-size: 0.75rem;
  }
`;

/** The clearest glass that each audience may ever get, for the house and for each calendar. */
export function CeilingsPanel({ steward }: { steward: boolean }) {
  const { data, error } = useCeilingsQuery();
  const { data: calendars = [] } = useCalendarsQuery();
  const [wanted, setWanted] = useState<WantedCeiling | null>(null);
  if (!data) return <Waiting what={t('fetchingCeilings')} error={error} />;
  const waiting = data.requests.filter((r) => r.toAnswer).length;
  const rows = [null, ...calendars.filter((c) => !c.archivedAt)];
  return (
    <Stack as="section" aria-labelledby="ceilings">
      <h2 id="ceilings">
        <Term word="ceiling">{t('ceilings')}</Term>
      </h2>
      <Faded>{t('ceilingsHint')}</Faded>
      {waiting > 0 && (
        <Notice>
          <Link to="/requests">{t('ceilingRequests', { count: waiting })}</Link>
        </Notice>
      )}
      <Wide>
        <table>
          <thead>
            <tr>
              <th scope="col">{t('for')}</th>
              {AUDIENCES.map((a) => (
                <th scope="col" key={a}>
                  <Row style={{ gap: '0.35rem' }}>
                    <Rings audience={a} /> {AUDIENCE_WORDS[a].word}
                  </Row>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((calendar) => (
              <tr key={calendar?.id ?? 'house'}>
                <th scope="row">
                  {calendar ? (
                    <Row style={{ flexWrap: 'nowrap' }}>
                      <Plate {...calendar} /> {calendar.name}
                    </Row>
                  ) : (
                    <strong>{t('wholeHouseHead')}</strong>
                  )}
                </th>
                {AUDIENCES.map((audience) => {
                  const calendarId = calendar?.id ?? null;
                  const own = data.ceilings.find(
                    (c) => c.calendarId === calendarId && c.audience === audience,
                  );
                  return (
                    <td key={audience}>
                      {steward ? (
                        <select
                          aria-label={t('ceilingOf', {
                            place: calendar?.name ?? t('theHouse'),
                            audience: AUDIENCE_WORDS[audience].word,
                          })}
                          value={own?.glass ?? ''}
                          onChange={(e) =>
                            setWanted({
                              calendarId,
                              audience,
                              glass: (e.target.value || null) as Glass | null,
                            })
                          }
                        >
                          <option value="">{t('none')}</option>
                          {GLASSES.map((g) => (
                            <option key={g} value={g}>
                              {GLASS_WORDS[g].word}
                            </option>
                          ))}
                        </select>
                      ) : (
                        <span>{own ? GLASS_WORDS[own.glass].word : 'none'}</span>
                      )}
                      {own && (
                        <small>
                          {own.by}, {dayOf(own.at)}
                        </small>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      {wanted && <CeilingSheet wanted={wanted} calendars={calendars} onClose={() => setWanted(null)} />}
    </Stack>
  );
}
