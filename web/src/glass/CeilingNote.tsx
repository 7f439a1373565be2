import { dayOf } from '../ui/dayOf';
import { AUDIENCE_WORDS, GLASS_WORDS, type Glass } from '@zonal/core/glass';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { problemOf, useAskCeilingMutation } from '../api/zonalApi';
import type { Ceiling } from '@zonal/core/api';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Row } from '../ui/layout';
import { ProblemNotice } from '../ui/ProblemNotice';

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
        For {AUDIENCE_WORDS[audience].word} the ceiling of {calendarId ? 'this calendar' : 'the house'} is{' '}
        <strong>{GLASS_WORDS[glass].word}</strong>, set by {by || 'somebody who has left'} on {dayOf(at)}.
        They see no more than that.
      </span>
      {problem && <ProblemNotice problem={problem} />}
      {asked.isSuccess ? (
        <span role="status">
          The stewards have your request. You find the answer under <Link to="/requests">Requests</Link>.
        </span>
      ) : asking ? (
        <>
          <Field label="Why it should be raised" value={reason} onChange={setReason} maxLength={1000} />
          <Row>
            <Button
              isDisabled={asked.isLoading}
              onPress={() => void ask({ calendarId, audience, glass: wanted, reason })}
            >
              Ask for {GLASS_WORDS[wanted].word}
            </Button>
            <Button onPress={() => setAsking(false)}>Leave it</Button>
          </Row>
        </>
      ) : (
        <Button style={{ justifySelf: 'start' }} onPress={() => setAsking(true)}>
          Ask for it to be raised
        </Button>
      )}
    </Note>
  );
}
