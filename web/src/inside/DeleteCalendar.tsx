import { problemOf, useCalendarImpactQuery, useDeleteCalendarMutation } from '../api/zonalApi';
import type { Calendar } from '@zonal/core/api';
import { Button, OutsideButton } from '../ui/Button';
import { Row, Stack } from '../ui/layout';
import { Loading, Notice } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Sheet } from '../ui/Sheet';

/** Says what deleting a calendar would hit, and then deletes it. */
export function DeleteCalendar({ calendar, onClose }: { calendar: Calendar; onClose: () => void }) {
  const { data: impact, error } = useCalendarImpactQuery(calendar.id, { refetchOnMountOrArgChange: true });
  const [remove, removing] = useDeleteCalendarMutation();
  const problem = problemOf(error ?? removing.error);
  const closing = impact?.windows.filter((w) => !w.left) ?? [];
  const keys = impact?.windows.flatMap((w) => w.keys) ?? [];
  return (
    <Sheet title={`Delete ${calendar.name}`} onClose={onClose}>
      <Stack>
        {problem && <ProblemNotice problem={problem} />}
        {!impact && !problem && <Loading what="Looking what this would hit" />}
        {impact && (
          <>
            <p>
              This deletes the calendar with its {impact.entryCount}{' '}
              {impact.entryCount === 1 ? 'entry' : 'entries'}, for everybody.{' '}
              <strong>It cannot be taken back.</strong> To keep the entries out of sight, put the calendar
              away instead.
            </p>
            {impact.windows.length > 0 ? (
              <Notice>
                <p>
                  It is visible outside, in {impact.windows.length}{' '}
                  {impact.windows.length === 1 ? 'window' : 'windows'} with {keys.length}{' '}
                  {keys.length === 1 ? 'key' : 'keys'} handed out. Whoever follows one of these loses its
                  entries:
                </p>
                <ul>
                  {impact.windows.map((w) => (
                    <li key={w.id}>
                      <strong>{w.name}</strong>: {w.keys.join(', ') || 'no key'}.{' '}
                      {w.left
                        ? 'It goes on with its other calendars.'
                        : 'It has no other calendar, so it is closed.'}
                    </li>
                  ))}
                </ul>
              </Notice>
            ) : (
              <p>No window shows it.</p>
            )}
            <Row>
              <OutsideButton
                isDisabled={removing.isLoading}
                onPress={() =>
                  void remove(calendar.id).then((result) => {
                    if (!result.error) onClose();
                  })
                }
              >
                Delete “{calendar.name}”{closing.length > 0 && ` and close ${closing.length}`}
              </OutsideButton>
              <Button onPress={onClose}>Keep it</Button>
            </Row>
          </>
        )}
      </Stack>
    </Sheet>
  );
}
