import type { Account, Invitation } from '@zonal/core/api';
import { MailPlus } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import {
  problemOf,
  useCalendarsQuery,
  useInvitationsQuery,
  useMakePasswordAddressMutation,
  useMakeStewardMutation,
  usePeopleQuery,
  useResendInvitationMutation,
  useRestAccountMutation,
  useSessionQuery,
  useWithdrawInvitationMutation,
} from '../api/zonalApi';
import { isRefused } from '../api/fetchTrouble';
import { Waiting } from '../api/Waiting';
import { Button, MainButton } from '../ui/Button';
import { dayOf } from '../ui/dayOf';
import { ActionList } from '../ui/ActionList';
import { Faded, Row } from '../ui/layout';
import { Term } from '../ui/Term';
import { Empty } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Sheet } from '../ui/Sheet';
import { HandOut, handedOutOf, type HandedOut } from './HandOut';
import { HousePart } from './HousePart';
import { InvitationSheet } from './InvitationSheet';
import { InviteSheet } from './InviteSheet';
import { t } from '../texts/house';
import { MAIL_STATES } from '../texts/houseWords';
import { INVITATION_STATES, standingWords } from '../texts/rightsWords';

const Lines = styled(ActionList)`
  > li[data-over] {
    color: var(--faded);
  }
`;

/** Everybody with an account, and who was asked to come. */
export function PeoplePage() {
  const [inviting, setInviting] = useState(false);
  return (
    <HousePart title={t('peopleOfHouse')}>
      <Row style={{ justifyContent: 'space-between' }}>
        <h2>{t('invitations')}</h2>
        <MainButton onPress={() => setInviting(true)}>
          <MailPlus aria-hidden="true" /> {t('invitePeople')}
        </MainButton>
      </Row>
      <Invitations />
      <h2>{t('accounts')}</h2>
      <Accounts />
      {inviting && <InviteSheet onClose={() => setInviting(false)} />}
    </HousePart>
  );
}

function Invitations() {
  const { data: invitations, error } = useInvitationsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [changing, setChanging] = useState<Invitation | null>(null);
  const [handedOut, setHandedOut] = useState<readonly HandedOut[]>([]);
  const [resend, resending] = useResendInvitationMutation();
  const [withdraw, withdrawing] = useWithdrawInvitationMutation();
  const problem = problemOf(resending.error ?? withdrawing.error);
  if (!invitations || isRefused(error)) return <Waiting what={t('fetchingInvitations')} error={error} />;
  const busy = resending.isLoading || withdrawing.isLoading;
  return (
    <>
      {problem && <ProblemNotice problem={problem} />}
      {!invitations.length && <Empty>{t('noInvitations')}</Empty>}
      {invitations.length > 0 && (
        <Lines aria-label={t('invitations')}>
          {invitations.map((invitation) => {
            const { id, email, state } = invitation;
            const open = state === 'pending' || state === 'ended';
            return (
              <li key={id} {...(open ? {} : { 'data-over': '' })}>
                <span>
                  <strong>{email}</strong>, {INVITATION_STATES[state]}
                  <InvitationNotes invitation={invitation} />
                </span>
                {open && (
                  <Row>
                    <Button isDisabled={busy} onPress={() => setChanging(invitation)}>
                      {t('change')}
                    </Button>
                    <Button
                      isDisabled={busy}
                      aria-label={t('sendAgainTo', { email })}
                      onPress={() =>
                        void resend(id).then(({ data }) => setHandedOut(handedOutOf(data ?? [])))
                      }
                    >
                      {t('sendAgain')}
                    </Button>
                    <Button
                      isDisabled={busy}
                      aria-label={t('withdrawInvitation', { email })}
                      onPress={() => void withdraw(id)}
                    >
                      {t('withdraw')}
                    </Button>
                  </Row>
                )}
              </li>
            );
          })}
        </Lines>
      )}
      {handedOut.length > 0 && (
        <Sheet title={t('handOverInvitation')} onClose={() => setHandedOut([])} wide>
          <HandOut handedOut={handedOut} onClose={() => setHandedOut([])} />
        </Sheet>
      )}
      {changing && <InvitationSheet invitation={changing} onClose={() => setChanging(null)} />}
    </>
  );
}

