import { useState } from 'react';
import styled from 'styled-components';
import { problemOf, useForgottenMutation, useSessionQuery, useSignInMutation } from '../api/zonalApi';
import { Button, MainButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Row } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Door } from './Door';

const Demo = styled.section`
  display: grid;
  gap: 0.4rem;
  border-top: 1px solid var(--hair);
  padding-top: 1rem;
`;

const SAID = 'Decide what each audience sees of your calendars, and hand it to them.';

export function SignIn() {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [lost, setLost] = useState(false);
  const [signIn, { error, isLoading }] = useSignInMutation();
  const { data: session } = useSessionQuery();
  const demo = session?.demo ?? [];
  const address = (
    <Field
      label="E-mail address"
      type="email"
      autoComplete="username"
      value={email}
      onChange={setEmail}
      isRequired
    />
  );
  if (lost) return <Forgotten email={email} address={address} onBack={() => setLost(false)} />;
  return (
    <Door said={SAID} onSubmit={() => void signIn({ email, password })}>
      <h1>Zonal Window</h1>
      {session && !session.begun && (
        <Notice>
          There is no account here yet. Open the address that was printed where the server was started: there
          the first steward begins.
        </Notice>
      )}
      {error && <ProblemNotice problem={problemOf(error)} />}
      {address}
      <Field
        label="Password"
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={setPassword}
        isRequired
      />
      <Row>
        <MainButton type="submit" isDisabled={isLoading}>
          Sign in
        </MainButton>
        <Button onPress={() => setLost(true)}>Password forgotten</Button>
      </Row>
      {demo.length > 0 && (
        <Demo aria-label="People of the demo">
          <span>This is the demo. Be one of its people:</span>
          {demo.map((person) => (
            <Button
              key={person.email}
              isDisabled={isLoading}
              onPress={() => void signIn({ email: person.email, password: person.password })}
            >
              {person.name}, {person.role}
            </Button>
          ))}
        </Demo>
      )}
    </Door>
  );
}

interface ForgottenProps {
  email: string;
  address: React.ReactNode;
  onBack: () => void;
}

/** Asks for a mail with which a new password is set; the answer is the same for known and unknown addresses. */
function Forgotten({ email, address, onBack }: ForgottenProps) {
  const [ask, { error, isLoading, isSuccess }] = useForgottenMutation();
  return (
    <Door said={SAID} onSubmit={() => void ask(email)}>
      <h1>Password forgotten</h1>
      {error && <ProblemNotice problem={problemOf(error)} />}
      {isSuccess ? (
        <p role="status">
          If there is an account with this address, a mail is on its way. Follow the address in it within an
          hour; it works once.
        </p>
      ) : (
        <>
          <p>Write the address that you sign in with. You get a mail with which you choose a new password.</p>
          {address}
        </>
      )}
      <Row>
        {!isSuccess && (
          <MainButton type="submit" isDisabled={isLoading || !email.includes('@')}>
            Send me the mail
          </MainButton>
        )}
        <Button onPress={onBack}>Back to signing in</Button>
      </Row>
    </Door>
  );
}
