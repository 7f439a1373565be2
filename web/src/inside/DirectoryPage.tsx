import type { Calendar, DirectoryCalendar, Wish } from '@zonal/core/api';
import { may, wishWords } from '@zonal/core/rights';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import {
  problemOf,
  useCalendarsQuery,
  useDirectoryQuery,
  usePutOnDeskMutation,
  useTakeWishBackMutation,
  useWishesQuery,
} from '../api/zonalApi';
import { Button, MainButton } from '../ui/Button';
import { dayOf } from '../ui/dayOf';
import { Field } from '../ui/Field';
import { Faded, NotedList, ReadingPage, Row, Stack } from '../ui/layout';
import { Empty, Loading } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Plate } from '../ui/Plate';
import { AskSheet } from './AskSheet';
import { sightWords } from './sightWords';
import { WishSheet } from './WishSheet';

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

const WishLines = styled(NotedList)`
  > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0.4rem 0.9rem;
    align-items: center;
  }
`;

const STATES: Readonly<Record<Wish['state'], string>> = {
  open: 'not answered yet',
  granted: 'granted',
  refused: 'not granted',
  'taken-back': 'taken back',
};

/** All calendars of the house that one may know of: put on the desk, taken off, or asked for. */
export function DirectoryPage() {
  const { data: directory, error } = useDirectoryQuery(undefined, { refetchOnMountOrArgChange: true });
  const { data: wishes = [] } = useWishesQuery(undefined, { refetchOnMountOrArgChange: true });
  const { data: calendars = [] } = useCalendarsQuery();
  const [text, setText] = useState('');
  const [asking, setAsking] = useState<DirectoryCalendar | null>(null);
  const [answering, setAnswering] = useState<{ wish: Wish; calendar: Calendar } | null>(null);
  if (error) return <ProblemNotice problem={problemOf(error)} />;
  if (!directory) return <Loading what="Fetching the directory" />;
  const sought = text.trim().toLowerCase();
  const found = directory.filter((c) =>
    [c.name, c.description, c.plate, ...c.publishers].some((t) => t.toLowerCase().includes(sought)),
  );
  const toAnswer = wishes.flatMap((wish) => {
    const calendar = calendars.find((c) => c.id === wish.calendarId);
    return wish.toAnswer && calendar ? [{ wish, calendar }] : [];
  });
  return (
    <ReadingPage>
      <Row style={{ justifyContent: 'space-between' }}>
        <h1>Directory of calendars</h1>
        <Link to="/calendars">Back to the desk</Link>
      </Row>
      {toAnswer.length > 0 && (
        <Stack as="section" aria-labelledby="to-answer">
          <h2 id="to-answer">Wishes that wait for your answer</h2>
          <WishLines aria-labelledby="to-answer">
            {toAnswer.map(({ wish, calendar }) => (
              <li key={wish.id}>
                <span>
                  <strong>{wish.by}</strong> asks to {wishWords(wish, wish.calendar)}
                  <small>
                    {dayOf(wish.at)}
                    {wish.reason && `: ${wish.reason}`}
                  </small>
                </span>
                <MainButton onPress={() => setAnswering({ wish, calendar })}>Look and answer …</MainButton>
              </li>
            ))}
          </WishLines>
        </Stack>
      )}
      <OwnWishes wishes={wishes.filter((w) => w.own)} />
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
      {answering && <WishSheet {...answering} onClose={() => setAnswering(null)} />}
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

function OwnWishes({ wishes }: { wishes: readonly Wish[] }) {
  const [takeBack, { error, isLoading }] = useTakeWishBackMutation();
  if (!wishes.length) return null;
  return (
    <Stack as="section" aria-labelledby="own-wishes">
      <h2 id="own-wishes">What you asked for</h2>
      {error && <ProblemNotice problem={problemOf(error)} />}
      <WishLines aria-labelledby="own-wishes">
        {wishes.map((wish) => (
          <li key={wish.id}>
            <span>
              To {wishWords(wish, wish.calendar)}: <strong>{STATES[wish.state]}</strong>
              <small>
                asked {dayOf(wish.at)}
                {wish.answeredBy && `, answered by ${wish.answeredBy}, ${dayOf(wish.answeredAt!)}`}
              </small>
            </span>
            {wish.state === 'open' && (
              <Button
                isDisabled={isLoading}
                aria-label={`Take back: ${wish.calendar}`}
                onPress={() => void takeBack(wish.id)}
              >
                Take back
              </Button>
            )}
          </li>
        ))}
      </WishLines>
      <Faded>An answer stays here, and came by mail.</Faded>
    </Stack>
  );
}
