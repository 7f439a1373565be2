import type { RequestState } from '@zonal/core/api';
import { useState } from 'react';
import { Link } from 'react-router';
import { Waiting } from '../api/Waiting';
import {
  problemOf,
  useCalendarsQuery,
  useTakeCeilingRequestBackMutation,
  useTakeWishBackMutation,
} from '../api/zonalApi';
import { CeilingSheet } from '../house/CeilingSheet';
import { WishSheet } from '../inside/WishSheet';
import { Button, MainButton } from '../ui/Button';
import { dayOf } from '../ui/dayOf';
import { ActionList } from '../ui/ActionList';
import { Faded, ReadingPage, Row, Stack } from '../ui/layout';
import { Empty } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { useRequests, type Request } from './useRequests';

const STATE_WORDS: Readonly<Record<RequestState, string>> = {
  open: 'not answered yet',
  granted: 'granted',
  refused: 'declined',
  'taken-back': 'withdrawn',
};

/** Who a request of each kind is sent to. */
const SENT_TO: Readonly<Record<Request['kind'], string>> = {
  access: 'the calendar’s publishers',
  ceiling: 'the stewards',
};

/** All requests among colleagues: those that wait for an answer of the person who is signed in, and their own. */
export function RequestsPage() {
  const { requests, error } = useRequests();
  const { data: calendars = [] } = useCalendarsQuery();
  const [reviewedId, setReviewedId] = useState<string | null>(null);
  if (!requests) return <Waiting what="Fetching requests" error={error} />;
  const toAnswer = requests.filter((request) => request.toAnswer);
  const own = requests.filter((request) => request.own);
  const reviewed = toAnswer.find((request) => request.id === reviewedId);
  const close = () => setReviewedId(null);
  const reviewedCalendar = calendars.find((c) => c.id === reviewed?.calendarId);
  return (
    <ReadingPage>
      <Row style={{ justifyContent: 'space-between' }}>
        <h1>Requests</h1>
        <Link to="/calendars/directory">Ask for access in the directory</Link>
      </Row>
      <Stack as="section" aria-labelledby="requests-to-answer">
        <h2 id="requests-to-answer">For you to answer</h2>
        {!toAnswer.length && <Empty>No request waits for your answer.</Empty>}
        {toAnswer.length > 0 && (
          <ActionList aria-labelledby="requests-to-answer">
            {toAnswer.map((request) => (
              <li key={request.id}>
                <span>
                  <strong>{request.by}</strong> asks {request.kind === 'ceiling' && 'you '}to {request.words}
                  <small>
                    {dayOf(request.at)}
                    {request.reason && `: ${request.reason}`}
                  </small>
                </span>
                <MainButton
                  aria-label={`Review the request of ${request.by} to ${request.words}`}
                  onPress={() => setReviewedId(request.id)}
                >
                  Review request …
                </MainButton>
              </li>
            ))}
          </ActionList>
        )}
      </Stack>
      <Stack as="section" aria-labelledby="own-requests">
        <h2 id="own-requests">Made by you</h2>
        {!own.length && (
          <Empty>
            You have not asked for anything. Ask for access to a calendar in the directory, and for a higher
            ceiling in the studio of a window.
          </Empty>
        )}
        {own.length > 0 && (
          <ActionList aria-labelledby="own-requests">
            {own.map((request) => (
              <OwnRequest key={request.id} request={request} />
            ))}
          </ActionList>
        )}
        {own.length > 0 && <Faded>You also get each answer by mail.</Faded>}
      </Stack>
      {reviewed?.kind === 'access' && reviewedCalendar && (
        <WishSheet wish={reviewed} calendar={reviewedCalendar} onClose={close} />
      )}
      {reviewed?.kind === 'ceiling' && (
        <CeilingSheet wanted={{ ...reviewed, request: reviewed }} calendars={calendars} onClose={close} />
      )}
    </ReadingPage>
  );
}

function OwnRequest({ request }: { request: Request }) {
  const [takeWishBack, takingWish] = useTakeWishBackMutation();
  const [takeCeilingBack, takingCeiling] = useTakeCeilingRequestBackMutation();
  const { id, kind, words, state, at, answeredBy, answeredAt } = request;
  const withdraw = () => void (kind === 'access' ? takeWishBack(id) : takeCeilingBack(id));
  return (
    <li>
      <span>
        To {words}: <strong>{STATE_WORDS[state]}</strong>
        <small>
          {state === 'open' ? `Sent to ${SENT_TO[kind]} on ${dayOf(at)}` : `Sent on ${dayOf(at)}`}
          {answeredBy && `, answered by ${answeredBy} on ${dayOf(answeredAt!)}`}
        </small>
        <ProblemNotice problem={problemOf(takingWish.error ?? takingCeiling.error)} />
      </span>
      {state === 'open' && (
        <Button
          isDisabled={takingWish.isLoading || takingCeiling.isLoading}
          aria-label={`Withdraw the request to ${words}`}
          onPress={withdraw}
        >
          Withdraw
        </Button>
      )}
    </li>
  );
}
