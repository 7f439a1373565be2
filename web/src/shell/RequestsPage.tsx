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
import { t } from '../texts/shell';

const STATE_WORDS: Readonly<Record<RequestState, string>> = {
  open: t('requestOpen'),
  granted: t('requestGranted'),
  refused: t('requestDeclined'),
  'taken-back': t('requestWithdrawn'),
};

/** Who a request of each kind is sent to. */
const SENT_TO: Readonly<Record<Request['kind'], string>> = {
  access: t('sentToPublishers'),
  ceiling: t('sentToStewards'),
};

/** All requests among colleagues: those that wait for an answer of the person who is signed in, and their own. */
export function RequestsPage() {
  const { requests, error } = useRequests();
  const { data: calendars = [] } = useCalendarsQuery();
  const [reviewedId, setReviewedId] = useState<string | null>(null);
  if (!requests) return <Waiting what={t('fetchingRequests')} error={error} />;
  const toAnswer = requests.filter((request) => request.toAnswer);
  const own = requests.filter((request) => request.own);
  const reviewed = toAnswer.find((request) => request.id === reviewedId);
  const close = () => setReviewedId(null);
  const reviewedCalendar = calendars.find((c) => c.id === reviewed?.calendarId);
  return (
    <ReadingPage>
      <Row style={{ justifyContent: 'space-between' }}>
        <h1>{t('requests')}</h1>
        <Link to="/calendars/directory">{t('askInDirectory')}</Link>
      </Row>
      <Stack as="section" aria-labelledby="requests-to-answer">
        <h2 id="requests-to-answer">{t('requestsForYou')}</h2>
        {!toAnswer.length && <Empty>{t('noRequestsForYou')}</Empty>}
        {toAnswer.length > 0 && (
          <ActionList aria-labelledby="requests-to-answer">
            {toAnswer.map((request) => (
              <li key={request.id}>
                <span>
                  {t.rich(request.kind === 'ceiling' ? 'asksCeiling' : 'asksAccess', {
                    by: request.by,
                    words: request.words,
                    strong: (text) => <strong>{text}</strong>,
                  })}
                  <small>
                    {dayOf(request.at)}
                    {request.reason && `: ${request.reason}`}
                  </small>
                </span>
                <MainButton
                  aria-label={t('reviewRequestOf', { by: request.by, words: request.words })}
                  onPress={() => setReviewedId(request.id)}
                >
                  {t('reviewRequest')}
                </MainButton>
              </li>
            ))}
          </ActionList>
        )}
      </Stack>
      <Stack as="section" aria-labelledby="own-requests">
        <h2 id="own-requests">{t('requestsByYou')}</h2>
        {!own.length && <Empty>{t('noRequestsByYou')}</Empty>}
        {own.length > 0 && (
          <ActionList aria-labelledby="own-requests">
            {own.map((request) => (
              <OwnRequest key={request.id} request={request} />
            ))}
          </ActionList>
        )}
        {own.length > 0 && <Faded>{t('answersByMail')}</Faded>}
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
        {t.rich('ownRequest', {
          words,
          state: STATE_WORDS[state],
          strong: (text) => <strong>{text}</strong>,
        })}
        <small>
          {state === 'open'
            ? t('requestSentTo', { to: SENT_TO[kind], day: dayOf(at) })
            : t('requestSent', { day: dayOf(at) })}
          {answeredBy && t('requestAnswered', { by: answeredBy, day: dayOf(answeredAt!) })}
        </small>
        <ProblemNotice problem={problemOf(takingWish.error ?? takingCeiling.error)} />
      </span>
      {state === 'open' && (
        <Button
          isDisabled={takingWish.isLoading || takingCeiling.isLoading}
          aria-label={t('withdrawRequest', { words })}
          onPress={withdraw}
        >
          {t('withdraw')}
        </Button>
      )}
    </li>
  );
}
