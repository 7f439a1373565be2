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
import { t } from '../../texts/outside';

const HOUR = 3_600_000;

/** By when a change has to be known. */
const TIMES = [
  { value: '1', text: t('withinHour') },
  { value: '3', text: t('withinThreeHours') },
  { value: '6', text: t('withinSixHours') },
  { value: '12', text: t('withinTwelveHours') },
  { value: '24', text: t('withinDay') },
  { value: '72', text: t('withinThreeDays') },
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
    .map(({ madeOutTo: place, contact, late, readers: all }) =>
      contact
        ? t('contactLine', { place, contact, late, readers: all })
        : t('placeLine', { place, late, readers: all }),
    )
    .join('\n');
  const expected = told && {
    time: momentWords(by, Date.parse(data!.at)),
    known: told.known,
    readers: readersWords(told.forecast.readers),
  };
  return (
    <section aria-labelledby="in-time">
      <Stack>
        <h2 id="in-time">{t('lateReaders')}</h2>
        <SelectOne label={t('mustBeKnown')} value={hours} options={TIMES} onChange={setHours} />
        <Urgent window={window} by={by} urgentBy={urgentBy} />
        {error && <ProblemNotice problem={problemOf(error)} />}
        {!told && !error && <Loading what={t('computing')} />}
        {told && told.forecast.readers === 0 && <Faded>{t('nobodyFollowsYet')}</Faded>}
        {expected && told.forecast.readers > 0 && (
          <>
            <p role="status">
              {list.length ? t('expectedSome', { ...expected, late: readers }) : t('expectedAll', expected)}
            </p>
            {list.length > 0 && (
              <>
                <NotedList aria-label={t('lateKeys')}>
                  {list.map((k) => (
                    <li key={k.id}>
                      {t('lateKey', { place: k.madeOutTo, late: k.late, readers: readersWords(k.readers) })}
                      <small>{k.contact || t('noContact')}</small>
                    </li>
                  ))}
                </NotedList>
                <Row>
                  <CopyButton what={t('list')} text={text} />
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
          {urgentBy ? t('urgentUntil', { time: momentWords(urgentBy, now) }) : t('urgentOffer')}
        </Faded>
        <Button
          isDisabled={setting.isLoading}
          onPress={() => void set({ id: window.id, by: urgentBy ? null : by })}
        >
          {urgentBy ? t('notUrgent') : t('urgent')}
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
  if (!known.length) return <Faded>{t('noMailContacts')}</Faded>;
  if (!open)
    return (
      <Row>
        {sending.data && <span role="status">{t('mailsOnWay', { count: sending.data.sent })}</span>}
        <Button onPress={() => setOpen(true)}>{t('writeTo', { count: known.length })}</Button>
      </Row>
    );
  const problem = problemOf(sending.error);
  return (
    <Stack role="group" aria-label={t('lateMail')}>
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
      <Field lines label={t('yourWords')} value={words} onChange={setWords} maxLength={2000} />
      <Faded>{t('lateMailHint', { name: window.wording.name })}</Faded>
      <Row>
        <OutsideButton
          isDisabled={!chosen.length || sending.isLoading}
          onPress={() =>
            void send({ id: window.id, body: { keyIds: chosen.map((k) => k.id), words } }).then(
              ({ data }) => data && setOpen(false),
            )
          }
        >
          {t('sendMails', { count: chosen.length })}
        </OutsideButton>
        <Button onPress={() => setOpen(false)}>{t('notNow')}</Button>
      </Row>
      {problem && <ProblemNotice problem={problem} />}
    </Stack>
  );
}
