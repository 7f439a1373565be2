import type { Push, ReachKey } from '@zonal/core/api';
import { PUSH_STATES } from '@zonal/core/reach';
import { useState, type FormEvent } from 'react';
import {
  problemOf,
  useEndPushMutation,
  usePausePushMutation,
  usePushQuery,
  useSavePushMutation,
  useTestPushMutation,
  useTurnPushSecretMutation,
} from '../../api/zonalApi';
import { Button, MainButton } from '../../ui/Button';
import { CopyButton } from '../../ui/CopyButton';
import { Field } from '../../ui/Field';
import { Faded, PlainTable, Row, Stack } from '../../ui/layout';
import { Loading, Notice } from '../../ui/Notice';
import { Overtaken } from '../../ui/Overtaken';
import { ProblemNotice } from '../../ui/ProblemNotice';
import { Sheet } from '../../ui/Sheet';
import { useNow } from '../../ui/useNow';
import { agoWords } from './reachWords';

/** So often, in milliseconds, it is looked what came of the last tries. */
const LIVE = 2_000;

/** Has changes of what a key shows pushed to a system of whom it is made out to, and tells what came of it. */
export function PushSheet({ keyOf, onClose }: { keyOf: ReachKey; onClose: () => void }) {
  const { data, error } = usePushQuery(keyOf.id, { pollingInterval: LIVE });
  return (
    <Sheet title={`Push to a system of ${keyOf.madeOutTo}`} onClose={onClose}>
      <Stack>
        <Faded>
          A system outside can be told at once when what this key shows has changed: by a signed request to an
          address of its own (Standard Webhooks). The request says which entries changed, and nothing of them;
          the system then asks the feed for what is new.
        </Faded>
        {error && <ProblemNotice problem={problemOf(error)} />}
        {data === undefined && !error && <Loading what="Looking" />}
        {data !== undefined && <PushForm id={keyOf.id} push={data} />}
      </Stack>
    </Sheet>
  );
}

function PushForm({ id, push }: { id: string; push: Push | null }) {
  const [address, setAddress] = useState(push?.address ?? '');
  const [version, setVersion] = useState(push?.version ?? 0);
  const [save, saving] = useSavePushMutation();
  const [turn, turning] = useTurnPushSecretMutation();
  const secret = turning.data?.secret ?? saving.data?.secret ?? null;
  const problem = problemOf(saving.error);
  const current = problem?.code === 'version-conflict' ? (problem.details['current'] as Push | null) : null;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const { data } = await save({ id, body: { address, version } });
    if (data) setVersion(data.version);
  };
  return (
    <>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          {current && (
            <Overtaken
              what="push"
              onMine={() => setVersion(current.version)}
              onTheirs={() => {
                setAddress(current.address);
                setVersion(current.version);
                saving.reset();
              }}
            />
          )}
          {problem && !current && <Notice>{problem.message}</Notice>}
          <Field
            label="Address that is told"
            placeholder="https://system.example/calendar-changed"
            value={address}
            onChange={setAddress}
            maxLength={1000}
          />
          <Row>
            <MainButton
              type="submit"
              isDisabled={saving.isLoading || !address.trim() || address === push?.address}
            >
              {push ? 'Change the address' : 'Have changes pushed'}
            </MainButton>
          </Row>
        </Stack>
      </form>
      {secret && <Secret secret={secret} />}
      {push && (
        <PushState
          id={id}
          push={push}
          onNewSecret={async () => {
            const { data } = await turn(id);
            if (data) setVersion(data.version);
          }}
          onEnded={() => {
            setAddress('');
            setVersion(0);
            saving.reset();
            turning.reset();
          }}
        />
      )}
    </>
  );
}

function Secret({ secret }: { secret: string }) {
  return (
    <Notice>
      <Stack>
        <span>
          The secret by which its requests are signed. <strong>It is shown this once</strong>: hand it to
          whoever runs the system.
        </span>
        <code style={{ overflowWrap: 'anywhere' }}>{secret}</code>
        <Row>
          <CopyButton what="secret" text={secret} />
        </Row>
      </Stack>
    </Notice>
  );
}

interface PushStateProps {
  id: string;
  push: Push;
  onNewSecret: () => Promise<void>;
  onEnded: () => void;
}

function PushState({ id, push, onNewSecret, onEnded }: PushStateProps) {
  const [pause, pausing] = usePausePushMutation();
  const [test, testing] = useTestPushMutation();
  const [end, ending] = useEndPushMutation();
  const problem = problemOf(pausing.error) ?? problemOf(testing.error) ?? problemOf(ending.error);
  const { word, todo } = PUSH_STATES[push.state];
  const now = useNow();
  return (
    <>
      <p role="status">
        It is <strong>{word}</strong>. {todo} {push.told > 0 && `Revision ${push.told} was told last. `}
        {push.state === 'on' && push.waits && 'Something new is being told just now. '}
        {push.oldUntil &&
          `Its secret of before counts as well until ${new Date(push.oldUntil).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}.`}
      </p>
      {problem && <ProblemNotice problem={problem} />}
      {/* None is switched off while it is at work: whoever pressed it by keyboard would lose their place. */}
      <Row>
        <Button onPress={() => void (testing.isLoading || test(id))}>
          {testing.isLoading ? 'Testing …' : 'Send a test'}
        </Button>
        <Button
          isDisabled={pausing.isLoading}
          onPress={() => void pause({ id, paused: push.state === 'on' })}
        >
          {push.state === 'on' ? 'Pause' : 'Let it go on'}
        </Button>
        <Button onPress={() => void onNewSecret()}>New secret</Button>
        <Button
          isDisabled={ending.isLoading}
          onPress={() => void end(id).then(({ error }) => !error && onEnded())}
        >
          Push no more
        </Button>
      </Row>
      {push.tries.length > 0 && (
        <PlainTable aria-label="The last tries">
          <thead>
            <tr>
              <th>When</th>
              <th>Revision</th>
              <th>Answer</th>
              <th>What came of it</th>
            </tr>
          </thead>
          <tbody>
            {push.tries.map((t) => (
              <tr key={`${t.message}${t.at}`}>
                <td data-label="When">{agoWords(t.at, now)}</td>
                <td data-label="Revision">{t.revision}</td>
                <td data-label="Answer">
                  {t.status ?? 'none'}
                  <small>after {t.took} ms</small>
                </td>
                <td data-label="What came of it">{t.trouble || 'told'}</td>
              </tr>
            ))}
          </tbody>
        </PlainTable>
      )}
    </>
  );
}
