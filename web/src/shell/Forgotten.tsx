import type { ReactNode } from 'react';
import { problemOf, useForgottenMutation, useSessionQuery } from '../api/zonalApi';
import { Button, MainButton } from '../ui/Button';
import { Row } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Door, GREETING } from './Door';
import { t } from '../texts/shell';

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
        <h1>{t('forgotPassword')}</h1>
        <p>{t('noMailHere')}</p>
        <MainButton type="submit">{t('backToSignIn')}</MainButton>
      </Door>
    );
  return (
    <Door said={GREETING} onSubmit={() => void ask(email)}>
      <h1>{t('forgotPassword')}</h1>
      {error && <Notice>{problemOf(error)?.message}</Notice>}
      {isSuccess ? (
        <p role="status">{t('resetSent')}</p>
      ) : (
        <>
          <p>{t('resetHint')}</p>
          {address}
        </>
      )}
      <Row>
        {!isSuccess && (
          <MainButton type="submit" isDisabled={isLoading || !email.includes('@')}>
            {t('sendReset')}
          </MainButton>
        )}
        <Button onPress={onBack}>{t('backToSignIn')}</Button>
      </Row>
    </Door>
  );
}
