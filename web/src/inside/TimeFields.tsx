import { ChoiceStrip } from '../ui/Choice';
import { ClockField, DateField } from '../ui/DateFields';
import { Faded, Pair, Stack } from '../ui/layout';
import { ZoneSelect } from '../ui/ZoneSelect';
import { slipOf } from '@zonal/core/entries';
import { plannedOf, spanOf, withStart, type EntryForm } from './entryForm';
import type { FieldErrors } from './fieldErrors';
import { t } from '../texts/inside';
import { slipText } from '../texts/formWords';
import { problemText } from '../texts/problemText';

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
        label={t('time')}
        hideLabel
        value={form.clock}
        options={[
          { value: 'zoned', text: t('atTime') },
          { value: 'date', text: t('allDayChoice') },
          { value: 'floating', text: t('floating') },
        ]}
        onChange={(clock) => set({ clock })}
      />
      <Stack>
        <Pair>
          <DateField
            label={moment ? words.day : timed ? t('startsOn') : t('firstDay')}
            value={form.startDate}
            onChange={(startDate) => startDate && start({ startDate })}
            isRequired
            error={errors.startDate}
          />
          {timed && (
            <ClockField
              label={moment ? words.time : t('startTime')}
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
              label={timed ? t('endsOn') : t('lastDay')}
              value={form.endDate}
              onChange={(endDate) => endDate && set({ endDate })}
              isRequired
              error={errors.endDate}
            />
            {timed && (
              <ClockField
                label={t('endTime')}
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
        <ZoneSelect label={t('timeZone')} value={form.zone} onChange={(zone) => set({ zone })} />
      )}
      {form.clock === 'date' && <Faded>{t('sameDays')}</Faded>}
    </Stack>
  );
}

const WORDS = {
  event: { day: '', time: '' },
  milestone: { day: t('expectedOn'), time: t('at') },
  due: { day: t('dueOn'), time: t('at') },
} as const;

/** When a milestone was planned for, and by how much it has slipped. */
function PlannedFields({ form, set, timed }: TimeFieldsProps & { timed: boolean }) {
  return (
    <>
      <Pair>
        <DateField
          label={t('plannedFor')}
          value={form.plannedDate}
          onChange={(plannedDate) => set({ plannedDate })}
        />
        {timed && (
          <ClockField
            label={t('plannedTime')}
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
    return planned ? t('slipNow', { slip: slipText(slipOf(planned, spanOf(form).start, form.zone)) }) : '';
  } catch (error) {
    return problemText(error);
  }
}
