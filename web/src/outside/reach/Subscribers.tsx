import type { OutwardWindow, ReachKey, ReachSubscriber, WindowReach } from '@zonal/core/api';
import { PUSH_STATES, type SubscriberState } from '@zonal/core/reach';
import { AUDIENCE_WORDS } from '@zonal/core/glass';
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
  { value: 'all', text: 'all' },
  { value: 'behind', text: 'those behind' },
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
        <h2 id="subscribers">Keys and who follows by them</h2>
        <Row>
          <SelectOne label="Show" value={wanted} options={WANTED} onChange={setWanted} />
          <Field label="Key or contact" value={find} onChange={setFind} />
        </Row>
        {!keys.length && <Empty>No subscriber is like that.</Empty>}
        {keys.length > 0 && (
          <Table aria-label="Keys and subscribers">
            <thead>
              <tr>
                <th>Program</th>
                <th>State</th>
                <th>Last look</th>
                <th>Rhythm</th>
                <th>Holds revision</th>
                <th>Looks again, as likely as not</th>
              </tr>
            </thead>
            {firstOf(keys, most).map(({ key, all }) => (
              <tbody key={key.id}>
                <KeyRow of={key} onPush={key.id === window.id ? null : () => setPush(key)} />
                {all.map((s, i) => (
                  <tr key={s.id}>
                    <td>
                      {FORM_WORDS[s.form]}
                      <small>{s.readers > 1 ? `one for ${s.readers} readers` : `subscriber ${i + 1}`}</small>
                    </td>
                    <td>
                      <Swatch $state={s.state} />
                      {STATE_WORDS[s.state]}
                    </td>
                    <td data-label="Last look">
                      {agoWords(s.lastLook, now)}
                      <small>
                        {s.looks} {s.looks === 1 ? 'look' : 'looks'} since{' '}
                        {new Date(s.firstLook).toLocaleDateString('en-GB', {
                          day: 'numeric',
                          month: 'short',
                        })}
                      </small>
                    </td>
                    <td data-label="Rhythm">{rhythmWords(s)}</td>
                    <td data-label="Holds revision">
                      {heldWords(s)}
                      {s.behind !== null && s.behind > 0 && window.keys.some((k) => sameView(k, key)) && (
                        <div>
                          <Button onPress={() => setBehind({ key, subscriber: s })}>
                            What it still shows
                          </Button>
                        </div>
                      )}
                    </td>
                    <td data-label="Looks again">{byWords(s.nextBy, now)}</td>
                  </tr>
                ))}
              </tbody>
            ))}
          </Table>
        )}
        {total > most && (
          <Row>
            <Faded>
              {most} of {total} are shown.
            </Faded>
            <Button onPress={() => setMost(most + STEP)}>Show more</Button>
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
        <Sheet title={`What ${behind.key.madeOutTo} still has`} onClose={() => setBehind(null)}>
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
          {of.cap ? `, at most ${of.cap}` : ''};{' '}
          {readers ? readersWords(readers) : 'nobody follows by it yet'}
          {of.meantFor !== null && `, made out for ${of.meantFor}`}
          {of.byMail > 0 && `; ${of.byMail} ${of.byMail === 1 ? 'hears' : 'hear'} of changes by mail`}
          {of.push && `; pushed to a system: ${PUSH_STATES[of.push].word}`}
          {of.contact && `; ${of.contact}`}
        </Faded>{' '}
        {onPush && (
          <QuietButton aria-label={`Push to a system of ${of.madeOutTo}`} onPress={onPush}>
            Push to a system …
          </QuietButton>
        )}
      </th>
    </tr>
  );
}
