import { ChoiceStrip } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Faded, Pair, Stack } from '../ui/layout';
import { ZoneSelect } from '../ui/ZoneSelect';
import { daysBetween, laterDate, type EntryForm } from './entryForm';

interface TimeFieldsProps {
  form: EntryForm;
  set: (part: Partial<EntryForm>) => void;
}

/** Start, end and the clock that they are read on. The end moves along with the start. */
export function TimeFields({ form, set }: TimeFieldsProps) {
  const timed = form.clock !== 'date';
  const start = (startDate: string) =>
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
          <Field
            label={timed ? 'Starts on' : 'First day'}
            type="date"
            value={form.startDate}
            onChange={start}
            isRequired
          />
          {timed && (
            <Field
              label="Start time"
              type="time"
              value={form.startTime}
              onChange={(startTime) => set({ startTime })}
              isRequired
            />
          )}
        </Pair>
        <Pair>
          <Field
            label={timed ? 'Ends on' : 'Last day'}
            type="date"
            value={form.endDate}
            onChange={(endDate) => set({ endDate })}
            isRequired
          />
          {timed && (
            <Field
              label="End time"
              type="time"
              value={form.endTime}
              onChange={(endTime) => set({ endTime })}
              isRequired
            />
          )}
        </Pair>
      </Stack>
      {form.clock === 'zoned' && (
        <ZoneSelect label="Time zone" value={form.zone} onChange={(zone) => set({ zone })} />
      )}
      {form.clock === 'date' && <Faded>The same days for every reader, in any time zone.</Faded>}
    </Stack>
  );
}
