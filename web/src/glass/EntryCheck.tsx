import type { Entry } from '@zonal/core/entries';
import {
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
import { t } from '../texts/glass';
import { fieldText, reasonWords, whenWords } from '../texts/formWords';
import { AUDIENCE_WORDS, GLASS_WORDS, partWord } from '../texts/glassWords';

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
  closed: t('unseenClosed'),
  'filtered-out': t('unseenFiltered'),
  ended: t('unseenEnded'),
  'outside-horizon': t('unseenDays'),
  'held-back': t('unseenShut'),
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
      <h2 id="who">{t('whoSeesEntry')}</h2>
      <Field label={t('findEntry')} value={text} onChange={setText} placeholder={t('findEntryHint')} />
      {text.trim().length > 1 && data && (
        <>
          <Faded role="status">{data.total ? t('found', { count: data.total }) : t('notFound')}</Faded>
          <Found>
            {data.entries.slice(0, 12).map((e) => {
              const calendar = calendars.find((c) => c.id === e.calendarId);
              return (
                <li key={e.id}>
                  <Button aria-pressed={entry?.id === e.id} onPress={() => setEntry(e)}>
                    {calendar && <Plate {...calendar} />} {e.title || t('untitled')}{' '}
                    <Faded>{whenWords(e.start)}</Faded>
                  </Button>
                </li>
              );
            })}
          </Found>
        </>
      )}
      {problem && <Notice>{problem}</Notice>}
      {entry && busy && !answer && <Loading what={t('searching')} />}
      {entry && answer && <Paths entry={entry} paths={answer} />}
    </Stack>
  );
}

function Paths({ entry, paths }: { entry: Entry; paths: readonly EntryPath[] }) {
  if (!paths.length) return <Notice>{t('nobodyOutside', { title: entry.title })}</Notice>;
  return (
    <Table aria-label={t('whoSees', { title: entry.title })}>
      <thead>
        <tr>
          <th scope="col">{t('who')}</th>
          <th scope="col">{t('through')}</th>
          <th scope="col">{t('whatExactly')}</th>
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
      <dt>{t('time')}</dt>
      <dd>
        {t('seenTimes', {
          start: whenWords(items[0]!.start, hostZone),
          end: whenWords(items[0]!.end, hostZone),
          more: times - 1,
        })}
      </dd>
      {busy.length > 0 && (
        <>
          <dt>{t('busy')}</dt>
          <dd>{t('busySay')}</dd>
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
