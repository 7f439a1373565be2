import type { OutwardWindow, ReachKey, ReachSubscriber, WindowReach } from '@zonal/core/api';
import { type SubscriberState } from '@zonal/core/reach';
import { useState } from 'react';
import styled from 'styled-components';
import { useSearchParams } from 'react-router';
import { Button, QuietButton } from '../../ui/Button';
import { SelectOne } from '../../ui/Choice';
import { Field } from '../../ui/Field';
import { Faded, PlainTable, Row, Stack } from '../../ui/layout';
import { Empty } from '../../ui/Notice';
import { Sheet } from '../../ui/Sheet';
import { Behind } from './Behind';
import { PushSheet } from './PushSheet';
import { Swatch } from './StateBar';
import { byWords, readersWords } from '../../ui/timeWords';
import { FORM_WORDS, STATE_ORDER, STATE_WORDS, agoWords, heldWords, rhythmWords } from './reachWords';
import { LOCALE } from '../../texts/language';
import { t } from '../../texts/outside';
import { AUDIENCE_WORDS, GLASS_WORDS } from '../../texts/glassWords';
import { PUSH_STATES } from '../../texts/subscriberWords';

const Table = styled(PlainTable)`
  tbody th {
    font-size: inherit;
    color: inherit;
    background: var(--shade);
    padding: 0.5rem 0.8rem;
  }
  tbody th strong {
    margin-right: 0.6rem;
  }
`;

type Wanted = SubscriberState | 'all' | 'behind';

const WANTED: readonly { readonly value: Wanted; readonly text: string }[] = [
  { value: 'all', text: t('all') },
  { value: 'behind', text: t('thoseBehind') },
  ...STATE_ORDER.map((s) => ({ value: s, text: STATE_WORDS[s] })),
];

const fits = (s: ReachSubscriber, wanted: Wanted) =>
  wanted === 'all' || (wanted === 'behind' ? s.behind !== 0 : s.state === wanted);

/** So many rows are shown at once. */
const STEP = 100;

