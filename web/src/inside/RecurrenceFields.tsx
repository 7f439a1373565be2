import { weekdayNames } from '@zonal/core/texts';
import { isInLastWeek, type Entry } from '@zonal/core/entries';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { SelectOne } from '../ui/Choice';
import { DateField } from '../ui/DateFields';
import { Field } from '../ui/Field';
import { Faded, Pair, Stack } from '../ui/layout';
import { recurrenceWords, spanOf, type EntryForm } from './entryForm';
import type { FieldErrors } from './fieldErrors';
import { t } from '../texts/inside';
import { LANGUAGE } from '../texts/language';

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

const WEEKDAYS = weekdayNames(LANGUAGE, 'short');
const UNITS = {
  daily: t('unitDays'),
  weekly: t('unitWeeks'),
  'monthly-date': t('unitMonths'),
  'monthly-weekday': t('unitMonths'),
  'monthly-last': t('unitMonths'),
  yearly: t('unitYears'),
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
        label={t('recurs')}
        value={recurs}
        options={[
          { value: 'once', text: t('recursOnce') },
          { value: 'daily', text: t('recursDaily') },
          { value: 'weekly', text: t('recursWeekly') },
          { value: 'monthly-date', text: t('recursMonthlyDate') },
          { value: 'monthly-weekday', text: t('recursMonthlyWeekday') },
          ...(recurs === 'monthly-last' || inLastWeek(form)
            ? [{ value: 'monthly-last' as const, text: t('recursMonthlyLast') }]
            : []),
          { value: 'yearly', text: t('recursYearly') },
          ...(before && before.recurrence ? [{ value: 'kept' as const, text: t('recursAsNow') }] : []),
        ]}
        onChange={(value) => set({ recurs: value })}
      />
      {recurs !== 'once' && recurs !== 'kept' && (
        <>
          {recurs === 'weekly' && (
            <Days
              aria-label={t('onWeekdays')}
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
              label={t('everySteps', { unit: UNITS[recurs] })}
              type="number"
              inputMode="numeric"
              value={form.interval}
              onChange={(interval) => set({ interval })}
              error={errors.interval}
            />
            <SelectOne
              label={t('ends')}
              value={form.end}
              options={[
                { value: 'never', text: t('endsNever') },
                { value: 'until', text: t('endsOnDay') },
                { value: 'count', text: t('endsAfter') },
              ]}
              onChange={(end) => set({ end })}
            />
            {form.end === 'until' && (
              <DateField
                label={t('lastDay')}
                value={form.until}
                onChange={(until) => set({ until })}
                isRequired
              />
            )}
            {form.end === 'count' && (
              <Field
                label={t('times')}
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
