import type { DirectoryCalendar } from '@zonal/core/api';
import { may } from '@zonal/core/rights';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { problemOf, useDirectoryQuery, usePutOnDeskMutation } from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { NotedList, ReadingPage, Row, Stack } from '../ui/layout';
import { Empty } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Plate } from '../ui/Plate';
import { AskSheet } from './AskSheet';
import { sightWords } from './sightWords';
import { t } from '../texts/inside';

const Lines = styled(NotedList)`
  > li {
    display: grid;
    grid-template-columns: 3.4rem minmax(0, 1fr) auto;
    gap: 0.4rem 0.9rem;
    align-items: center;
    @media (max-width: 44rem) {
      grid-template-columns: 3.4rem minmax(0, 1fr);
      > :last-child {
        grid-column: 2;
      }
    }
  }
`;

/** All calendars that the person may know of: to put on the desk, to take off it, or to ask for. */
export function DirectoryPage() {
  const { data: directory, error } = useDirectoryQuery(undefined, { refetchOnMountOrArgChange: true });
  const [text, setText] = useState('');
  const [asking, setAsking] = useState<DirectoryCalendar | null>(null);
  if (!directory) return <Waiting what={t('fetchingDirectory')} error={error} />;
  const sought = text.trim().toLowerCase();
  const found = directory.filter((c) =>
    [c.name, c.description, c.plate, ...c.publishers].some((t) => t.toLowerCase().includes(sought)),
  );
  return (
    <ReadingPage>
      <Row style={{ justifyContent: 'space-between' }}>
        <h1>{t('directoryTitle')}</h1>
        <Row>
          <Link to="/requests">{t('yourRequests')}</Link>
          <Link to="/calendars">{t('backToCalendars')}</Link>
        </Row>
      </Row>
      <Stack as="section" aria-labelledby="all">
        <Row style={{ justifyContent: 'space-between', alignItems: 'end' }}>
          <h2 id="all">{t('directoryHint')}</h2>
          <Field label={t('find')} value={text} onChange={setText} />
        </Row>
        {!found.length && <Empty>{directory.length ? t('directoryNotFound') : t('directoryEmpty')}</Empty>}
        {found.length > 0 && (
          <Lines aria-label={t('directoryList')}>
            {found.map((calendar) => (
              <Line key={calendar.id} calendar={calendar} onAsk={() => setAsking(calendar)} />
            ))}
          </Lines>
        )}
      </Stack>
      {asking && <AskSheet calendar={asking} onClose={() => setAsking(null)} />}
    </ReadingPage>
  );
}

function Line({ calendar, onAsk }: { calendar: DirectoryCalendar; onAsk: () => void }) {
  const [put, { error, isLoading }] = usePutOnDeskMutation();
  const { id, name, description, publishers, sight, who, onDesk } = calendar;
  const more = may('ask-to-see', who);
  return (
    <li>
      <Plate {...calendar} />
      <span>
        <strong>{name}</strong>
        {description && <small>{description}</small>}
        <small>
          {publishers.length
            ? t('publishedBy', { publishers: publishers.join(', ') })
            : t('publishedByNobody')}
          {sight === 'shut' ? t('seeNothing') : sightWords(calendar)}
        </small>
        {error && <ProblemNotice problem={problemOf(error)} />}
      </span>
      <Row>
        {more && (
          <Button
            aria-label={t(sight === 'shut' ? 'askToSeeNamed' : 'askForMoreNamed', { name })}
            onPress={onAsk}
          >
            {sight === 'shut' ? t('askToSee') : t('askForMore')}
          </Button>
        )}
        {sight !== 'shut' && (
          <Button
            isDisabled={isLoading}
            aria-label={onDesk ? t('hideNamed', { name }) : t('showNamed', { name })}
            onPress={() => void put({ id, onDesk: !onDesk })}
          >
            {onDesk ? t('hideFromView') : t('showInView')}
          </Button>
        )}
      </Row>
    </li>
  );
}
