import { useState } from 'react';
import styled from 'styled-components';
import { problemOf, useForgottenMutation, useSessionQuery, useSignInMutation } from '../api/zonalApi';
import { Button, MainButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Row } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Door } from './Door';

const Demo = styled.section`
  display: grid;
  gap: 0.4rem;
  border-top: 1px solid var(--hair);
  padding-top: 1rem;
`;

const SAID = 'Decide what each audience sees of your calendars, and hand it to them.';

/** Somebody whose session ended while they were using the page, which waits for them behind this one. */
export interface Returning {
  readonly name: string;
  readonly email: string;
}

interface SignInProps {
  readonly returning?: Returning;
  /** Called when the answer is asked for: time to get ready for it. */
  readonly onSend?: () => void;
}

export function SignIn({ returning, onSend }: SignInProps) {
  const [email, setEmail] = useState(returning?.email ?? '');
  const [password, setPassword] = useState('');
  const [lost, setLost] = useState(false);
  const [signIn, { error, isLoading }] = useSignInMutation();
  const send = (credentials: { email: string; password: string }) => {
    onSend?.();
    void signIn(credentials);
  };
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
    <Door said={SAID} onSubmit={() => send({ email, password })}>
      <h1>Zonal Window</h1>
      {returning && (
        <Notice>
          Your session has ended, {returning.name}. Sign in again to go on where you were: what you typed is
          still there.
        </Notice>
      )}
      {session && !session.begun && (
        <Notice>
          There is no account here yet. Open the address that was printed where the server was started: there
          the first steward begins.
        </Notice>
      )}
      {error && <Notice>{problemOf(error)?.message}</Notice>}
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
        <Button onPress={() => setLost(true)}>Forgot password?</Button>
      </Row>
      {demo.length > 0 && (
        <Demo aria-label="People of the demo">
          <span>This is the demo. Sign in as:</span>
          {demo.map((person) => (
            <Button
              key={person.email}
              isDisabled={isLoading}
              onPress={() => send({ email: person.email, password: person.password })}
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
  const { data: session } = useSessionQuery();
  if (session?.sendsMail === false)
    return (
      <Door said={SAID} onSubmit={onBack}>
        <h1>Forgot password?</h1>
        <p>
          Zonal Window sends no mail here. Ask a steward of your organisation: they can give you an address at
          which you choose a new password.
        </p>
        <MainButton type="submit">Back to signing in</MainButton>
      </Door>
    );
  return (
    <Door said={SAID} onSubmit={() => void ask(email)}>
      <h1>Forgot password?</h1>
      {error && <Notice>{problemOf(error)?.message}</Notice>}
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
