import type { Calendar, Wish } from '@zonal/core/api';
import { standingWords, wishWords } from '@zonal/core/rights';
import { useState } from 'react';
import { problemOf, useAnswerWishMutation, useCalendarPeopleQuery } from '../api/zonalApi';
import { Button, MainButton } from '../ui/Button';
import { Faded, Row, Stack } from '../ui/layout';
import { Loading } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Sheet } from '../ui/Sheet';
import { SightPreview } from './SightPreview';
import { StandingChoice } from './StandingChoice';

interface WishSheetProps {
  wish: Wish;
  calendar: Calendar;
  onClose: () => void;
}

/** Answers somebody's wish in one step, with what they would see before it is granted. */
export function WishSheet({ wish, calendar, onClose }: WishSheetProps) {
  const { standing, glass, reason, by, userId, id } = wish;
  const [given, setGiven] = useState({ standing, glass });
  const { data: people, error } = useCalendarPeopleQuery(calendar.id);
  const [answer, answering] = useAnswerWishMutation();
  const problem = problemOf(error ?? answering.error);
  const reply = async (grant: boolean) => {
    const { error: refused } = await answer({ id, body: { grant, ...given } });
    if (!refused) onClose();
  };
  const now = people?.people.find((p) => p.userId === userId);
  return (
    <Sheet title={`${by} asks`} onClose={onClose} wide>
      <Stack>
        <p>
          {by} asks to <strong>{wishWords(wish, calendar.name)}</strong>.
        </p>
        {reason && <p>“{reason}”</p>}
        <Faded>
          {now ? `Now they are ${standingWords(now)}.` : 'Now they see what everybody in the house sees.'}
        </Faded>
        {problem && <ProblemNotice problem={problem} />}
        <StandingChoice label={`What ${by} will be`} value={given} onChange={setGiven} />
        {!people && !problem && <Loading what="Fetching its people" />}
        {people &&
          (given.standing === 'reader' ? (
            <SightPreview
              key={given.glass}
              calendar={calendar}
              people={{
                ...people,
                people: [
                  ...people.people.filter((p) => p.userId !== userId),
                  { userId, standing: 'reader', glass: given.glass },
                ],
              }}
              nameOf={() => by}
              only={userId}
            />
          ) : (
            <Faded>As {given.standing} they see everything in this calendar.</Faded>
          ))}
        <Row>
          <MainButton isDisabled={answering.isLoading} onPress={() => void reply(true)}>
            Grant
          </MainButton>
          <Button isDisabled={answering.isLoading} onPress={() => void reply(false)}>
            Decline
          </Button>
        </Row>
      </Stack>
    </Sheet>
  );
}
