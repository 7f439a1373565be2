import type { ReactNode } from 'react';
import { problemOf, useForgottenMutation, useSessionQuery } from '../api/zonalApi';
import { Button, MainButton } from '../ui/Button';
import { Row } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Door, GREETING } from './Door';

interface ForgottenProps {
  email: string;
  /** The field for the address, which the page to sign in has too. */
  address: ReactNode;
  onBack: () => void;
}

/** Asks for a mail with which a new password is set; the answer is the same for known and unknown addresses. */
export function Forgotten({ email, address, onBack }: ForgottenProps) {
  const [ask, { error, isLoading, isSuccess }] = useForgottenMutation();
  const { data: session } = useSessionQuery();
  if (session?.sendsMail === false)
    return (
      <Door said={GREETING} onSubmit={onBack}>
        <h1>Forgot password?</h1>
        <p>
          Zonal Window sends no mail here. Ask a steward of your organisation: they can give you an address at
          which you choose a new password.
        </p>
        <MainButton type="submit">Back to signing in</MainButton>
      </Door>
    );
  return (
    <Door said={GREETING} onSubmit={() => void ask(email)}>
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
