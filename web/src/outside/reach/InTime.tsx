import type { LateKey, OutwardWindow } from '@zonal/core/api';
import { useState } from 'react';
import { problemOf, useKnowingQuery, useMailReachMutation, useSetUrgentMutation } from '../../api/zonalApi';
import { Button, OutsideButton } from '../../ui/Button';
import { CopyButton } from '../../ui/CopyButton';
import { SelectOne } from '../../ui/Choice';
import { Field } from '../../ui/Field';
import { Faded, NotedList, Row, Stack } from '../../ui/layout';
import { Loading } from '../../ui/Notice';
import { ProblemNotice } from '../../ui/ProblemNotice';
import { Tick } from '../../ui/Tick';
import { useNow } from '../../ui/useNow';
import { LIVE } from './ReachPage';
import { momentWords, readersWords } from '../../ui/timeWords';

const HOUR = 3_600_000;

/** By when a change has to be known. */
const TIMES = [
  { value: '1', text: 'within the hour' },
  { value: '3', text: 'within three hours' },
  { value: '6', text: 'within six hours' },
  { value: '12', text: 'within twelve hours' },
  { value: '24', text: 'within a day' },
  { value: '72', text: 'within three days' },
] as const;

/** Moments are kept for so long, so that the same is asked for again. */
const STEP = 60_000;

/** Who does not know the newest change in time, and what can be done about it. */
export function InTime({ window, urgentBy }: { window: OutwardWindow; urgentBy: string | null }) {
  const [hours, setHours] = useState<(typeof TIMES)[number]['value']>('3');
  const [began] = useState(() => Math.ceil(Date.now() / STEP) * STEP);
  const by = new Date(began + Number(hours) * HOUR).toISOString();
  const { data, error } = useKnowingQuery(
    { windows: window.id, by, revision: 'newest' },
    { pollingInterval: LIVE },
  );
  const told = data?.windows[0];
  const list = told?.late ?? [];
  const readers = list.reduce((sum, k) => sum + k.late, 0);
  const text = list
    .map((k) => `${k.madeOutTo}${k.contact ? `, ${k.contact}` : ''}: ${k.late} of ${k.readers}`)
    .join('\n');
  return (
    <section aria-labelledby="in-time">
      <Stack>
        <h2 id="in-time">Who does not know in time</h2>
        <SelectOne
          label="The newest change has to be known"
          value={hours}
          options={TIMES}
          onChange={setHours}
        />
        <Urgent window={window} by={by} urgentBy={urgentBy} />
        {error && <ProblemNotice problem={problemOf(error)} />}
        {!told && !error && <Loading what="Working it out" />}
        {told && told.forecast.readers === 0 && <Faded>No program follows it yet.</Faded>}
        {told && told.forecast.readers > 0 && (
          <>
            <p role="status">
              By {momentWords(by, Date.parse(data!.at))}, {told.known} of{' '}
              {readersWords(told.forecast.readers)} are expected to have it
              {list.length ? `; ${readers} probably not:` : '. Nobody is expected to be late.'}
            </p>
            {list.length > 0 && (
              <>
                <NotedList aria-label="Keys whose readers are late">
                  {list.map((k) => (
                    <li key={k.id}>
                      {k.madeOutTo}: {k.late} of {readersWords(k.readers)}
                      <small>{k.contact || 'no contact is noted with this key'}</small>
                    </li>
                  ))}
                </NotedList>
                <Row>
                  <CopyButton what="list" text={text} />
                </Row>
                <Mail window={window} keys={list} />
              </>
            )}
          </>
        )}
      </Stack>
    </section>
  );
}

interface UrgentProps {
  window: OutwardWindow;
  by: string;
  urgentBy: string | null;
}

/** Whether it is told, on the screen and by mail, where too few know in time. */
function Urgent({ window, by, urgentBy }: UrgentProps) {
  const [set, setting] = useSetUrgentMutation();
  const now = useNow();
  const problem = problemOf(setting.error);
  return (
    <>
      <Row>
        <Faded role="status">
          {urgentBy
            ? `You are told where too few know by ${momentWords(urgentBy, now)}.`
            : 'Where too few know by then, you can be told.'}
        </Faded>
        <Button
          isDisabled={setting.isLoading}
          onPress={() => void set({ id: window.id, by: urgentBy ? null : by })}
        >
          {urgentBy ? 'It is urgent no more' : 'It is urgent: tell me'}
        </Button>
      </Row>
      {problem && <ProblemNotice problem={problem} />}
    </>
  );
}

interface MailProps {
  window: OutwardWindow;
  keys: readonly LateKey[];
}

/** Writes to those to whom late keys are made out. */
function Mail({ window, keys }: MailProps) {
  const [left, setLeft] = useState<readonly string[]>([]);
  const [words, setWords] = useState('');
  const [open, setOpen] = useState(false);
  const [send, sending] = useMailReachMutation();
  const known = keys.filter((k) => k.byMail);
  const chosen = known.filter((k) => !left.includes(k.id));
  if (!known.length)
    return (
      <Faded>
        None of these keys has a mail address as its contact. Note one with the key in the studio, and it can
        be written to from here.
      </Faded>
    );
  if (!open)
    return (
      <Row>
        {sending.data && (
          <span role="status">
            {sending.data.sent === 1 ? 'One mail is' : `${sending.data.sent} mails are`} on the way.
          </span>
        )}
        <Button onPress={() => setOpen(true)}>
          Write to {known.length === 1 ? 'this one' : `these ${known.length}`} …
        </Button>
      </Row>
    );
  const problem = problemOf(sending.error);
  return (
    <Stack role="group" aria-label="A mail to late keys">
      {known.map((k) => (
        <Tick
          key={k.id}
          isSelected={!left.includes(k.id)}
          onChange={(on) => setLeft(on ? left.filter((id) => id !== k.id) : [...left, k.id])}
        >
          {k.madeOutTo}
          <small>{k.contact}</small>
        </Tick>
      ))}
      <Field
        lines
        label="What you want to tell them; it goes out as it is"
        value={words}
        onChange={setWords}
        maxLength={2000}
      />
      <Faded>
        The mail says that “{window.wording.name}” has changed, and where it is to be seen; no entry stands in
        it.
      </Faded>
      <Row>
        <OutsideButton
          isDisabled={!chosen.length || sending.isLoading}
          onPress={() =>
            void send({ id: window.id, body: { keyIds: chosen.map((k) => k.id), words } }).then(
              ({ data }) => data && setOpen(false),
            )
          }
        >
          Send {chosen.length === 1 ? 'one mail' : `${chosen.length} mails`}
        </OutsideButton>
        <Button onPress={() => setOpen(false)}>Not now</Button>
      </Row>
      {problem && <ProblemNotice problem={problem} />}
    </Stack>
  );
}
