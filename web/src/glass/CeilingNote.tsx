import { dayOf } from '../ui/dayOf';
import { type Glass } from '@zonal/core/glass';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { problemOf, useAskCeilingMutation } from '../api/zonalApi';
import type { Ceiling } from '@zonal/core/api';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Row } from '../ui/layout';
import { ProblemNotice } from '../ui/ProblemNotice';
import { t } from '../texts/glass';
import { AUDIENCE_WORDS, GLASS_WORDS } from '../texts/glassWords';

const Note = styled.div`
  border-left: 4px solid var(--warn);
  padding-left: 0.6rem;
  display: grid;
  gap: 0.3rem;
  font-size: 0.9rem;
`;

/** Says that a ceiling is below what was chosen, who set it and when, and lets one ask for it to be raised. */
export function CeilingNote({ ceiling, wanted }: { ceiling: Ceiling; wanted: Glass }) {
  const { calendarId, audience, glass, by, at } = ceiling;
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState('');
  const [ask, asked] = useAskCeilingMutation();
  const problem = problemOf(asked.error);
  return (
    <Note>
      <span>
        {t.rich('ceilingNote', {
          audience: AUDIENCE_WORDS[audience].word,
          place: calendarId ? t('thisCalendar') : t('theHouse'),
          glass: GLASS_WORDS[glass].word,
          by: by || t('somebodyLeft'),
          day: dayOf(at),
          strong: (text) => <strong>{text}</strong>,
        })}
      </span>
      {problem && <ProblemNotice problem={problem} />}
      {asked.isSuccess ? (
        <span role="status">
          {t.rich('requestSent', { link: (text) => <Link to="/requests">{text}</Link> })}
        </span>
      ) : asking ? (
        <>
          <Field label={t('whyRaise')} value={reason} onChange={setReason} maxLength={1000} />
          <Row>
            <Button
              isDisabled={asked.isLoading}
              onPress={() => void ask({ calendarId, audience, glass: wanted, reason })}
            >
              {t('askForGlass', { glass: GLASS_WORDS[wanted].word })}
            </Button>
            <Button onPress={() => setAsking(false)}>{t('cancel')}</Button>
          </Row>
        </>
      ) : (
        <Button style={{ justifySelf: 'start' }} onPress={() => setAsking(true)}>
          {t('askToRaise')}
        </Button>
      )}
    </Note>
  );
}
