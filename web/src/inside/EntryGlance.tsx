import type { Calendar } from '@zonal/core/api';
import {
  CONTENT_FIELDS,
  EMPTY_CONTENT,
  capital,
  wallOf,
  whenLike,
  type Content,
  type Entry,
  type When,
} from '@zonal/core/entries';
import styled from 'styled-components';
import { useState } from 'react';
import { Button } from '../ui/Button';
import { Faded, Row, Stack } from '../ui/layout';
import { Sheet } from '../ui/Sheet';
import { AskSheet } from './AskSheet';
import type { DateOf } from './entryEdit';
import { Picture } from './Picture';
import { sightWords } from './sightWords';
import { t } from '../texts/inside';
import { fieldWord } from '../texts/entryWords';
import { fieldText, spanWords } from '../texts/formWords';
import { whoMay } from '../texts/rightsWords';

const Facts = styled.dl`
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 0.4rem 1rem;
  margin: 0;
  dt {
    color: var(--faded);
  }
  dd {
    margin: 0;
    overflow-wrap: anywhere;
    white-space: pre-line;
  }
`;

interface EntryGlanceProps {
  entry: Entry;
  /** The one of its dates that was opened. */
  date: DateOf;
  calendar: Calendar;
  onClose: () => void;
}

/** An entry that one sees and does not write. */
export function EntryGlance({ entry, date, calendar, onClose }: EntryGlanceProps) {
  const [asking, setAsking] = useState(false);
  const moved = entry.overrides.find((o) => date.slot && same(o.slot, date.slot));
  const content = moved?.content ?? entry;
  const facts = CONTENT_FIELDS.filter(
    (field) => !SHOWN_APART.includes(field) && !isUsual(content, field),
  ).flatMap((field) => {
    const text = fieldText(field, content[field]);
    return text ? [[capital(fieldWord(field)), text] as const] : [];
  });
  if (asking) return <AskSheet calendar={calendar} onClose={onClose} />;
  return (
    <Sheet title={content.title || t('untitledEntry')} onClose={onClose}>
      <Stack>
        <Facts>
          <dt>{t('when')}</dt>
          <dd>
            {spanWords(moved ?? (date.slot ? { start: date.slot, end: endFrom(date.slot, entry) } : entry))}
          </dd>
          <dt>{t('calendar')}</dt>
          <dd>{calendar.name}</dd>
          {facts.map(([word, text]) => (
            <div key={word} style={{ display: 'contents' }}>
              <dt>{word}</dt>
              <dd>{text}</dd>
            </div>
          ))}
        </Facts>
        {content.image && <Picture image={content.image} calendarId={calendar.id} />}
        <Faded>{t('sightAndAsk', { sight: sightWords(calendar), who: whoMay('write') })}</Faded>
        <Row>
          <Button onPress={() => setAsking(true)}>{t('askForMore')}</Button>
        </Row>
      </Stack>
    </Sheet>
  );
}

/** Fields that are not shown as a line of text. */
const SHOWN_APART: readonly (keyof Content)[] = ['title', 'image'];

/** What is as in a new entry need not be said. */
function isUsual(content: Content, field: keyof Content): boolean {
  return content[field] === EMPTY_CONTENT[field];
}

/** A date of a series lasts as long as the series says. */
function endFrom(slot: When, { start, end }: Entry): When {
  return whenLike(slot, wallOf(slot) + wallOf(end) - wallOf(start));
}

function same(a: object, b: object): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}
