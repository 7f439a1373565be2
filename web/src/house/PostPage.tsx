import type { Mail, Post } from '@zonal/core/api';
import { LETTER_KINDS, MAIL_STATES } from '@zonal/core/post';
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
  if (!post || isRefused(error)) return <Waiting what="Fetching the post" error={error} />;
  return (
    <HousePart title="Mail of the house">
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
      <h2 id="server">Mail server</h2>
      {server ? (
        <p>
          Mail goes out by <strong>{server.host}</strong>, port {server.port}, from{' '}
          <strong>{server.sender}</strong>.{' '}
          {setBy === 'start' ? 'It was set where the server is started.' : 'It was set here.'}
          {postbox && setBy === 'start' && (
            <>
              {' '}
              In the demo that is a stand-in: <a href={postbox}>the postbox</a> shows what came.
            </>
          )}
        </p>
      ) : (
        <Notice>No mail server is set. Mails are kept until there is one; set it below.</Notice>
      )}
      {error && <ProblemNotice problem={problemOf(error)} />}
      <Row>
        <Button isDisabled={isLoading || !server} onPress={() => void test()}>
          Send me a test mail
        </Button>
        {isSuccess && <span role="status">It is on its way; how it stands is told below.</span>}
      </Row>
    </Stack>
  );
}

function MailList({ mails }: { mails: readonly Mail[] }) {
  const [again, { error, isLoading }] = useMailAgainMutation();
  const inTrouble = mails.filter((m) => MAIL_STATES[m.state].todo).length;
  return (
    <Stack as="section" aria-labelledby="mails">
      <h2 id="mails">Mails</h2>
      <Faded role="status">
        {inTrouble
          ? `${inTrouble} of them ${inTrouble === 1 ? 'needs' : 'need'} a look.`
          : 'None of them needs a look.'}
      </Faded>
      {error && <ProblemNotice problem={problemOf(error)} />}
      {!mails.length && <Empty>No mail was written yet.</Empty>}
      {mails.length > 0 && (
        <Mails aria-label="Mails">
          {mails.map(({ id, kind, to, state, tries, trouble, at }) => {
            const { word, todo } = MAIL_STATES[state];
            const waits = state === 'waiting' && tries + Number(trouble !== '') > 0;
            return (
              <li key={id}>
                <span>
                  <strong>{word}</strong>: {LETTER_KINDS[kind]} to {to}
                  <small>
                    {dayOf(at)}
                    {trouble && `. The mail server says: ${trouble}`}
                  </small>
                  {todo && <small>{todo}</small>}
                  {waits && <small>It is tried again by itself, later and later.</small>}
                </span>
                {(todo || waits) && (
                  <Button
                    isDisabled={isLoading}
                    aria-label={`Send again: ${LETTER_KINDS[kind]} to ${to}`}
                    onPress={() => void again(id)}
                  >
                    Send again
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
      <h2 id="own">A mail server of your own</h2>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          <Pair>
            <Field
              label="Name of the server"
              value={form.host}
              onChange={(host) => set({ host })}
              isRequired
            />
            <Field
              label="Port"
              inputMode="numeric"
              value={form.port}
              onChange={(port) => set({ port })}
              help="587 where encryption begins after the greeting, 465 where it does at once."
            />
            <Field label="Account there" value={form.account} onChange={(account) => set({ account })} />
            <Field
              label="Password there"
              type="password"
              autoComplete="off"
              value={form.password}
              onChange={(password) => set({ password })}
              help={
                ownSet ? 'Left empty, the one that is kept stays.' : 'It is kept sealed, and shown to nobody.'
              }
            />
            <Field
              label="Mail comes from"
              type="email"
              value={form.sender}
              onChange={(sender) => set({ sender })}
              isRequired
            />
          </Pair>
          <Tick isSelected={form.secure} onChange={(secure) => set({ secure })}>
            Encrypted from the first byte
            <small>Without it, encryption begins as soon as the server offers it.</small>
          </Tick>
          {current && (
            <Overtaken
              what="mail server"
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
              Use this server
            </MainButton>
            {ownSet && (
              <Button
                isDisabled={forgetting.isLoading}
                onPress={() => void forget().then(({ data }) => data && setForm(formOf(data)))}
              >
                Forget it
              </Button>
            )}
            {saving.isSuccess && <span role="status">Kept. Send yourself a test mail above.</span>}
          </Row>
        </Stack>
      </form>
    </Stack>
  );
}
