import type { OwnAccount } from '@zonal/core/api';
import { PASSWORD_LIMITS } from '@zonal/core/rights';
import { useState, type FormEvent, type ReactNode } from 'react';
import styled from 'styled-components';
import {
  problemOf,
  useAccountQuery,
  useChangeAddressMutation,
  useChangePasswordMutation,
  useRenameAccountMutation,
  useSignOutDeviceMutation,
  useSignOutEverywhereMutation,
} from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import { Button, MainButton } from '../ui/Button';
import { CopyButton } from '../ui/CopyButton';
import { dayOf } from '../ui/dayOf';
import { Field } from '../ui/Field';
import { Faded, NotedList, Pair, Row, SideBySide, Stack } from '../ui/layout';
import { ProblemNotice } from '../ui/ProblemNotice';

const Devices = styled(NotedList)`
  > li {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    align-items: center;
    gap: 0.5rem;
  }
`;

/** One's own account: name, address, password, and where it is signed in. */
export function AccountPage() {
  const { data: account, error } = useAccountQuery(undefined, { refetchOnMountOrArgChange: true });
  if (!account) return <Waiting what="Fetching your account" error={error} />;
  return (
    <Stack>
      <h1>Your account</h1>
      <SideBySide>
        <Stack>
          <NameForm key={account.name} account={account} />
          <AddressForm account={account} />
          <PasswordForm />
        </Stack>
        <Stack>
          <FeedsList account={account} />
          <DevicesList account={account} />
        </Stack>
      </SideBySide>
    </Stack>
  );
}

interface PartProps {
  title: string;
  problem: ReturnType<typeof problemOf>;
  /** What was done, once it was. */
  done: string;
  submit: string;
  disabled: boolean;
  onSubmit: () => void;
  children: ReactNode;
}

function Part({ title, problem, done, submit, disabled, onSubmit, children }: PartProps) {
  const send = (event: FormEvent) => {
    event.preventDefault();
    onSubmit();
  };
  return (
    <form onSubmit={send} aria-label={title}>
      <Stack>
        <h2>{title}</h2>
        {problem && <ProblemNotice problem={problem} />}
        {children}
        <Row>
          <MainButton type="submit" isDisabled={disabled}>
            {submit}
          </MainButton>
          {done && <span role="status">{done}</span>}
        </Row>
      </Stack>
    </form>
  );
}

function NameForm({ account }: { account: OwnAccount }) {
  const [name, setName] = useState(account.name);
  const [rename, { error, isLoading, isSuccess }] = useRenameAccountMutation();
  return (
    <Part
      title="Name"
      problem={problemOf(error)}
      done={isSuccess ? 'Saved.' : ''}
      submit="Save the name"
      disabled={isLoading || !name.trim() || name.trim() === account.name}
      onSubmit={() => void rename(name.trim())}
    >
      <Field
        label="Your name, as colleagues read it"
        autoComplete="name"
        value={name}
        onChange={setName}
        maxLength={120}
      />
    </Part>
  );
}

function AddressForm({ account }: { account: OwnAccount }) {
  const [form, setForm] = useState({ email: '', password: '' });
  const [ask, { error, isLoading, isSuccess, originalArgs }] = useChangeAddressMutation();
  return (
    <Part
      title="Mail address"
      problem={problemOf(error)}
      done={isSuccess ? `A mail went to ${originalArgs?.email}. Follow the address in it.` : ''}
      submit="Send a mail to confirm it"
      disabled={isLoading || !form.email.includes('@') || !form.password}
      onSubmit={() =>
        void ask(form).then((r) => {
          if (!r.error) setForm({ email: '', password: '' });
        })
      }
    >
      <Faded>
        You sign in with {account.email}. Another one takes its place once it has confirmed that it is yours.
      </Faded>
      <Pair>
        <Field
          label="New address"
          type="email"
          autoComplete="email"
          value={form.email}
          onChange={(email) => setForm({ ...form, email })}
        />
        <Field
          label="Your password now"
          type="password"
          autoComplete="current-password"
          value={form.password}
          onChange={(password) => setForm({ ...form, password })}
        />
      </Pair>
    </Part>
  );
}

function PasswordForm() {
  const [form, setForm] = useState({ password: '', next: '' });
  const [change, { error, isLoading, isSuccess }] = useChangePasswordMutation();
  return (
    <Part
      title="Password"
      problem={problemOf(error)}
      done={isSuccess ? 'Changed. All other programs are signed out.' : ''}
      submit="Change the password"
      disabled={isLoading || !form.password || !form.next}
      onSubmit={() =>
        void change(form).then((r) => {
          if (!r.error) setForm({ password: '', next: '' });
        })
      }
    >
      <Pair>
        <Field
          label="The one that you have"
          type="password"
          autoComplete="current-password"
          value={form.password}
          onChange={(password) => setForm({ ...form, password })}
        />
        <Field
          label="New password"
          type="password"
          autoComplete="new-password"
          value={form.next}
          onChange={(next) => setForm({ ...form, next })}
          help={`At least ${PASSWORD_LIMITS.least} letters. Three or four words make a good one.`}
        />
      </Pair>
    </Part>
  );
}

/** Feeds for one's own programs, made out by those who publish. */
function FeedsList({ account }: { account: OwnAccount }) {
  if (!account.feeds.length) return null;
  return (
    <Stack as="section" aria-labelledby="feeds">
      <h2 id="feeds">Feeds of your own</h2>
      <Faded>
        For your own programs: whoever has such an address sees what you see, so keep it to yourself. It
        follows your rights.
      </Faded>
      <Devices aria-label="Feeds of your own">
        {account.feeds.map(({ keyId, window, cap, see, feed }) => (
          <li key={keyId}>
            <span>
              <a href={see}>{window}</a>
              <small>
                {cap === 'shut'
                  ? 'shows nothing, as you may see nothing of it'
                  : cap
                    ? `at most ${cap}`
                    : 'all of it'}
              </small>
            </span>
            <CopyButton what={`feed address of ${window}`} text={feed} />
          </li>
        ))}
      </Devices>
    </Stack>
  );
}

function DevicesList({ account }: { account: OwnAccount }) {
  const [signOut, { error, isLoading }] = useSignOutDeviceMutation();
  const [everywhere, leaving] = useSignOutEverywhereMutation();
  return (
    <Stack as="section" aria-labelledby="devices">
      <h2 id="devices">Where you are signed in</h2>
      {error && <ProblemNotice problem={problemOf(error)} />}
      <Devices aria-label="Programs that are signed in">
        {account.devices.map(({ id, program, since, usedAt, own }) => (
          <li key={id}>
            <span>
              {program}
              {own && <strong>, here</strong>}
              <small>
                since {dayOf(since)}, last used {dayOf(usedAt)}
              </small>
            </span>
            {!own && (
              <Button isDisabled={isLoading} onPress={() => void signOut(id)}>
                Sign out there
              </Button>
            )}
          </li>
        ))}
      </Devices>
      <Row>
        <Button isDisabled={leaving.isLoading} onPress={() => void everywhere()}>
          Sign out everywhere, here too
        </Button>
      </Row>
    </Stack>
  );
}