function InvitationNotes({ invitation }: { invitation: Invitation }) {
  const { data: calendars = [] } = useCalendarsQuery();
  const { steward, standings, by, sentAt, endsAt, answeredAt, state, outside, mail } = invitation;
  const nameOf = (id: string) => calendars.find((c) => c.id === id)?.name ?? t('deletedCalendar');
  const will = [
    ...(steward ? [t('aStewardOfHouse')] : []),
    ...standings.map((s) => standingWords(s, nameOf(s.calendarId))),
  ];
  const sent = by ? t('sentBy', { by, sent: dayOf(sentAt) }) : t('sentOn', { sent: dayOf(sentAt) });
  const when = answeredAt
    ? t('answeredOn', { sent, day: dayOf(answeredAt) })
    : t(state === 'ended' ? 'endedOn' : 'openUntil', { sent, day: dayOf(endsAt) });
  return (
    <>
      <small>{will.join('; ') || t('noOwnCalendar')}</small>
      <small>
        {when}
        {mail && mail !== 'sent' && t('itsMail', { state: MAIL_STATES[mail].word })}
        {outside && t('outsideDomains')}
      </small>
    </>
  );
}

function Accounts() {
  const { data: accounts, error } = usePeopleQuery(undefined, { refetchOnMountOrArgChange: true });
  const [makeSteward, making] = useMakeStewardMutation();
  const [rest, resting] = useRestAccountMutation();
  const [makeAddress, addressing] = useMakePasswordAddressMutation();
  const [handedOut, setHandedOut] = useState<HandedOut | null>(null);
  const { data: session } = useSessionQuery();
  const problem = problemOf(making.error ?? resting.error ?? addressing.error);
  if (!accounts || isRefused(error)) return <Waiting what={t('fetchingAccounts')} error={error} />;
  const busy = making.isLoading || resting.isLoading || addressing.isLoading;
  const handOutPassword = async ({ id, email }: Account) => {
    const { data } = await makeAddress(id);
    if (data) setHandedOut({ email, ...data });
  };
  return (
    <>
      <Faded>{t.rich('accountsHint', { term: (text) => <Term word="steward">{text}</Term> })}</Faded>
      {problem && <ProblemNotice problem={problem} />}
      <Lines aria-label={t('accounts')}>
        {accounts.map((account) => (
          <li key={account.id} {...(account.restedAt ? { 'data-over': '' } : {})}>
            <span>
              <strong>{account.name}</strong>
              <small>{accountWords(account)}</small>
            </span>
            <Row>
              {!account.restedAt && session?.sendsMail === false && (
                <Button
                  isDisabled={busy}
                  aria-label={t('newPasswordFor', { name: account.name })}
                  onPress={() => void handOutPassword(account)}
                >
                  {t('newPassword')}
                </Button>
              )}
              {!account.restedAt && (
                <Button
                  isDisabled={busy}
                  aria-label={
                    account.steward
                      ? t('removeStewardName', { name: account.name })
                      : t('makeStewardName', { name: account.name })
                  }
                  onPress={() => void makeSteward({ id: account.id, steward: !account.steward })}
                >
                  {account.steward ? t('removeSteward') : t('makeSteward')}
                </Button>
              )}
              <Button
                isDisabled={busy}
                aria-label={
                  account.restedAt
                    ? t('activateName', { name: account.name })
                    : t('suspendName', { name: account.name })
                }
                onPress={() => void rest({ id: account.id, rested: !account.restedAt })}
              >
                {account.restedAt ? t('activate') : t('suspend')}
              </Button>
            </Row>
          </li>
        ))}
      </Lines>
      {handedOut && (
        <Sheet title={t('handOverPassword')} onClose={() => setHandedOut(null)} wide>
          <HandOut handedOut={[handedOut]} onClose={() => setHandedOut(null)} />
        </Sheet>
      )}
    </>
  );
}

function accountWords({ email, steward, restedAt }: Account): string {
  return [
    email,
    ...(steward ? [t('stewardWord')] : []),
    ...(restedAt ? [t('suspendedSince', { day: dayOf(restedAt) })] : []),
  ].join(', ');
}
