import type { Account, Invitation } from '@zonal/core/api';
import { INVITATION_STATES, standingWords } from '@zonal/core/rights';
import { MAIL_STATES } from '@zonal/core/post';
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
import { Empty } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Sheet } from '../ui/Sheet';
import { HandOut, handedOutOf, type HandedOut } from './HandOut';
import { HousePart } from './HousePart';
import { InvitationSheet } from './InvitationSheet';
import { InviteSheet } from './InviteSheet';

const Lines = styled(ActionList)`
  > li[data-over] {
    color: var(--faded);
  }
`;

/** Everybody with an account, and who was asked to come. */
export function PeoplePage() {
  const [inviting, setInviting] = useState(false);
  return (
    <HousePart title="People of the house">
      <Row style={{ justifyContent: 'space-between' }}>
        <h2>Invitations</h2>
        <MainButton onPress={() => setInviting(true)}>
          <MailPlus aria-hidden="true" /> Invite people
        </MainButton>
      </Row>
      <Invitations />
      <h2>Accounts</h2>
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
  if (!invitations || isRefused(error)) return <Waiting what="Fetching invitations" error={error} />;
  const busy = resending.isLoading || withdrawing.isLoading;
  return (
    <>
      {problem && <ProblemNotice problem={problem} />}
      {!invitations.length && <Empty>Nobody was invited in the last weeks.</Empty>}
      {invitations.length > 0 && (
        <Lines aria-label="Invitations">
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
                      Change
                    </Button>
                    <Button
                      isDisabled={busy}
                      aria-label={`Send again to ${email}`}
                      onPress={() =>
                        void resend(id).then(({ data }) => setHandedOut(handedOutOf(data ?? [])))
                      }
                    >
                      Send again
                    </Button>
                    <Button
                      isDisabled={busy}
                      aria-label={`Withdraw the invitation of ${email}`}
                      onPress={() => void withdraw(id)}
                    >
                      Withdraw
                    </Button>
                  </Row>
                )}
              </li>
            );
          })}
        </Lines>
      )}
      {handedOut.length > 0 && (
        <Sheet title="Hand over the invitation" onClose={() => setHandedOut([])} wide>
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
  const nameOf = (id: string) => calendars.find((c) => c.id === id)?.name ?? 'a calendar that is gone';
  const will = [
    ...(steward ? ['steward of the house'] : []),
    ...standings.map((s) => standingWords(s, nameOf(s.calendarId))),
  ];
  const sent = `${by ? `by ${by}, ` : ''}sent ${dayOf(sentAt)}`;
  const when = answeredAt
    ? `${sent}, answered ${dayOf(answeredAt)}`
    : `${sent}, ${state === 'ended' ? 'ended' : 'open until'} ${dayOf(endsAt)}`;
  return (
    <>
      <small>{will.join('; ') || 'no calendar of their own'}</small>
      <small>
        {when}
        {mail && mail !== 'sent' && `; its mail: ${MAIL_STATES[mail].word}`}
        {outside && '; outside the house’s own addresses'}
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
  if (!accounts || isRefused(error)) return <Waiting what="Fetching accounts" error={error} />;
  const busy = making.isLoading || resting.isLoading || addressing.isLoading;
  const handOutPassword = async ({ id, email }: Account) => {
    const { data } = await makeAddress(id);
    if (data) setHandedOut({ email, ...data });
  };
  return (
    <>
      <Faded>
        Stewards may do everything, and set the ceilings. An account at rest signs nobody in; what it did
        keeps its name.
      </Faded>
      {problem && <ProblemNotice problem={problem} />}
      <Lines aria-label="Accounts">
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
                  aria-label={`New password for ${account.name}`}
                  onPress={() => void handOutPassword(account)}
                >
                  New password …
                </Button>
              )}
              {!account.restedAt && (
                <Button
                  isDisabled={busy}
                  aria-label={
                    account.steward ? `Make ${account.name} no steward` : `Make ${account.name} a steward`
                  }
                  onPress={() => void makeSteward({ id: account.id, steward: !account.steward })}
                >
                  {account.steward ? 'No steward any more' : 'Make a steward'}
                </Button>
              )}
              <Button
                isDisabled={busy}
                aria-label={
                  account.restedAt ? `Take up ${account.name} again` : `Put ${account.name} to rest`
                }
                onPress={() => void rest({ id: account.id, rested: !account.restedAt })}
              >
                {account.restedAt ? 'Take up again' : 'Put to rest'}
              </Button>
            </Row>
          </li>
        ))}
      </Lines>
      {handedOut && (
        <Sheet title="Hand over the address for a new password" onClose={() => setHandedOut(null)} wide>
          <HandOut handedOut={[handedOut]} onClose={() => setHandedOut(null)} />
        </Sheet>
      )}
    </>
  );
}

function accountWords({ email, steward, restedAt }: Account): string {
  return [
    email,
    ...(steward ? ['steward'] : []),
    ...(restedAt ? [`at rest since ${dayOf(restedAt)}`] : []),
  ].join(', ');
}
