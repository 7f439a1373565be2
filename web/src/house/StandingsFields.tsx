import { READ_THROUGH } from '@zonal/core/glass';
import type { ToCalendar } from '@zonal/core/api';
import { glassText } from '../ui/glassText';
import { STANDINGS } from '@zonal/core/rights';
import { X } from 'lucide-react';
import styled from 'styled-components';
import { useCalendarsQuery } from '../api/zonalApi';
import { QuietButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Faded, FramedList, Stack } from '../ui/layout';
import { t } from '../texts/house';
import { STANDING_NAMES } from '../texts/rightsWords';

const List = styled(FramedList)`
  > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 8rem 18.5rem auto;
    gap: 0.5rem;
    align-items: center;
    @media (max-width: 44rem) {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;

interface StandingsFieldsProps {
  value: readonly ToCalendar[];
  onChange: (value: readonly ToCalendar[]) => void;
}

/** What somebody will be to which calendars. */
export function StandingsFields({ value, onChange }: StandingsFieldsProps) {
  const { data: calendars = [] } = useCalendarsQuery();
  const open = calendars.filter((c) => !c.archivedAt && !value.some((s) => s.calendarId === c.id));
  const change = (calendarId: string, part: Partial<ToCalendar>) =>
    onChange(value.map((s) => (s.calendarId === calendarId ? { ...s, ...part } : s)));
  return (
    <Stack>
      {value.length > 0 && (
        <List aria-label={t('theirRole')}>
          {value.map(({ calendarId, standing, glass }) => {
            const name = calendars.find((c) => c.id === calendarId)?.name ?? t('deletedCalendar');
            return (
              <li key={calendarId}>
                <span>{name}</span>
                <SelectOne
                  hideLabel
                  label={t('roleFor', { name })}
                  value={standing}
                  options={STANDINGS.map((s) => ({ value: s, text: STANDING_NAMES[s] }))}
                  onChange={(next) =>
                    change(calendarId, {
                      standing: next,
                      glass: next === 'reader' ? (glass ?? 'frosted') : null,
                    })
                  }
                />
                {standing === 'reader' ? (
                  <SelectOne
                    hideLabel
                    label={t('glassFor', { name })}
                    value={glass ?? 'frosted'}
                    options={READ_THROUGH.map((g) => ({ value: g, text: glassText(g) }))}
                    onChange={(next) => change(calendarId, { glass: next })}
                  />
                ) : (
                  <Faded>{t('seesEverything')}</Faded>
                )}
                <QuietButton
                  aria-label={t('removeCalendar', { name })}
                  onPress={() => onChange(value.filter((s) => s.calendarId !== calendarId))}
                >
                  <X aria-hidden="true" />
                </QuietButton>
              </li>
            );
          })}
        </List>
      )}
      {open.length > 0 && (
        <SelectOne
          label={t('addCalendar')}
          value=""
          options={[
            { value: '', text: value.length ? t('anotherCalendar') : t('noCalendarRights') },
            ...open.map((c) => ({ value: c.id, text: `${c.plate} ${c.name}` })),
          ]}
          onChange={(calendarId) =>
            calendarId && onChange([...value, { calendarId, standing: 'reader', glass: 'frosted' }])
          }
        />
      )}
    </Stack>
  );
}
