import { useState, type FormEvent } from 'react';
import styled from 'styled-components';
import { problemOf, useSessionQuery, useSignInMutation } from '../api/zonalApi';
import { Button, MainButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';

const Page = styled.main`
  min-height: 100dvh;
  display: grid;
  grid-template-columns: 1fr 1fr;
  @media (max-width: 50rem) {
    grid-template-columns: 1fr;
    align-content: start;
  }
`;

/** Three panes: the inside, the glass, the outside. */
const Panes = styled.div`
  border-right: 3px double var(--line);
  background:
    repeating-linear-gradient(135deg, var(--hair) 0 1px, transparent 1px 9px) 33% 0 / 33.4% 100% no-repeat,
    linear-gradient(var(--shade), var(--shade)) 0 0 / 33.3% 100% no-repeat,
    var(--sheet);
  display: flex;
  align-items: end;
  padding: 2rem;
  min-height: 7rem;
  p {
    font:
      600 1.4rem/1.3 'Literata Variable',
      Georgia,
      serif;
    background: var(--paper);
    border: 1px solid var(--line);
    padding: 0.7rem 1rem;
    max-width: 24rem;
  }
`;

const Form = styled.form`
  align-self: center;
  justify-self: center;
  width: min(22rem, 90vw);
  display: grid;
  gap: 1rem;
  padding: 2rem 0;
`;

const Demo = styled.section`
  display: grid;
  gap: 0.4rem;
  border-top: 1px solid var(--hair);
  padding-top: 1rem;
`;

export function SignIn() {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [signIn, { error, isLoading }] = useSignInMutation();
  const { data: session } = useSessionQuery();
  const demo = session?.demo ?? [];
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void signIn({ email, password });
  };
  return (
    <Page>
      <Panes>
        <p>Decide what each audience sees of your calendars, and hand it to them.</p>
      </Panes>
      <Form onSubmit={submit}>
        <h1>Zonal Window</h1>
        {error && <Notice>{problemOf(error)?.message}</Notice>}
        <Field
          label="E-mail address"
          type="email"
          autoComplete="username"
          value={email}
          onChange={setEmail}
          isRequired
        />
        <Field
          label="Password"
          type="password"
          autoComplete="current-password"
          value={password}
          onChange={setPassword}
          isRequired
        />
        <MainButton type="submit" isDisabled={isLoading}>
          Sign in
        </MainButton>
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
      </Form>
    </Page>
  );
}