/** Keys of a window with those who follow by them, which can be narrowed down. */
export function Subscribers({ window, reach }: { window: OutwardWindow; reach: WindowReach }) {
  const now = Date.parse(reach.at);
  const [wanted, setWanted] = useState<Wanted>('all');
  const [find, setFind] = useState('');
  const [most, setMost] = useState(STEP);
  const [behind, setBehind] = useState<{ key: ReachKey; subscriber: ReachSubscriber } | null>(null);
  const [query, setQuery] = useSearchParams();
  // The studio leads here for one key.
  const [push, setPush] = useState<ReachKey | null>(
    () => reach.keys.find((k) => k.id === query.get('push')) ?? null,
  );
  const text = find.trim().toLowerCase();
  const keys = reach.keys
    .filter((k) => `${k.madeOutTo} ${k.contact}`.toLowerCase().includes(text))
    .map((key) => ({ key, all: key.subscribers.filter((s) => fits(s, wanted)) }))
    .filter(({ all }) => all.length || (wanted === 'all' && !text));
  const total = keys.reduce((sum, { all }) => sum + all.length, 0);
  return (
    <section aria-labelledby="subscribers">
      <Stack>
        <h2 id="subscribers">{t('keysAndFollowers')}</h2>
        <Row>
          <SelectOne label={t('show')} value={wanted} options={WANTED} onChange={setWanted} />
          <Field label={t('keyOrContact')} value={find} onChange={setFind} />
        </Row>
        {!keys.length && <Empty>{t('noSubscriber')}</Empty>}
        {keys.length > 0 && (
          <Table aria-label={t('keysAndFollowersTable')}>
            <thead>
              <tr>
                <th>{t('program')}</th>
                <th>{t('state')}</th>
                <th>{t('lastPoll')}</th>
                <th>{t('rhythm')}</th>
                <th>{t('hasRevision')}</th>
                <th>{t('nextPollLikely')}</th>
              </tr>
            </thead>
            {firstOf(keys, most).map(({ key, all }) => (
              <tbody key={key.id}>
                <KeyRow of={key} onPush={key.id === window.id ? null : () => setPush(key)} />
                {all.map((s, i) => (
                  <tr key={s.id}>
                    <td>
                      {FORM_WORDS[s.form]}
                      <small>
                        {s.readers > 1
                          ? t('oneForReaders', { count: s.readers })
                          : t('subscriberNumber', { number: i + 1 })}
                      </small>
                    </td>
                    <td>
                      <Swatch $state={s.state} />
                      {STATE_WORDS[s.state]}
                    </td>
                    <td data-label={t('lastPoll')}>
                      {agoWords(s.lastLook, now)}
                      <small>
                        {t('pollsSince', {
                          count: s.looks,
                          day: new Date(s.firstLook).toLocaleDateString(LOCALE, {
                            day: 'numeric',
                            month: 'short',
                          }),
                        })}
                      </small>
                    </td>
                    <td data-label={t('rhythm')}>{rhythmWords(s)}</td>
                    <td data-label={t('hasRevision')}>
                      {heldWords(s)}
                      {s.behind !== null && s.behind > 0 && window.keys.some((k) => sameView(k, key)) && (
                        <div>
                          <Button onPress={() => setBehind({ key, subscriber: s })}>
                            {t('whatItShows')}
                          </Button>
                        </div>
                      )}
                    </td>
                    <td data-label={t('nextPoll')}>{byWords(s.nextBy, now)}</td>
                  </tr>
                ))}
              </tbody>
            ))}
          </Table>
        )}
        {total > most && (
          <Row>
            <Faded>{t('shownOf', { shown: most, total })}</Faded>
            <Button onPress={() => setMost(most + STEP)}>{t('showMore')}</Button>
          </Row>
        )}
      </Stack>
      {push && (
        <PushSheet
          keyOf={push}
          onClose={() => {
            setPush(null);
            if (query.has('push')) setQuery({}, { replace: true });
          }}
        />
      )}
      {behind && (
        <Sheet title={t('stillHas', { place: behind.key.madeOutTo })} onClose={() => setBehind(null)}>
          <Behind
            keyId={window.keys.find((k) => sameView(k, behind.key))!.id}
            held={behind.subscriber.revision!}
            newest={behind.key.revision!}
          />
        </Sheet>
      )}
    </section>
  );
}

interface Listed {
  readonly key: ReachKey;
  readonly all: readonly ReachSubscriber[];
}

/** Returns keys with the first so many subscribers of all; of those after them nothing. */
function firstOf(keys: readonly Listed[], most: number): Listed[] {
  let left = most;
  return keys.flatMap(({ key, all }) => {
    const shown = all.slice(0, Math.max(0, left));
    left -= shown.length;
    return all.length && !shown.length ? [] : [{ key, all: shown }];
  });
}

const sameView = (a: Pick<ReachKey, 'audience' | 'cap'>, b: Pick<ReachKey, 'audience' | 'cap'>) =>
  a.audience === b.audience && a.cap === b.cap;

function KeyRow({ of, onPush }: { of: ReachKey; onPush: (() => void) | null }) {
  const readers = of.subscribers.reduce((sum, s) => sum + s.readers, 0);
  return (
    <tr>
      <th colSpan={6} scope="rowgroup">
        <strong>{of.madeOutTo}</strong>
        <Faded>
          {AUDIENCE_WORDS[of.audience].word}
          {of.cap ? t('atMostCap', { cap: GLASS_WORDS[of.cap].word.toLowerCase() }) : ''};{' '}
          {readers ? readersWords(readers) : t('nobodyFollowsKey')}
          {of.meantFor !== null && t('expectedReaders', { count: of.meantFor })}
          {of.byMail > 0 && t('mailReaders', { count: of.byMail })}
          {of.push && t('pushedState', { state: PUSH_STATES[of.push].word })}
          {of.contact && `; ${of.contact}`}
        </Faded>{' '}
        {onPush && (
          <QuietButton aria-label={t('pushTo', { place: of.madeOutTo })} onPress={onPush}>
            {t('pushToSystem')}
          </QuietButton>
        )}
      </th>
    </tr>
  );
}
