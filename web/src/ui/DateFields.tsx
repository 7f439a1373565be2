import { parseDate, parseDateTime, parseTime } from '@internationalized/date';
import { CalendarDays, ChevronLeft, ChevronRight } from 'lucide-react';
import {
  Button,
  Calendar,
  CalendarCell,
  CalendarGrid,
  DateInput,
  DatePicker,
  DateSegment,
  Dialog,
  FieldError,
  Group,
  Heading,
  Label,
  Popover,
  TimeField,
  type DateValue,
} from 'react-aria-components';
import styled, { css } from 'styled-components';
import { fieldLook, labelLook, openedLook, signButtonLook } from './Field';
import { t } from '../texts/base';

const look = css`
  min-width: 0;
  label,
  > span:first-child {
    ${labelLook}
  }
  [slot='errorMessage'] {
    font-size: 0.85rem;
    color: var(--warn);
  }
  .line {
    ${fieldLook}
    display: flex;
    align-items: center;
    gap: 0.35rem;
    white-space: nowrap;
    font-variant-numeric: tabular-nums;
    &[data-focus-within] {
      outline: 2px solid var(--focus);
      outline-offset: 1px;
    }
  }
  .close {
    gap: 0;
  }
  .parts {
    display: flex;
    flex: 1;
  }
  [data-type] {
    padding: 0 0.1rem;
    border-radius: 2px;
    outline: none;
    white-space: pre;
  }
  [data-placeholder] {
    color: var(--faded);
  }
  [data-type][data-focused] {
    background: var(--ink);
    color: var(--paper);
  }
  .line button {
    ${signButtonLook}
  }
`;

const DateLook = styled(DatePicker)`
  ${look}
` as typeof DatePicker;

const TimeLook = styled(TimeField)`
  ${look}
` as typeof TimeField;

const Sheet = styled(Popover)`
  padding: 0.6rem 0.75rem 0.75rem;
  ${openedLook}
  header {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 0.5rem;
    h2 {
      margin: 0;
      font-size: 1rem;
    }
    button {
      ${signButtonLook}
      padding: 0.3rem;
    }
  }
  table {
    border-collapse: collapse;
    font-variant-numeric: tabular-nums;
  }
  th {
    font-weight: 400;
    font-size: 0.8rem;
    color: var(--faded);
  }
  [role='button'] {
    min-width: 2.1rem;
    padding: 0.3rem;
    text-align: center;
    cursor: pointer;
    outline: none;
    &[data-outside-month] {
      visibility: hidden;
    }
    &[data-hovered] {
      background: var(--shade);
    }
    &[data-today] {
      text-decoration: underline;
      text-underline-offset: 0.2em;
    }
    &[data-selected] {
      background: var(--ink);
      color: var(--paper);
    }
    &[data-focus-visible] {
      outline: 2px solid var(--focus);
    }
  }
`;

interface DateFieldProps {
  label: string;
  hideLabel?: boolean;
  /** `2026-05-31`, with `T14:30` behind it where there is a time; empty for none. */
  value: string;
  onChange: (value: string) => void;
  withTime?: boolean;
  isRequired?: boolean;
  error?: string | undefined;
}

/** A day, and its time where there is one: typed part by part in the order of the screen's language, or picked. */
export function DateField({
  label,
  hideLabel,
  value,
  onChange,
  withTime,
  isRequired,
  error,
}: DateFieldProps) {
  const parsed: DateValue | null = withTime ? read(value, parseDateTime) : read(value, parseDate);
  return (
    <DateLook
      value={parsed}
      onChange={(next) => onChange(next ? next.toString().slice(0, withTime ? 16 : 10) : '')}
      granularity={withTime ? 'minute' : 'day'}
      hourCycle={24}
      shouldForceLeadingZeros
      isRequired={isRequired ?? false}
      isInvalid={!!error}
      {...(hideLabel ? { 'aria-label': label } : {})}
    >
      {!hideLabel && <Label>{label}</Label>}
      <Group className="line">
        <DateInput className="parts">{(segment) => <DateSegment segment={segment} />}</DateInput>
        <Button aria-label={t('pickDay')}>
          <CalendarDays aria-hidden="true" />
        </Button>
      </Group>
      <FieldError>{error}</FieldError>
      <Sheet>
        <Dialog aria-label={label}>
          <Calendar firstDayOfWeek="mon">
            <header>
              <Button slot="previous" aria-label={t('previousMonth')}>
                <ChevronLeft aria-hidden="true" />
              </Button>
              <Heading />
              <Button slot="next" aria-label={t('nextMonth')}>
                <ChevronRight aria-hidden="true" />
              </Button>
            </header>
            <CalendarGrid weekdayStyle="short">{(date) => <CalendarCell date={date} />}</CalendarGrid>
          </Calendar>
        </Dialog>
      </Sheet>
    </DateLook>
  );
}

interface ClockFieldProps {
  label: string;
  /** `14:30`; empty for none. */
  value: string;
  onChange: (value: string) => void;
  isRequired?: boolean;
  error?: string | undefined;
}

/** A time of day on 24 hours, as everywhere on the screen. */
export function ClockField({ label, value, onChange, isRequired, error }: ClockFieldProps) {
  return (
    <TimeLook
      value={read(value, parseTime)}
      onChange={(next) => onChange(next ? next.toString().slice(0, 5) : '')}
      granularity="minute"
      hourCycle={24}
      shouldForceLeadingZeros
      isRequired={isRequired ?? false}
      isInvalid={!!error}
    >
      <Label>{label}</Label>
      <DateInput className="line close">{(segment) => <DateSegment segment={segment} />}</DateInput>
      <FieldError>{error}</FieldError>
    </TimeLook>
  );
}

/** What cannot be read stands as nothing. */
function read<T>(text: string, parse: (text: string) => T): T | null {
  try {
    return text ? parse(text) : null;
  } catch {
    return null;
  }
}
