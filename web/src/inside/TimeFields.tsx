import { ChoiceStrip } from '../ui/Choice';
import { ClockField, DateField } from '../ui/DateFields';
import { Faded, Pair, Stack } from '../ui/layout';
import { ZoneSelect } from '../ui/ZoneSelect';
import { slipOf } from '@zonal/core/entries';
import { slipText } from '@zonal/core/forms';
import { daysBetween, laterDate, plannedOf, spanOf, type EntryForm } from './entryForm';

interface TimeFieldsProps {
  form: EntryForm;
  set: (part: Partial<EntryForm>) => void;
}

/** Start, end and the clock that they are read on. The end moves along with the start. */
export function TimeFields({ form, set }: TimeFieldsProps) {
  const timed = form.clock !== 'date';
  const moment = form.kind !== 'event';
  const words = WORDS[form.kind];
  const start = (startDate: string) =>
    startDate &&
    set({ startDate, endDate: laterDate(startDate, Math.max(0, daysBetween(form.startDate, form.endDate))) });
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
            onChange={start}
            isRequired
          />
          {timed && (
            <ClockField
              label={moment ? words.time : 'Start time'}
              value={form.startTime}
              onChange={(startTime) => startTime && set({ startTime })}
              isRequired
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
            />
            {timed && (
              <ClockField
                label="End time"
                value={form.endTime}
                onChange={(endTime) => endTime && set({ endTime })}
                isRequired
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
