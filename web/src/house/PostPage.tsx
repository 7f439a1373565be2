import type { Mail, Post } from '@zonal/core/api';
import { useState, type FormEvent } from 'react';
import styled from 'styled-components';
import {
  problemOf,
  useForgetMailServerMutation,
  useMailAgainMutation,
  usePostQuery,
  useSendTestMailMutation,
  useSessionQuery,
  useSetMailServerMutation,
} from '../api/zonalApi';
import { isRefused } from '../api/fetchTrouble';
import { Waiting } from '../api/Waiting';
import { Button, MainButton } from '../ui/Button';
import { dayOf } from '../ui/dayOf';
import { Field } from '../ui/Field';
import { Faded, NotedList, Pair, Row, Stack } from '../ui/layout';
import { Empty, Notice } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Refusal } from '../ui/Refusal';
import { Overtaken } from '../ui/Overtaken';
import { Tick } from '../ui/Tick';
import { HousePart } from './HousePart';
import { useUnsaved } from '../ui/Unsaved';
import { t } from '../texts/house';
import { LETTER_KINDS, MAIL_STATES } from '../texts/houseWords';

const Mails = styled(NotedList)`
  > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0.3rem 1rem;
    align-items: center;
  }
`;

/** So often, in milliseconds, it is looked how mails stand while the page is open. */
const LOOK = 3000;

/** Where mail is sent from, and what became of it. */
export function PostPage() {
  const { data: post, error } = usePostQuery(undefined, {
    refetchOnMountOrArgChange: true,
    pollingInterval: LOOK,
  });
  const { data: session } = useSessionQuery();
  if (!post || isRefused(error)) return <Waiting what={t('fetchingMail')} error={error} />;
  return (
    <HousePart title={t('mailOfHouse')}>
      <ServerNow post={post} postbox={session?.postbox ?? ''} />
      <MailList mails={post.mails} />
      <ServerForm post={post} />
    </HousePart>
  );
}

function ServerNow({ post, postbox }: { post: Post; postbox: string }) {
  const [test, { error, isLoading, isSuccess }] = useSendTestMailMutation();
  const { server, setBy } = post;
  return (
    <Stack as="section" aria-labelledby="server">
      <h2 id="server">{t('mailServer')}</h2>
      {server ? (
        <p>
          {t.rich('mailGoesOut', {
            host: server.host,
            port: server.port,
            sender: server.sender,
            strong: (text) => <strong>{text}</strong>,
          })}{' '}
          {setBy === 'start' ? t('setAtStart') : t('setHere')}
          {postbox && setBy === 'start' && (
            <> {t.rich('demoPostbox', { a: (text) => <a href={postbox}>{text}</a> })}</>
          )}
        </p>
      ) : (
        <Notice>{t('noMailServer')}</Notice>
      )}
      {error && <ProblemNotice problem={problemOf(error)} />}
      <Row>
        <Button isDisabled={isLoading || !server} onPress={() => void test()}>
          {t('sendTestMail')}
        </Button>
        {isSuccess && <span role="status">{t('testMailSent')}</span>}
      </Row>
    </Stack>
  );
}

function MailList({ mails }: { mails: readonly Mail[] }) {
  const [again, { error, isLoading }] = useMailAgainMutation();
  const inTrouble = mails.filter((m) => MAIL_STATES[m.state].todo).length;
  return (
    <Stack as="section" aria-labelledby="mails">
      <h2 id="mails">{t('mails')}</h2>
      <Faded role="status">{inTrouble ? t('mailTroubles', { count: inTrouble }) : t('noMailTrouble')}</Faded>
      {error && <ProblemNotice problem={problemOf(error)} />}
      {!mails.length && <Empty>{t('noMails')}</Empty>}
      {mails.length > 0 && (
        <Mails aria-label={t('mails')}>
          {mails.map(({ id, kind, to, state, tries, trouble, at }) => {
            const { word, todo } = MAIL_STATES[state];
            const waits = state === 'waiting' && tries + Number(trouble !== '') > 0;
            return (
              <li key={id}>
                <span>
                  {t.rich('mailLine', {
                    state: word,
                    kind: LETTER_KINDS[kind],
                    to,
                    strong: (text) => <strong>{text}</strong>,
                  })}
                  <small>
                    {dayOf(at)}
                    {trouble && t('mailServerAnswer', { trouble })}
                  </small>
                  {todo && <small>{todo}</small>}
                  {waits && <small>{t('mailRetried')}</small>}
                </span>
                {(todo || waits) && (
                  <Button
                    isDisabled={isLoading}
                    aria-label={t('sendMailAgain', { kind: LETTER_KINDS[kind], to })}
                    onPress={() => void again(id)}
                  >
                    {t('sendAgain')}
                  </Button>
                )}
              </li>
            );
          })}
        </Mails>
      )}
    </Stack>
  );
}

