import { problemOf, useCalendarImpactQuery, useDeleteCalendarMutation } from '../api/zonalApi';
import type { Calendar } from '@zonal/core/api';
import { Button, OutsideButton } from '../ui/Button';
import { Row, Stack } from '../ui/layout';
import { Loading, Notice } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Sheet } from '../ui/Sheet';
import { t } from '../texts/inside';

/** Says what deleting a calendar would hit, and then deletes it. */
export function DeleteCalendar({ calendar, onClose }: { calendar: Calendar; onClose: () => void }) {
  const { data: impact, error } = useCalendarImpactQuery(calendar.id, { refetchOnMountOrArgChange: true });
  const [remove, removing] = useDeleteCalendarMutation();
  const problem = problemOf(error ?? removing.error);
  const closing = impact?.windows.filter((w) => !w.left) ?? [];
  const keys = impact?.windows.flatMap((w) => w.keys) ?? [];
  return (
    <Sheet title={t('deleteNamed', { name: calendar.name })} onClose={onClose}>
      <Stack>
        {problem && <ProblemNotice problem={problem} />}
        {!impact && !problem && <Loading what={t('fetchingImpact')} />}
        {impact && (
          <>
            <p>
              {t.rich('deleteHint', {
                count: impact.entryCount,
                strong: (text) => <strong>{text}</strong>,
              })}
            </p>
            {impact.windows.length > 0 ? (
              <Notice>
                <p>{t('deleteOutside', { windows: impact.windows.length, keys: keys.length })}</p>
                <ul>
                  {impact.windows.map((w) => (
                    <li key={w.id}>
                      <strong>{w.name}</strong>: {w.keys.join(', ') || t('noKey')}.{' '}
                      {w.left ? t('windowGoesOn') : t('windowCloses')}
                    </li>
                  ))}
                </ul>
              </Notice>
            ) : (
              <p>{t('noWindowShows')}</p>
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
                {closing.length > 0
                  ? t('deleteAndClose', { name: calendar.name, count: closing.length })
                  : t('deleteQuoted', { name: calendar.name })}
              </OutsideButton>
              <Button onPress={onClose}>{t('keepCalendar')}</Button>
            </Row>
          </>
        )}
      </Stack>
    </Sheet>
  );
}
