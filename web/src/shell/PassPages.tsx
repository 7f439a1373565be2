import type { PassTold } from '@zonal/core/api';
import { PASSWORD_LIMITS } from '@zonal/core/rights';
import { zoneNamed } from '@zonal/core/zones';
import { useState, type ReactNode } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import {
  problemOf,
  useAcceptMutation,
  useBeginMutation,
  useConfirmAddressMutation,
  usePassQuery,
  useRenewPasswordMutation,
} from '../api/zonalApi';
import { usePlaces } from '../house/places';
import { MainButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Row } from '../ui/layout';
import { Loading, Notice } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { ZoneSelect } from '../ui/ZoneSelect';
import { Door } from './Door';
import { t } from '../texts/shell';

/** What a form needs to know that was opened by an address that works once. */
interface Opened {
  readonly token: string;
  readonly pass: PassTold;
}

/** Opens an address that works once: its secret stands behind `#`. */
function Opening({ kind, children }: { kind: PassTold['kind']; children: (opened: Opened) => ReactNode }) {
  const token = useLocation().hash.slice(1);
  // What was told is kept: once it is used, the address is none any more.
  const { data: pass, error } = usePassQuery(token, { skip: !token, refetchOnMountOrArgChange: false });
  const wrong = !token || (pass && pass.kind !== kind);
  if (pass && !wrong) return children({ token, pass });
  if (!error && !wrong) return <Loading what={t('fetchingPass')} />;
  return (
    <Door said={t('passGreeting')}>
      <h1>{t('passNotOpen')}</h1>
      <Notice>{problemOf(error)?.message ?? t('passUnknown')}</Notice>
      <Link to="/">{t('goToSignIn')}</Link>
    </Door>
  );
}

function NewPasswordField({ value, onChange }: { value: string; onChange: (value: string) => void }) {
  return (
    <Field
      label={t('password')}
      type="password"
      autoComplete="new-password"
      value={value}
      onChange={onChange}
      isRequired
      help={t('passwordHint', { least: PASSWORD_LIMITS.least })}
    />
  );
}

export const WelcomePage = () => <Opening kind="invitation">{(opened) => <Welcome {...opened} />}</Opening>;
export const BeginPage = () => <Opening kind="first">{(opened) => <Begin {...opened} />}</Opening>;
export const NewPasswordPage = () => (
  <Opening kind="password">{(opened) => <NewPassword {...opened} />}</Opening>
);
export const ConfirmAddressPage = () => (
  <Opening kind="address">{(opened) => <ConfirmAddress {...opened} />}</Opening>
);

/** Somebody accepts an invitation. */
function Welcome({ token, pass }: Opened) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const [accept, { error, isLoading }] = useAcceptMutation();
  const navigate = useNavigate();
  const submit = async () => {
    const { error: refused } = await accept({ token, name: name.trim(), password });
    if (!refused) void navigate('/calendars', { replace: true });
  };
  return (
    <Door
      said={t('invites', { by: pass.by || t('aSteward'), house: pass.house || t('theHouse') })}
      onSubmit={() => void submit()}
    >
      <h1>{t('welcome')}</h1>
      <p>{t.rich('willSignInAs', { email: pass.email, strong: (text) => <strong>{text}</strong> })}</p>
      {pass.lines.length > 0 && (
        <div>
          {t('youWillBe')}
          <ul>
            {pass.lines.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </div>
      )}
      {error && <ProblemNotice problem={problemOf(error)} />}
      <Field
        label={t('yourName')}
        autoComplete="name"
        value={name}
        onChange={setName}
        isRequired
        maxLength={120}
      />
      <NewPasswordField value={password} onChange={setPassword} />
      <Row>
        <MainButton type="submit" isDisabled={isLoading || !name.trim() || !password}>
          {t('acceptInvitation')}
        </MainButton>
      </Row>
    </Door>
  );
}

