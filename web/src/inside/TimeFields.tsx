import { ChoiceStrip } from '../ui/Choice';
import { ClockField, DateField } from '../ui/DateFields';
import { Faded, Pair, Stack } from '../ui/layout';
import { ZoneSelect } from '../ui/ZoneSelect';
import { slipOf } from '@zonal/core/entries';
import { slipText } from '@zonal/core/forms';
import { plannedOf, spanOf, withStart, type EntryForm } from './entryForm';
import type { FieldErrors } from './fieldErrors';

interface TimeFieldsProps {
  form: EntryForm;
  set: (part: Partial<EntryForm>) => void;
  errors?: FieldErrors;
}

/** Start, end and the clock that they are read on. The end moves along with the start. */
export function TimeFields({ form, set, errors = {} }: TimeFieldsProps) {
  const timed = form.clock !== 'date';
  const moment = form.kind !== 'event';
  const words = WORDS[form.kind];
  const start = (part: Partial<Pick<EntryForm, 'startDate' | 'startTime'>>) => set(withStart(form, part));
  return (
    <Stack>
      <ChoiceStrip
        label="Time"
        hideLabel
        value={form.clock}
        options={[
          { value: 'zoned', text: 'At a time' },
          { value: 'date', text: 'All day' },
          { value: 'floating', text: 'Same clock time everywhere' },
        ]}
        onChange={(clock) => set({ clock })}
      />
      <Stack>
        <Pair>
          <DateField
            label={moment ? words.day : timed ? 'Starts on' : 'First day'}
            value={form.startDate}
            onChange={(startDate) => startDate && start({ startDate })}
            isRequired
            error={errors.startDate}
          />
          {timed && (
            <ClockField
              label={moment ? words.time : 'Start time'}
              value={form.startTime}
              onChange={(startTime) => startTime && start({ startTime })}
              isRequired
              error={errors.startTime}
            />
          )}
        </Pair>
        {!moment && (
          <Pair>
            <DateField
              label={timed ? 'Ends on' : 'Last day'}
              value={form.endDate}
              onChange={(endDate) => endDate && set({ endDate })}
              isRequired
              error={errors.endDate}
            />
            {timed && (
              <ClockField
                label="End time"
                value={form.endTime}
                onChange={(endTime) => endTime && set({ endTime })}
                isRequired
                error={errors.endTime}
              />
            )}
          </Pair>
        )}
        {form.kind === 'milestone' && <PlannedFields form={form} set={set} timed={timed} />}
      </Stack>
      {form.clock === 'zoned' && (
        <ZoneSelect label="Time zone" value={form.zone} onChange={(zone) => set({ zone })} />
      )}
      {form.clock === 'date' && <Faded>The same days for every reader, in any time zone.</Faded>}
    </Stack>
  );
}

const WORDS = {
  event: { day: '', time: '' },
  milestone: { day: 'Expected now on', time: 'At' },
  due: { day: 'Due on', time: 'At' },
} as const;

/** When a milestone was planned for, and by how much it has slipped. */
function PlannedFields({ form, set, timed }: TimeFieldsProps & { timed: boolean }) {
  return (
    <>
      <Pair>
        <DateField
          label="Planned for"
          value={form.plannedDate}
          onChange={(plannedDate) => set({ plannedDate })}
        />
        {timed && (
          <ClockField
            label="Planned time"
            value={form.plannedTime}
            onChange={(plannedTime) => set({ plannedTime })}
          />
        )}
      </Pair>
      <Faded role="status">{slipWords(form)}</Faded>
    </>
  );
}

function slipWords(form: EntryForm): string {
  try {
    const planned = plannedOf(form);
    return planned ? `It stands ${slipText(slipOf(planned, spanOf(form).start, form.zone))}.` : '';
  } catch (error) {
    return (error as Error).message;
  }
}
