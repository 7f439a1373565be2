import { may } from '@zonal/core/rights';
import { PanelsTopLeft, TriangleAlert } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { useCalendarsQuery, useWindowsQuery } from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import { MainButton } from '../ui/Button';
import { GlassMark, Rings } from '../ui/GlassMark';
import { PlainTable, Row, Stack } from '../ui/layout';
import { Empty } from '../ui/Notice';
import { Plate } from '../ui/Plate';
import { useNow } from '../ui/useNow';
import { windowNotes } from './windowNotes';
import { Term } from '../ui/Term';
import { t } from '../texts/glass';
import { AUDIENCE_WORDS, GLASS_WORDS } from '../texts/glassWords';
import { whoMay } from '../texts/rightsWords';

const Table = styled(PlainTable)`
  td:first-child a {
    font-weight: 700;
  }
`;

const Open = styled.span`
  color: var(--outside);
`;

const Note = styled.span`
  display: block;
  max-width: 22rem;
  font-size: 0.85rem;
  overflow-wrap: anywhere;
  svg {
    width: 0.85rem;
    height: 0.85rem;
    vertical-align: -0.12em;
    color: var(--warn);
  }
`;

export function WindowsPage() {
  const { data: windows, error } = useWindowsQuery();
  const { data: calendars } = useCalendarsQuery();
  const navigate = useNavigate();
  const now = useNow();
  if (!windows) return <Waiting what={t('fetchingWindows')} error={error} />;
  const openNew = calendars?.some((c) => may('publish', c.who)) && (
    <MainButton onPress={() => void navigate('/windows/new')}>
      <PanelsTopLeft aria-hidden="true" /> {t('openAWindow')}
    </MainButton>
  );
  return (
    <Stack>
      <Row style={{ justifyContent: 'space-between' }}>
        <h1>
          <Term word="window">{t('windows')}</Term>
        </h1>
        {openNew}
      </Row>
      <p>{t.rich('windowsHint', { link: (text) => <Link to="/sheets">{text}</Link> })}</p>
      {!windows.length ? (
        <Empty>
          <p>{openNew ? t('noWindows') : t('noWindowsForYou', { who: whoMay('publish') })}</p>
          {openNew}
        </Empty>
      ) : (
        <Table>
          <thead>
            <tr>
              <th scope="col">{t('window')}</th>
              <th scope="col">{t('showsThrough')}</th>
              <th scope="col">{t('forWhom')}</th>
              <th scope="col">{t('state')}</th>
            </tr>
          </thead>
          <tbody>
            {windows.map((w) => (
              <tr key={w.id}>
                <td>
                  <Link to={`/windows/${w.id}`}>{w.wording.name}</Link>
                  <small>{w.wording.description}</small>
                </td>
                <td>
                  {w.sources.map((s) => {
                    const calendar = calendars?.find((c) => c.id === s.calendarId);
                    return (
                      <Row key={s.calendarId}>
                        {calendar && <Plate {...calendar} />}
                        <span>
                          <GlassMark glass={s.glass} /> {GLASS_WORDS[s.glass].word},{' '}
                          {GLASS_WORDS[s.glass].plain}
                        </span>
                      </Row>
                    );
                  })}
                </td>
                <td>
                  {[...new Set(w.keys.map((k) => k.audience))].map((audience) => (
                    <span key={audience}>
                      <Rings audience={audience} /> {AUDIENCE_WORDS[audience].word}
                      <small>{AUDIENCE_WORDS[audience].plain}</small>
                    </span>
                  ))}
                </td>
                <td>
                  {w.closedAt ? (
                    <>{t('closed')}</>
                  ) : (
                    <Open>
                      {w.trouble?.shows === 'nothing' ? t('openShowsNothing') : t('openOutside')}
                      <small>{t(w.listed ? 'keysListed' : 'keysUnlisted', { count: w.keys.length })}</small>
                    </Open>
                  )}
                  {windowNotes(w, calendars ?? [], now).map((note) => (
                    <Note key={note}>
                      <TriangleAlert aria-hidden="true" /> {note}
                    </Note>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
    </Stack>
  );
}
