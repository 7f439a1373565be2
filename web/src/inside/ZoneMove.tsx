import { REZONES, rezone, type Rezone, type When } from '@zonal/core/entries';
import { timeText, zoneText } from '@zonal/core/forms';
import { dayOfWall, wallAt, type ZoneName } from '@zonal/core/zones';
import { instantOfWhen } from '@zonal/core/entries';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { problemOf, useAllEntriesQuery, useRezoneCalendarMutation } from '../api/zonalApi';
import type { Calendar } from '@zonal/core/api';
import { stepDone } from './historySlice';
import { useAppDispatch } from '../store';
import { Button, MainButton } from '../ui/Button';
import { ChoiceStrip } from '../ui/Choice';
import { Faded, Row, Stack } from '../ui/layout';
import { Loading } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Sheet } from '../ui/Sheet';
import { ZoneSelect } from '../ui/ZoneSelect';
import { useNow } from '../ui/useNow';
import { t } from '../texts/inside';
import { dayText } from '../texts/formWords';

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 0.88rem;
  th,
  td {
    text-align: left;
    padding: 0.25rem 0.6rem 0.25rem 0;
    border-bottom: 1px solid var(--hair);
    vertical-align: top;
  }
  th {
    font-weight: 400;
    color: var(--faded);
  }
`;

const KEEP_WORDS: Record<Rezone, string> = {
  'clock-times': t('keepClocks'),
  moments: t('keepMoments'),
};

const KEEP_HELP: Record<Rezone, string> = {
  'clock-times': t('keepClocksSay'),
  moments: t('keepMomentsSay'),
};

const SHOWN = 60;

/** The guided change of a calendar's zone: what is to stay, and what would move. */
export function ZoneMove({ calendar, onClose }: { calendar: Calendar; onClose: () => void }) {
  const [zone, setZone] = useState(calendar.zone);
  const [keep, setKeep] = useState<Rezone>('clock-times');
  const { data: entries, error, isLoading } = useAllEntriesQuery(calendar.id);
  const [move, moving] = useRezoneCalendarMutation();
  const dispatch = useAppDispatch();
  const now = useNow();
  const plan = useMemo(
    () =>
      entries && zone !== calendar.zone ? entries.map((e) => rezone(e, calendar.zone, zone, keep, now)) : [],
    [entries, calendar.zone, zone, keep, now],
  );
  const changed = plan.filter((p) => p.after !== p.before);
  const moved = plan.filter((p) => p.moved);
  const stays = plan.filter((p) => p.stays);
  const problem = problemOf(error ?? moving.error);

  const go = async () => {
    const { data } = await move({ id: calendar.id, zone, keep });
    if (!data) return;
    dispatch(stepDone({ id: data.id, label: data.label }));
    onClose();
  };

  return (
    <Sheet title={t('changeZoneOf', { name: calendar.name })} onClose={onClose} wide>
      <Stack>
        {problem && <ProblemNotice problem={problem} />}
        <p>{t('zoneNow', { zone: zoneText(calendar.zone) })}</p>
        <ZoneSelect label={t('newZone')} value={zone} onChange={setZone} />
        <div>
          <ChoiceStrip
            label={t('whatStays')}
            value={keep}
            options={REZONES.map((k) => ({ value: k, text: KEEP_WORDS[k] }))}
            onChange={setKeep}
          />
          <Faded>{t('allDayStays', { help: KEEP_HELP[keep] })}</Faded>
        </div>
        {isLoading && <Loading what={t('fetchingAllEntries')} />}
        {zone !== calendar.zone && entries && (
          <Stack role="status">
            <p>
              <strong>
                {t('zoneEffect', { changed: changed.length, all: entries.length, moved: moved.length })}
              </strong>{' '}
              {stays.length > 0 && t('zoneStays', { count: stays.length, zone: zoneText(calendar.zone) })}
            </p>
            {changed.length + stays.length > 0 && (
              <Table>
                <thead>
                  <tr>
                    <th scope="col">{t('entry')}</th>
                    <th scope="col">{t('nowIn', { zone: zoneText(calendar.zone) })}</th>
                    <th scope="col">{t('thenIn', { zone: zoneText(zone) })}</th>
                    <th scope="col">{t('onClocksHere')}</th>
                  </tr>
                </thead>
                <tbody>
                  {[...changed, ...stays]
                    .slice(0, SHOWN)
                    .map(({ before, after, moved: moves, stays: keeps }) => (
                      <tr key={before.id}>
                        <th scope="row">{before.title || t('untitled')}</th>
                        <td>{read(before.start, calendar.zone)}</td>
                        <td>{keeps ? t('staysAsIs') : read(after.start, zone)}</td>
                        <td>{moves ? read(after.start, calendar.zone) : t('sameMoment')}</td>
                      </tr>
                    ))}
                </tbody>
              </Table>
            )}
            {changed.length + stays.length > SHOWN && (
              <Faded>{t('andMoreAlike', { count: changed.length + stays.length - SHOWN })}</Faded>
            )}
          </Stack>
        )}
        <Row>
          <MainButton
            isDisabled={zone === calendar.zone || !entries || moving.isLoading}
            onPress={() => void go()}
          >
            {t('changeZone')}
          </MainButton>
          <Button onPress={onClose}>{t('cancel')}</Button>
        </Row>
        <Faded>{t('undoable')}</Faded>
      </Stack>
    </Sheet>
  );
}

/** A moment as clocks in a zone show it. */
function read(when: When, zone: ZoneName): string {
  if (when.kind === 'date') return when.date;
  const wall = wallAt(zone, instantOfWhen(when, zone));
  return `${dayText(dayOfWall(wall))}, ${timeText(wall)}`;
}
