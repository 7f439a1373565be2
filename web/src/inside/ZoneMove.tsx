import { REZONES, rezone, type Rezone, type When } from '@zonal/core/entries';
import { dayText, timeText, zoneText } from '@zonal/core/forms';
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
  'clock-times': 'Keep the clock times',
  moments: 'Keep the moments',
};

const KEEP_HELP: Record<Rezone, string> = {
  'clock-times':
    'An entry at 09:00 stays at 09:00, on the clocks of the new zone. It takes place at another moment.',
  moments: 'Everything takes place when it did; it is written as clocks in the new zone show it.',
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
    <Sheet title={`Change the time zone of ${calendar.name}`} onClose={onClose} wide>
      <Stack>
        {problem && <ProblemNotice problem={problem} />}
        <p>It is in {zoneText(calendar.zone)} now.</p>
        <ZoneSelect label="New time zone" value={zone} onChange={setZone} />
        <div>
          <ChoiceStrip
            label="What stays"
            value={keep}
            options={REZONES.map((k) => ({ value: k, text: KEEP_WORDS[k] }))}
            onChange={setKeep}
          />
          <Faded>{KEEP_HELP[keep]} Whole days stay as they are.</Faded>
        </div>
        {isLoading && <Loading what="Fetching all entries" />}
        {zone !== calendar.zone && entries && (
          <Stack role="status">
            <p>
              <strong>
                {changed.length} of {entries.length} entries are written anew, {moved.length} of them take
                place at another moment.
              </strong>{' '}
              {stays.length > 0 &&
                `${stays.length} series stay on the clocks of ${zoneText(calendar.zone)}: on those of the new zone their moments would shift with the clock changes.`}
            </p>
            {changed.length + stays.length > 0 && (
              <Table>
                <thead>
                  <tr>
                    <th scope="col">Entry</th>
                    <th scope="col">Now, in {zoneText(calendar.zone)}</th>
                    <th scope="col">Then, in {zoneText(zone)}</th>
                    <th scope="col">On the clocks here</th>
                  </tr>
                </thead>
                <tbody>
                  {[...changed, ...stays]
                    .slice(0, SHOWN)
                    .map(({ before, after, moved: moves, stays: keeps }) => (
                      <tr key={before.id}>
                        <th scope="row">{before.title || 'Untitled'}</th>
                        <td>{read(before.start, calendar.zone)}</td>
                        <td>{keeps ? 'stays as it is' : read(after.start, zone)}</td>
                        <td>{moves ? read(after.start, calendar.zone) : 'the same moment'}</td>
                      </tr>
                    ))}
                </tbody>
              </Table>
            )}
            {changed.length + stays.length > SHOWN && (
              <Faded>and {changed.length + stays.length - SHOWN} more, all in the same way.</Faded>
            )}
          </Stack>
        )}
        <Row>
          <MainButton
            isDisabled={zone === calendar.zone || !entries || moving.isLoading}
            onPress={() => void go()}
          >
            Change the time zone
          </MainButton>
          <Button onPress={onClose}>Leave it</Button>
        </Row>
        <Faded>The change can be taken back with Undo.</Faded>
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
