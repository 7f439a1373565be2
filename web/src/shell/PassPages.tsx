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
  if (!error && !wrong) return <Loading what="Looking what this address is for" />;
  return (
    <Door said="An address from a mail works once, and for a time.">
      <h1>This does not open</h1>
      <Notice>
        {problemOf(error)?.message ??
          'This address leads nowhere. Copy the whole of it from the mail, or ask for a new one.'}
      </Notice>
      <Link to="/">Go to signing in</Link>
    </Door>
  );
}

function NewPasswordField({ value, onChange }: { value: string; onChange: (value: string) => void }) {
  return (
    <Field
      label="Password"
      type="password"
      autoComplete="new-password"
      value={value}
      onChange={onChange}
      isRequired
      help={`At least ${PASSWORD_LIMITS.least} letters. Three or four words make a good one.`}
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
      said={`${pass.by || 'A steward'} invites you to the calendars of ${pass.house || 'the house'}.`}
      onSubmit={() => void submit()}
    >
      <h1>Welcome</h1>
      <p>
        You will sign in as <strong>{pass.email}</strong>.
      </p>
      {pass.lines.length > 0 && (
        <div>
          You will be:
          <ul>
            {pass.lines.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </div>
      )}
      {error && <ProblemNotice problem={problemOf(error)} />}
      <Field
        label="Your name"
        autoComplete="name"
        value={name}
        onChange={setName}
        isRequired
        maxLength={120}
      />
      <NewPasswordField value={password} onChange={setPassword} />
      <Row>
        <MainButton type="submit" isDisabled={isLoading || !name.trim() || !password}>
          Accept, and go to the calendars
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
    <Door
      said="Your organisation’s calendars stay inside; you decide what leaves."
      onSubmit={() => void submit()}
    >
      <h1>Begin</h1>
      <p>There is no account yet. Yours is the first, and looks after the house: a steward’s.</p>
      {error && <ProblemNotice problem={problemOf(error)} />}
      <Field
        label="Name of your organisation"
        autoComplete="organization"
        value={form.house}
        onChange={(house) => set({ house })}
        isRequired
        maxLength={200}
      />
      <ZoneSelect label="Home time zone" value={form.zone} onChange={(zone) => set({ zone })} />
      <SelectOne
        label="Country, for public holidays"
        value={form.country}
        options={[
          { value: '', text: 'none' },
          ...(places?.countries ?? []).map((c) => ({ value: c.code, text: c.name })),
        ]}
        onChange={(country) => set({ country })}
      />
      <Field
        label="Your name"
        autoComplete="name"
        value={form.name}
        onChange={(name) => set({ name })}
        isRequired
        maxLength={120}
      />
      <Field
        label="Your e-mail address"
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
          Begin
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
    <Door said="With a new password every program is signed out but this one." onSubmit={() => void submit()}>
      <h1>A new password</h1>
      <p>
        For <strong>{pass.email}</strong>.
      </p>
      {error && <ProblemNotice problem={problemOf(error)} />}
      <NewPasswordField value={password} onChange={setPassword} />
      <Row>
        <MainButton type="submit" isDisabled={isLoading || !password}>
          Set it, and sign in
        </MainButton>
      </Row>
    </Door>
  );
}

function ConfirmAddress({ token, pass }: Opened) {
  const [confirm, { error, isLoading, isSuccess }] = useConfirmAddressMutation();
  return (
    <Door
      said="An address is changed once it has confirmed that it is yours."
      onSubmit={() => void confirm(token)}
    >
      <h1>Confirm your address</h1>
      {error && <ProblemNotice problem={problemOf(error)} />}
      {isSuccess ? (
        <>
          <p role="status">
            Done. You sign in with <strong>{pass.email}</strong> from now on.
          </p>
          <Link to="/">Go on</Link>
        </>
      ) : (
        <>
          <p>
            Sign in with <strong>{pass.email}</strong> from now on?
          </p>
          <Row>
            <MainButton type="submit" isDisabled={isLoading}>
              Yes, this is my address
            </MainButton>
          </Row>
        </>
      )}
    </Door>
  );
}
