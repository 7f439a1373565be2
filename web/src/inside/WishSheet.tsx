import type { Calendar, Wish } from '@zonal/core/api';
import { useState } from 'react';
import { problemOf, useAnswerWishMutation, useCalendarPeopleQuery } from '../api/zonalApi';
import { Button, MainButton } from '../ui/Button';
import { Faded, Row, Stack } from '../ui/layout';
import { Loading } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Sheet } from '../ui/Sheet';
import { SightPreview } from './SightPreview';
import { StandingChoice } from './StandingChoice';
import { t } from '../texts/inside';
import { STANDING_NAMES, standingWords, wishWords } from '../texts/rightsWords';

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
    <Sheet title={t('asksForAccess', { by })} onClose={onClose} wide>
      <Stack>
        <p>
          {t.rich('asksTo', {
            by,
            words: wishWords(wish, calendar.name),
            strong: (text) => <strong>{text}</strong>,
          })}
        </p>
        {reason && <p>“{reason}”</p>}
        <Faded>{now ? t('nowIs', { role: standingWords(now) }) : t('nowAsHouse')}</Faded>
        {problem && <ProblemNotice problem={problem} />}
        <StandingChoice label={t('roleForAsker', { by })} value={given} onChange={setGiven} />
        {!people && !problem && <Loading what={t('fetchingPeople')} />}
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
            <Faded>{t('seesAsRole', { role: STANDING_NAMES[given.standing] })}</Faded>
          ))}
        <Row>
          <MainButton isDisabled={answering.isLoading} onPress={() => void reply(true)}>
            {t('grant')}
          </MainButton>
          <Button isDisabled={answering.isLoading} onPress={() => void reply(false)}>
            {t('decline')}
          </Button>
        </Row>
      </Stack>
    </Sheet>
  );
}
