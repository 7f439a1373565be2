import type { Entry } from '@zonal/core/entries';
import { fieldText, reasonWords, whenWords } from '@zonal/core/forms';
import {
  partWord,
  AUDIENCE_WORDS,
  GLASS_WORDS,
  timesOf,
  type EntryPath,
  type EntrySight,
  type OutwardField,
  type OutwardItem,
} from '@zonal/core/glass';
import type { ZoneName } from '@zonal/core/zones';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { useFindQuery } from '../api/zonalApi';
import type { Calendar, OutwardWindow } from '@zonal/core/api';
import type { WhoQuestion } from '../workers/questions';
import { sighted } from '../rehearsal/sighted';
import { useAnswer } from '../workers/useAnswer';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { GlassMark, Rings } from '../ui/GlassMark';
import { Faded, Row, Stack } from '../ui/layout';
import { Loading, Notice } from '../ui/Notice';
import { Plate } from '../ui/Plate';

const Found = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  background: var(--sheet);
  border: 1px solid var(--line);
  font-size: 0.92rem;
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 0.4rem 0.7rem;
    border-bottom: 1px solid var(--hair);
    font-weight: 400;
    overflow-wrap: anywhere;
  }
  dl {
    margin: 0;
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0 0.8rem;
  }
  dt {
    color: var(--faded);
  }
  dd {
    margin: 0;
  }
`;

const SIGHTS: Readonly<Record<EntrySight, string>> = {
  seen: 'seen',
  closed: 'not seen: the window is closed',
  'filtered-out': 'not seen: the window’s filter leaves it out',
  ended: 'not seen: the key has ended',
  'outside-horizon': 'not seen: it lies outside the days shown',
  'held-back': 'not seen: nothing gets through',
};

interface EntryCheckProps {
  calendars: readonly Calendar[];
  windows: readonly OutwardWindow[];
  now: number;
}

/** “Who can see this, and what exactly?”, field by field for every audience and key. */
export function EntryCheck({ calendars, windows, now }: EntryCheckProps) {
  const [text, setText] = useState('');
  const [entry, setEntry] = useState<Entry | null>(null);
  const { data } = useFindQuery({ text, in: 'text' }, { skip: text.trim().length < 2 });
  const question = useMemo(
    (): WhoQuestion | null => entry && { kind: 'who', entry, windows: windows.map(sighted), now },
    [entry, windows, now],
  );
  const { answer, problem, busy } = useAnswer(question);
  return (
    <Stack as="section" aria-labelledby="who">
      <h2 id="who">Who can see one entry, and what exactly?</h2>
      <Field
        label="Find the entry"
        value={text}
        onChange={setText}
        placeholder="words of its title, place …"
      />
      {text.trim().length > 1 && data && (
        <>
          <Faded role="status">
            {data.total ? `${data.total} found` : 'Nothing found. Try other words.'}
          </Faded>
          <Found>
            {data.entries.slice(0, 12).map((e) => {
              const calendar = calendars.find((c) => c.id === e.calendarId);
              return (
                <li key={e.id}>
                  <Button aria-pressed={entry?.id === e.id} onPress={() => setEntry(e)}>
                    {calendar && <Plate {...calendar} />} {e.title || 'Untitled'}{' '}
                    <Faded>{whenWords(e.start)}</Faded>
                  </Button>
                </li>
              );
            })}
          </Found>
        </>
      )}
      {problem && <Notice>{problem}</Notice>}
      {entry && busy && !answer && <Loading what="Looking" />}
      {entry && answer && <Paths entry={entry} paths={answer} />}
    </Stack>
  );
}

function Paths({ entry, paths }: { entry: Entry; paths: readonly EntryPath[] }) {
  if (!paths.length) return <Notice>Nobody outside: no window shows the calendar of “{entry.title}”.</Notice>;
  return (
    <Table aria-label={`Who can see ${entry.title}`}>
      <thead>
        <tr>
          <th scope="col">Who</th>
          <th scope="col">Through</th>
          <th scope="col">What exactly</th>
        </tr>
      </thead>
      <tbody>
        {paths.map((p) => (
          <tr key={p.keyId}>
            <th scope="row">
              <Row style={{ gap: '0.4rem' }}>
                <Rings audience={p.audience} /> {AUDIENCE_WORDS[p.audience].word}
              </Row>
              <Faded>
                {p.window}, “{p.madeOutTo}”
              </Faded>
            </th>
            <td>
              <GlassMark glass={p.glass} /> <strong>{GLASS_WORDS[p.glass].word}</strong>
              <br />
              <Faded>{reasonWords(p.reasons)}</Faded>
            </td>
            <td>{p.sight === 'seen' ? <Seen items={p.items} hostZone={p.hostZone} /> : SIGHTS[p.sight]}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

function Seen({ items, hostZone }: { items: readonly OutwardItem[]; hostZone: ZoneName }) {
  const busy = items.filter((i) => i.kind === 'busy');
  const told = items.find((i) => i.kind !== 'busy');
  const times = items.reduce((n, i) => n + timesOf(i), 0);
  return (
    <dl>
      <dt>time</dt>
      <dd>
        {whenWords(items[0]!.start, hostZone)} to {whenWords(items[0]!.end, hostZone)}
        {times > 1 ? `, and ${times - 1} more` : ''}
      </dd>
      {busy.length > 0 && (
        <>
          <dt>busy</dt>
          <dd>that the time is taken, merged with whatever else is</dd>
        </>
      )}
      {told &&
        (Object.keys(told.content) as OutwardField[]).map((field) => (
          <FieldRow key={field} field={partWord(field)} text={fieldText(field, told.content[field])} />
        ))}
    </dl>
  );
}

function FieldRow({ field, text }: { field: string; text: string }) {
  if (!text) return null;
  return (
    <>
      <dt>{field}</dt>
      <dd>{text}</dd>
    </>
  );
}
