import type { OwnAccount } from '@zonal/core/api';
import { capital } from '@zonal/core/entries';
import { PASSWORD_LIMITS } from '@zonal/core/rights';
import { INSIDE_LANGUAGES, type InsideLanguage } from '@zonal/core/texts';
import { useState, type FormEvent, type ReactNode } from 'react';
import styled from 'styled-components';
import {
  problemOf,
  useAccountQuery,
  useChangeAddressMutation,
  useChangePasswordMutation,
  useSaveAccountMutation,
  useSignOutDeviceMutation,
  useSignOutEverywhereMutation,
} from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import { Button, MainButton } from '../ui/Button';
import { CopyButton } from '../ui/CopyButton';
import { dayOf } from '../ui/dayOf';
import { SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Faded, NotedList, Pair, Row, SideBySide, Stack } from '../ui/layout';
import { ProblemNotice } from '../ui/ProblemNotice';
import { t } from '../texts/shell';
import { GLASS_WORDS } from '../texts/glassWords';

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
  if (!account) return <Waiting what={t('fetchingAccount')} error={error} />;
  return (
    <Stack>
      <h1>{t('yourAccount')}</h1>
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

/** The value of the choice for the language of the browser. */
const BROWSERS_OWN = '';

function NameForm({ account }: { account: OwnAccount }) {
  const [name, setName] = useState(account.name);
  const [language, setLanguage] = useState<InsideLanguage | typeof BROWSERS_OWN>(
    account.language ?? BROWSERS_OWN,
  );
  const [save, { error, isLoading, isSuccess }] = useSaveAccountMutation();
  const form = { name: name.trim(), language: language || null };
  const isChanged = form.name !== account.name || form.language !== account.language;
  return (
    <Part
      title={t('nameAndLanguage')}
      problem={problemOf(error)}
      done={isSuccess ? t('saved') : ''}
      submit={t('saveNameAndLanguage')}
      disabled={isLoading || !form.name || !isChanged}
      onSubmit={() => void save(form)}
    >
      <Field label={t('nameField')} autoComplete="name" value={name} onChange={setName} maxLength={120} />
      <SelectOne
        label={t('languageField')}
        value={language}
        options={[
          { value: BROWSERS_OWN, text: t('browsersLanguage') },
          ...INSIDE_LANGUAGES.map((one) => ({ value: one, text: ownName(one) })),
        ]}
        onChange={setLanguage}
      />
      <Faded>{t('languageHint')}</Faded>
    </Part>
  );
}

/** Returns the name of a language in itself. */
function ownName(language: InsideLanguage): string {
  return capital(new Intl.DisplayNames(language, { type: 'language' }).of(language) ?? language);
}

function AddressForm({ account }: { account: OwnAccount }) {
  const [form, setForm] = useState({ email: '', password: '' });
  const [ask, { error, isLoading, isSuccess, originalArgs }] = useChangeAddressMutation();
  return (
    <Part
      title={t('mailAddress')}
      problem={problemOf(error)}
      done={isSuccess ? t('confirmationSent', { email: originalArgs?.email ?? '' }) : ''}
      submit={t('sendConfirmation')}
      disabled={isLoading || !form.email.includes('@') || !form.password}
      onSubmit={() =>
        void ask(form).then((r) => {
          if (!r.error) setForm({ email: '', password: '' });
        })
      }
    >
      <Faded>{t('signInAddress', { email: account.email })}</Faded>
      <Pair>
        <Field
          label={t('newAddress')}
          type="email"
          autoComplete="email"
          value={form.email}
          onChange={(email) => setForm({ ...form, email })}
        />
        <Field
          label={t('currentPassword')}
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
      title={t('password')}
      problem={problemOf(error)}
      done={isSuccess ? t('passwordChanged') : ''}
      submit={t('changePassword')}
      disabled={isLoading || !form.password || !form.next}
      onSubmit={() =>
        void change(form).then((r) => {
          if (!r.error) setForm({ password: '', next: '' });
        })
      }
    >
      <Pair>
        <Field
          label={t('currentPassword')}
          type="password"
          autoComplete="current-password"
          value={form.password}
          onChange={(password) => setForm({ ...form, password })}
        />
        <Field
          label={t('newPassword')}
          type="password"
          autoComplete="new-password"
          value={form.next}
          onChange={(next) => setForm({ ...form, next })}
          help={t('passwordHint', { least: PASSWORD_LIMITS.least })}
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
      <h2 id="feeds">{t('ownFeeds')}</h2>
      <Faded>{t('ownFeedsHint')}</Faded>
      <Devices aria-label={t('ownFeeds')}>
        {account.feeds.map(({ keyId, window, cap, see, feed }) => (
          <li key={keyId}>
            <span>
              <a href={see}>{window}</a>
              <small>
                {cap === 'shut'
                  ? t('feedShowsNothing')
                  : cap
                    ? t('feedAtMost', { cap: GLASS_WORDS[cap].word.toLowerCase() })
                    : t('feedShowsAll')}
              </small>
            </span>
            <CopyButton what={t('feedAddressOf', { window })} text={feed} />
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
      <h2 id="devices">{t('signedInOn')}</h2>
      {error && <ProblemNotice problem={problemOf(error)} />}
      <Devices aria-label={t('signedInPrograms')}>
        {account.devices.map(({ id, program, since, usedAt, own }) => (
          <li key={id}>
            <span>
              {program}
              {own && <strong>{t('thisProgram')}</strong>}
              <small>{t('deviceUse', { since: dayOf(since), used: dayOf(usedAt) })}</small>
            </span>
            {!own && (
              <Button isDisabled={isLoading} onPress={() => void signOut(id)}>
                {t('signOutThere')}
              </Button>
            )}
          </li>
        ))}
      </Devices>
      <Row>
        <Button isDisabled={leaving.isLoading} onPress={() => void everywhere()}>
          {t('signOutEverywhere')}
        </Button>
      </Row>
    </Stack>
  );
}
