import { useState } from 'react';
import styled from 'styled-components';
import { problemOf, useSessionQuery, useSignInMutation } from '../api/baseApi';
import { Button, MainButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Row } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { LazyScreen, lazyScreen } from '../ui/LazyScreen';
import { Door, GREETING } from './Door';
import { t } from '../texts/base';
import { loadLanguage } from '../texts/loadLanguage';

/** Few need it; the page to sign in is light without. */
const Forgotten = lazyScreen(async () => {
  await loadLanguage();
  return (await import('./Forgotten')).Forgotten;
});

const Demo = styled.section`
  display: grid;
  gap: 0.4rem;
  border-top: 1px solid var(--hair);
  padding-top: 1rem;
`;

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
      label={t('emailAddress')}
      type="email"
      autoComplete="username"
      value={email}
      onChange={setEmail}
      isRequired
    />
  );
  if (lost)
    return (
      <LazyScreen>
        <Forgotten email={email} address={address} onBack={() => setLost(false)} />
      </LazyScreen>
    );
  return (
    <Door said={GREETING} onSubmit={() => send({ email, password })}>
      <h1>Zonal Window</h1>
      {returning && <Notice>{t('sessionEnded', { name: returning.name })}</Notice>}
      {session && !session.begun && <Notice>{t('notBegun')}</Notice>}
      {error && <Notice>{problemOf(error)?.message}</Notice>}
      {address}
      <Field
        label={t('password')}
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={setPassword}
        isRequired
      />
      <Row>
        <MainButton type="submit" isDisabled={isLoading}>
          {t('signIn')}
        </MainButton>
        <Button onPress={() => setLost(true)}>{t('forgotPassword')}</Button>
      </Row>
      {demo.length > 0 && (
        <Demo aria-label={t('demoPeople')}>
          <span>{t('demoSignIn')}</span>
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
