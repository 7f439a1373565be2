import { dayText, timeText } from '@zonal/core/forms';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import type { Calendar } from '../api/types';
import { Empty } from '../ui/Notice';
import { Plate } from '../ui/Plate';
import type { DeskItem } from './deskDays';

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  background: var(--sheet);
  font-size: 0.9rem;
  th {
    text-align: left;
    font-weight: 400;
    color: var(--faded);
    font-size: 0.8rem;
    padding: 0.3rem 0.6rem;
    border-bottom: 1px solid var(--line);
  }
  td {
    padding: 0.3rem 0.6rem;
    border-bottom: 1px solid var(--hair);
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  td:nth-child(-n + 2) {
    white-space: nowrap;
    font-variant-numeric: tabular-nums;
  }
  @media (max-width: 44rem) {
    .wide {
      display: none;
    }
  }
`;

const Open = styled(AriaButton)`
  border: 0;
  padding: 0;
  background: none;
  font-weight: 700;
  cursor: pointer;
  text-align: left;
  &[data-hovered] {
    text-decoration: underline;
  }
`;

const HOLD_WORDS = { none: '', frost: 'frosted: busy time at most', 'keep-in': 'kept in' } as const;

interface EntryListProps {
  calendars: readonly Calendar[];
  items: readonly DeskItem[];
  onOpen: (item: DeskItem) => void;
}

/** Entries one below the other, in order of time. */
export function EntryList({ calendars, items, onOpen }: EntryListProps) {
  const calendarOf = new Map(calendars.map((c) => [c.id, c]));
  if (!items.length)
    return <Empty>No entries in these days. Go to other days, or switch more calendars on.</Empty>;
  return (
    <Table>
      <thead>
        <tr>
          <th scope="col">Day</th>
          <th scope="col">Time</th>
          <th scope="col">Calendar</th>
          <th scope="col">Entry</th>
          <th scope="col" className="wide">
            Place
          </th>
          <th scope="col" className="wide">
            Marks
          </th>
        </tr>
      </thead>
      <tbody>
        {items.map((item) => {
          const { content } = item.one;
          const calendar = calendarOf.get(item.entry.calendarId)!;
          const marks = [
            content.status !== 'confirmed' && content.status,
            content.shows === 'free' && 'free',
            item.entry.recurrence && 'recurring',
            HOLD_WORDS[content.hold],
          ].filter(Boolean);
          return (
            <tr key={item.key}>
              <td>{dayText(item.firstDay)}</td>
              <td>{item.allDay ? 'all day' : `${timeText(item.start)}–${timeText(item.end)}`}</td>
              <td>
                <Plate plate={calendar.plate} colour={calendar.colour} />
              </td>
              <td>
                <Open onPress={() => onOpen(item)}>{content.title || 'Untitled'}</Open>
              </td>
              <td className="wide">{content.place}</td>
              <td className="wide">{marks.join(', ')}</td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}
