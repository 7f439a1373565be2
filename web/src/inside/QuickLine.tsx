import {
  EMPTY_CONTENT,
  quickMoment,
  readQuickLine,
  type Entry,
  type QuickLine as Line,
  type When,
} from '@zonal/core/entries';
import { DAY, dayAt } from '@zonal/core/zones';
import { useState, type FormEvent } from 'react';
import styled from 'styled-components';
import type { Calendar, EntryInput } from '@zonal/core/api';
import { adding, named } from './changes';
import { deskSet } from './deskSlice';
import type { Edits } from './useEdits';
import { useOutsideGate } from '../rehearsal/useOutsideGate';
import { useAppDispatch, useAppSelector } from '../store';
import { Button } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Hanging } from '../ui/Hanging';
import { Faded, Row } from '../ui/layout';
import { useNow } from '../ui/useNow';
import { t } from '../texts/inside';
import { dayText } from '../texts/formWords';

const Form = styled.form`
  position: relative;
  display: grid;
  grid-template-columns: 4.1rem minmax(0, 1fr);
  gap: 0.3rem;
  min-width: 0;
`;

/** Writes an entry from one line; what was understood stands below before it is saved. */
export function QuickLine({
  calendars,
  edits,
  onWritten,
}: {
  calendars: readonly Calendar[];
  edits: Edits;
  readonly onWritten: (entry: Entry) => void;
}) {
  const [text, setText] = useState('');
  const dispatch = useAppDispatch();
  const chosen = useAppSelector((state) => state.desk.lastCalendarId);
  const now = useNow();
  const calendar = calendars.find((c) => c.id === chosen) ?? calendars[0]!;
  const gate = useOutsideGate(calendar.name);
  const line = readQuickLine(text, dayAt(calendar.zone, now));

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!line) return;
    const entry = entryOf(line, calendar.zone);
    const edit = named('labelWrote', entry as Entry, [adding(calendar.id, entry)]);
    if (!(await gate.pass(edit.changes, [calendar.id]))) return;
    const answer = await edits.edit(edit);
    if ('code' in answer) return;
    gate.forget();
    const [written] = answer.entries;
    if (written) onWritten(written);
    edits.say(t('addedTo', { calendar: calendar.name, words: words(line) }));
    setText('');
  };

  return (
    <Form onSubmit={(event) => void submit(event)}>
      <SelectOne
        hideLabel
        label={t('quickInto')}
        value={calendar.id}
        options={calendars.map((c) => ({ value: c.id, text: `${c.plate} ${c.name}` }))}
        onChange={(lastCalendarId) => void dispatch(deskSet({ lastCalendarId }))}
      />
      <Field
        hideLabel
        label={t('quickLine')}
        placeholder={t('quickLineHint')}
        value={text}
        onChange={(next) => {
          setText(next);
          gate.forget();
        }}
      />
      {text && (
        <Hanging>
          <Row>
            <Faded as="p" role="status">
              {line ? t('understood', { calendar: calendar.name, words: words(line) }) : t('titleMissing')}
            </Faded>
            <Button type="submit" isDisabled={!line || edits.busy || gate.looking || gate.waits}>
              {t('addEntry')}
            </Button>
          </Row>
          {gate.view && <section aria-label={t('outsideChanges')}>{gate.view}</section>}
        </Hanging>
      )}
    </Form>
  );
}

function words({ title, place, labels, day, lastDay, time }: Line): string {
  const clock = (ms: number) => {
    const at = quickMoment(day, ms);
    return ms >= DAY ? t('nextDay', { time: at.time }) : at.time;
  };
  const when = time
    ? t('daySpan', { day: dayText(day), start: clock(time.start), end: clock(time.end) })
    : lastDay > day
      ? t('daysAllDay', { first: dayText(day), last: dayText(lastDay) })
      : t('dayAllDay', { day: dayText(day) });
  return [
    when,
    t('quoted', { title }),
    place && t('atPlace', { place }),
    labels.length && t('labelled', { labels: labels.join(', ') }),
  ]
    .filter(Boolean)
    .join(', ');
}

function entryOf({ title, place, labels, day, lastDay, time }: Line, zone: string): EntryInput {
  const at = (t: number): When => {
    const { date, time: clock } = quickMoment(day, t);
    return { kind: 'zoned', at: `${date}T${clock}:00`, zone };
  };
  const date = (d: number): When => ({ kind: 'date', date: quickMoment(d, 0).date });
  return {
    ...EMPTY_CONTENT,
    title,
    place,
    labels,
    start: time ? at(time.start) : date(day),
    end: time ? at(time.end) : date(lastDay + 1),
    recurrence: null,
    overrides: [],
  };
}
