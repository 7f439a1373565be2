import type { Push, ReachKey } from '@zonal/core/api';
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
import { LOCALE } from '../../texts/language';
import { t } from '../../texts/outside';
import { PUSH_STATES } from '../../texts/subscriberWords';

/** So often, in milliseconds, it is looked what came of the last tries. */
const LIVE = 2_000;

/** Has changes of what a key shows pushed to a system of whom it is made out to, and tells what came of it. */
export function PushSheet({ keyOf, onClose }: { keyOf: ReachKey; onClose: () => void }) {
  const { data, error } = usePushQuery(keyOf.id, { pollingInterval: LIVE });
  return (
    <Sheet title={t('pushTo', { place: keyOf.madeOutTo })} onClose={onClose}>
      <Stack>
        <Faded>{t('pushHint')}</Faded>
        {error && <ProblemNotice problem={problemOf(error)} />}
        {data === undefined && !error && <Loading what={t('fetchingPush')} />}
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
            label={t('pushAddress')}
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
              {push ? t('changeAddress') : t('startPush')}
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
        <span>{t.rich('secretHint', { strong: (text) => <strong>{text}</strong> })}</span>
        <code style={{ overflowWrap: 'anywhere' }}>{secret}</code>
        <Row>
          <CopyButton what={t('secret')} text={secret} />
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
        {t.rich('pushState', { state: word, todo, strong: (text) => <strong>{text}</strong> })}{' '}
        {push.told > 0 && `${t('pushedRevision', { revision: push.told })} `}
        {push.state === 'on' && push.waits && `${t('pushWaits')} `}
        {push.oldUntil &&
          t('oldSecretUntil', {
            time: new Date(push.oldUntil).toLocaleString(LOCALE, { dateStyle: 'medium', timeStyle: 'short' }),
          })}
      </p>
      {problem && <ProblemNotice problem={problem} />}
      {/* None is switched off while it is at work: whoever pressed it by keyboard would lose their place. */}
      <Row>
        <Button onPress={() => void (testing.isLoading || test(id))}>
          {testing.isLoading ? t('testingPush') : t('sendTest')}
        </Button>
        <Button
          isDisabled={pausing.isLoading}
          onPress={() => void pause({ id, paused: push.state === 'on' })}
        >
          {push.state === 'on' ? t('pause') : t('resume')}
        </Button>
        <Button onPress={() => void onNewSecret()}>{t('newSecret')}</Button>
        <Button
          isDisabled={ending.isLoading}
          onPress={() => void end(id).then(({ error }) => !error && onEnded())}
        >
          {t('endPush')}
        </Button>
      </Row>
      {push.tries.length > 0 && (
        <PlainTable aria-label={t('lastAttempts')}>
          <thead>
            <tr>
              <th>{t('when')}</th>
              <th>{t('revision')}</th>
              <th>{t('answer')}</th>
              <th>{t('outcome')}</th>
            </tr>
          </thead>
          <tbody>
            {push.tries.map((attempt) => (
              <tr key={`${attempt.message}${attempt.at}`}>
                <td data-label={t('when')}>{agoWords(attempt.at, now)}</td>
                <td data-label={t('revision')}>{attempt.revision}</td>
                <td data-label={t('answer')}>
                  {attempt.status ?? t('noAnswer')}
                  <small>{t('afterMs', { ms: attempt.took })}</small>
                </td>
                <td data-label={t('outcome')}>{attempt.trouble || t('accepted')}</td>
              </tr>
            ))}
          </tbody>
        </PlainTable>
      )}
    </>
  );
}
