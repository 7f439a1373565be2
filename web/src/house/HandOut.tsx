import styled from 'styled-components';
import { MainButton } from '../ui/Button';
import { CopyButton } from '../ui/CopyButton';
import { dayOf } from '../ui/dayOf';
import { ActionList } from '../ui/ActionList';
import { Row, Stack } from '../ui/layout';
import { t } from '../texts/house';

/** An address that a steward hands over, because there is no mail server. */
export interface HandedOut {
  readonly email: string;
  readonly address: string;
  readonly endsAt: string;
}

const Lines = styled(ActionList)`
  code {
    overflow-wrap: anywhere;
  }
`;

/** Shows addresses that work once, for a steward to hand over. They cannot be shown a second time. */
export function HandOut({ handedOut, onClose }: { handedOut: readonly HandedOut[]; onClose: () => void }) {
  return (
    <Stack role="status">
      <p>{t('handOverHint')}</p>
      <Lines aria-label={t('addressesToHandOver')}>
        {handedOut.map(({ email, address, endsAt }) => (
          <li key={email}>
            <span>
              <strong>{email}</strong>
              <small>{t('validUntil', { day: dayOf(endsAt) })}</small>
              <code>{address}</code>
            </span>
            <CopyButton what={handedOut.length > 1 ? t('addressFor', { email }) : 'address'} text={address} />
          </li>
        ))}
      </Lines>
      <Row>
        <MainButton onPress={onClose}>{t('done')}</MainButton>
      </Row>
    </Stack>
  );
}

/** Returns the addresses among invitations that are to be handed over. */
export function handedOutOf(
  invitations: readonly { email: string; endsAt: string; handOutAddress: string | null }[],
): HandedOut[] {
  return invitations.flatMap(({ email, endsAt, handOutAddress }) =>
    handOutAddress === null ? [] : [{ email, endsAt, address: handOutAddress }],
  );
}