/** The first steward, and the house. */
function Begin({ token }: Opened) {
  const own = zoneNamed(Intl.DateTimeFormat().resolvedOptions().timeZone) ?? 'UTC';
  const [form, setForm] = useState({ house: '', zone: own, country: '', name: '', email: '', password: '' });
  const [begin, { error, isLoading }] = useBeginMutation();
  const places = usePlaces();
  const navigate = useNavigate();
  const set = (part: Partial<typeof form>) => setForm((f) => ({ ...f, ...part }));
  const submit = async () => {
    const { error: refused } = await begin({
      token,
      ...form,
      name: form.name.trim(),
      house: form.house.trim(),
    });
    if (!refused) void navigate('/first-day', { replace: true });
  };
  return (
    <Door said={t('beginGreeting')} onSubmit={() => void submit()}>
      <h1>{t('setUp')}</h1>
      <p>{t('firstAccount')}</p>
      {error && <ProblemNotice problem={problemOf(error)} />}
      <Field
        label={t('organisationName')}
        autoComplete="organization"
        value={form.house}
        onChange={(house) => set({ house })}
        isRequired
        maxLength={200}
      />
      <ZoneSelect label={t('homeZone')} value={form.zone} onChange={(zone) => set({ zone })} />
      <SelectOne
        label={t('holidayCountry')}
        value={form.country}
        options={[
          { value: '', text: 'none' },
          ...(places?.countries ?? []).map((c) => ({ value: c.code, text: c.name })),
        ]}
        onChange={(country) => set({ country })}
      />
      <Field
        label={t('yourName')}
        autoComplete="name"
        value={form.name}
        onChange={(name) => set({ name })}
        isRequired
        maxLength={120}
      />
      <Field
        label={t('yourEmail')}
        type="email"
        autoComplete="username"
        value={form.email}
        onChange={(email) => set({ email })}
        isRequired
      />
      <NewPasswordField value={form.password} onChange={(password) => set({ password })} />
      <Row>
        <MainButton
          type="submit"
          isDisabled={isLoading || !form.house.trim() || !form.name.trim() || !form.email || !form.password}
        >
          {t('createAccount')}
        </MainButton>
      </Row>
    </Door>
  );
}

function NewPassword({ token, pass }: Opened) {
  const [password, setPassword] = useState('');
  const [renew, { error, isLoading }] = useRenewPasswordMutation();
  const navigate = useNavigate();
  const submit = async () => {
    const { error: refused } = await renew({ token, password });
    if (!refused) void navigate('/calendars', { replace: true });
  };
  return (
    <Door said={t('newPasswordGreeting')} onSubmit={() => void submit()}>
      <h1>{t('chooseNewPassword')}</h1>
      <p>{t.rich('forEmail', { email: pass.email, strong: (text) => <strong>{text}</strong> })}</p>
      {error && <ProblemNotice problem={problemOf(error)} />}
      <NewPasswordField value={password} onChange={setPassword} />
      <Row>
        <MainButton type="submit" isDisabled={isLoading || !password}>
          {t('setPassword')}
        </MainButton>
      </Row>
    </Door>
  );
}

function ConfirmAddress({ token, pass }: Opened) {
  const [confirm, { error, isLoading, isSuccess }] = useConfirmAddressMutation();
  return (
    <Door said={t('confirmGreeting')} onSubmit={() => void confirm(token)}>
      <h1>{t('confirmAddress')}</h1>
      {error && <ProblemNotice problem={problemOf(error)} />}
      {isSuccess ? (
        <>
          <p role="status">
            {t.rich('addressConfirmed', { email: pass.email, strong: (text) => <strong>{text}</strong> })}
          </p>
          <Link to="/">{t('goOn')}</Link>
        </>
      ) : (
        <>
          <p>{t.rich('confirmQuestion', { email: pass.email, strong: (text) => <strong>{text}</strong> })}</p>
          <Row>
            <MainButton type="submit" isDisabled={isLoading}>
              {t('confirmYes')}
            </MainButton>
          </Row>
        </>
      )}
    </Door>
  );
}
