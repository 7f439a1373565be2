import { isInLastWeek, type Entry } from '@zonal/core/entries';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { SelectOne } from '../ui/Choice';
import { DateField } from '../ui/DateFields';
import { Field } from '../ui/Field';
import { Faded, Pair, Stack } from '../ui/layout';
import { recurrenceWords, spanOf, type EntryForm } from './entryForm';
import type { FieldErrors } from './fieldErrors';

const Days = styled(ToggleButtonGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem;
  button {
    min-width: 2.6rem;
    min-height: 2rem;
    border: 1px solid var(--line);
    background: var(--sheet);
    cursor: pointer;
  }
  button[data-selected] {
    background: var(--ink);
    color: var(--paper);
  }
`;

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const UNITS = {
  daily: 'days',
  weekly: 'weeks',
  'monthly-date': 'months',
  'monthly-weekday': 'months',
  'monthly-last': 'months',
  yearly: 'years',
};

function inLastWeek(form: EntryForm): boolean {
  try {
    return isInLastWeek(spanOf(form).start);
  } catch {
    return false;
  }
}

interface RecurrenceFieldsProps {
  form: EntryForm;
  before: Entry | null;
  set: (part: Partial<EntryForm>) => void;
  errors: FieldErrors;
}

/** The common rules. Any other rule that an entry has is shown in words and kept as it is. */
export function RecurrenceFields({ form, before, set, errors }: RecurrenceFieldsProps) {
  const { recurs } = form;
  return (
    <Stack>
      <SelectOne
        label="Recurs"
        value={recurs}
        options={[
          { value: 'once', text: 'Takes place once' },
          { value: 'daily', text: 'Every day' },
          { value: 'weekly', text: 'Every week' },
          { value: 'monthly-date', text: 'Every month, on the same date' },
          { value: 'monthly-weekday', text: 'Every month, on the same weekday' },
          ...(recurs === 'monthly-last' || inLastWeek(form)
            ? [{ value: 'monthly-last' as const, text: 'Every month, on the last such weekday' }]
            : []),
          { value: 'yearly', text: 'Every year' },
          ...(before && before.recurrence ? [{ value: 'kept' as const, text: 'As it is now' }] : []),
        ]}
        onChange={(value) => set({ recurs: value })}
      />
      {recurs !== 'once' && recurs !== 'kept' && (
        <>
          {recurs === 'weekly' && (
            <Days
              aria-label="On these weekdays"
              selectionMode="multiple"
              selectedKeys={form.weekdays.map(String)}
              onSelectionChange={(keys) => set({ weekdays: [...keys].map(Number).sort() })}
            >
              {WEEKDAYS.map((day, i) => (
                <ToggleButton key={day} id={String(i)}>
                  {day}
                </ToggleButton>
              ))}
            </Days>
          )}
          <Pair>
            <Field
              label={`Every … ${UNITS[recurs]}`}
              type="number"
              inputMode="numeric"
              value={form.interval}
              onChange={(interval) => set({ interval })}
              error={errors.interval}
            />
            <SelectOne
              label="Ends"
              value={form.end}
              options={[
                { value: 'never', text: 'Never' },
                { value: 'until', text: 'On a day' },
                { value: 'count', text: 'After some times' },
              ]}
              onChange={(end) => set({ end })}
            />
            {form.end === 'until' && (
              <DateField
                label="Last day"
                value={form.until}
                onChange={(until) => set({ until })}
                isRequired
              />
            )}
            {form.end === 'count' && (
              <Field
                label="Times"
                type="number"
                value={form.count}
                onChange={(count) => set({ count })}
                isRequired
              />
            )}
          </Pair>
        </>
      )}
      {recurs !== 'once' && <Faded role="status">{recurrenceWords(form, before)}</Faded>}
    </Stack>
  );
}