const formOf = ({ server, setBy, version }: Post) => {
  const own = setBy === 'house' ? server : null;
  return {
    host: own?.host ?? '',
    port: String(own?.port ?? 587),
    secure: own?.secure ?? false,
    account: own?.account ?? '',
    password: '',
    sender: own?.sender ?? '',
    version,
  };
};

function ServerForm({ post }: { post: Post }) {
  const [form, setForm] = useState(() => formOf(post));
  const [save, saving] = useSetMailServerMutation();
  const [forget, forgetting] = useForgetMailServerMutation();
  const problem = problemOf(saving.error ?? forgetting.error);
  const current = problem?.code === 'version-conflict' ? (problem.details['current'] as Post) : null;
  const isChanged = JSON.stringify(form) !== JSON.stringify({ ...formOf(post), version: form.version });
  useUnsaved(isChanged && !saving.isLoading);
  const set = (part: Partial<typeof form>) => setForm((f) => ({ ...f, ...part }));
  const ownSet = post.setBy === 'house';
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const { port, password, ...rest } = form;
    const body = { ...rest, port: Number(port), password: password || (ownSet ? null : '') };
    const { data } = await save(body);
    if (data) setForm(formOf(data));
  };
  return (
    <Stack as="section" aria-labelledby="own">
      <h2 id="own">{t('ownMailServer')}</h2>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          <Pair>
            <Field label={t('serverName')} value={form.host} onChange={(host) => set({ host })} isRequired />
            <Field
              label={t('port')}
              inputMode="numeric"
              value={form.port}
              onChange={(port) => set({ port })}
              help={t('portHelp')}
            />
            <Field label={t('mailAccount')} value={form.account} onChange={(account) => set({ account })} />
            <Field
              label={t('mailPassword')}
              type="password"
              autoComplete="off"
              value={form.password}
              onChange={(password) => set({ password })}
              help={ownSet ? t('keepsPassword') : t('sealedPassword')}
            />
            <Field
              label={t('mailSender')}
              type="email"
              value={form.sender}
              onChange={(sender) => set({ sender })}
              isRequired
            />
          </Pair>
          <Tick isSelected={form.secure} onChange={(secure) => set({ secure })}>
            {t('encryptedAtOnce')}
            <small>{t('encryptedLater')}</small>
          </Tick>
          {current && (
            <Overtaken
              what={t('mailServerThing')}
              onMine={() => {
                set({ version: current.version });
                saving.reset();
              }}
              onTheirs={() => {
                setForm(formOf(current));
                saving.reset();
              }}
            />
          )}
          <Refusal problem={current ? null : problem} />
          <Row>
            <MainButton
              type="submit"
              isDisabled={saving.isLoading || !form.host || !form.sender || !/^\d+$/.test(form.port)}
            >
              {t('useServer')}
            </MainButton>
            {ownSet && (
              <Button
                isDisabled={forgetting.isLoading}
                onPress={() => void forget().then(({ data }) => data && setForm(formOf(data)))}
              >
                {t('forgetServer')}
              </Button>
            )}
            {saving.isSuccess && <span role="status">{t('serverSaved')}</span>}
          </Row>
        </Stack>
      </form>
    </Stack>
  );
}
