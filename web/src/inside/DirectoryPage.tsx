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
  if (!directory) return <Waiting what="Fetching the directory" error={error} />;
  const sought = text.trim().toLowerCase();
  const found = directory.filter((c) =>
    [c.name, c.description, c.plate, ...c.publishers].some((t) => t.toLowerCase().includes(sought)),
  );
  return (
    <ReadingPage>
      <Row style={{ justifyContent: 'space-between' }}>
        <h1>Directory of calendars</h1>
        <Row>
          <Link to="/requests">Your requests</Link>
          <Link to="/calendars">Back to the desk</Link>
        </Row>
      </Row>
      <Stack as="section" aria-labelledby="all">
        <Row style={{ justifyContent: 'space-between', alignItems: 'end' }}>
          <h2 id="all">Calendars of the house that you may know of</h2>
          <Field label="Find" value={text} onChange={setText} />
        </Row>
        {!found.length && (
          <Empty>{directory.length ? 'None of them fits what you look for.' : 'There are none yet.'}</Empty>
        )}
        {found.length > 0 && (
          <Lines aria-label="Calendars of the house">
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
          {publishers.length ? `Published by ${publishers.join(', ')}. ` : 'Nobody publishes it just now. '}
          {sight === 'shut' ? 'You see nothing of it.' : sightWords(calendar)}
        </small>
        {error && <ProblemNotice problem={problemOf(error)} />}
      </span>
      <Row>
        {more && (
          <Button
            aria-label={`${sight === 'shut' ? 'Ask to see' : 'Ask for more of'} ${name}`}
            onPress={onAsk}
          >
            {sight === 'shut' ? 'Ask to see …' : 'Ask for more …'}
          </Button>
        )}
        {sight !== 'shut' && (
          <Button
            isDisabled={isLoading}
            aria-label={onDesk ? `Take ${name} off the desk` : `Put ${name} on the desk`}
            onPress={() => void put({ id, onDesk: !onDesk })}
          >
            {onDesk ? 'Take off the desk' : 'Put on the desk'}
          </Button>
        )}
      </Row>
    </li>
  );
}
