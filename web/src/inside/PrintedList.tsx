import type { Calendar } from '@zonal/core/api';
import styled from 'styled-components';
import type { DayRange, DeskItem } from './deskDays';
import { timeOf } from './views/marks';
import { marksOf } from './views/List';
import { t } from '../texts/inside';
import { dayText } from '../texts/formWords';

const Sheet = styled.section`
  display: none;
  @media print {
    display: block;
    color: #000;
    background: #fff;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 9.5pt;
  }
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 0.15rem 0.6rem 0.15rem 0;
    border-bottom: 1px solid #bbb;
    font-weight: 400;
    overflow-wrap: anywhere;
  }
  /* Headings stand again on each sheet of paper, and no entry is cut in two. */
  thead {
    display: table-header-group;
  }
  tr {
    break-inside: avoid;
  }
`;

interface PrintedListProps {
  readonly calendars: readonly Calendar[];
  /** All entries of the days, in order of time. */
  readonly items: readonly DeskItem[];
  readonly range: DayRange;
  /** How the times are to be read, as a sentence. */
  readonly clocks: string;
}

/** What the desk is on paper: all entries of the days in sight, whatever view shows them and however far it is scrolled. */
export function PrintedList({ calendars, items, range, clocks }: PrintedListProps) {
  const calendarOf = new Map(calendars.map((c) => [c.id, c]));
  return (
    <Sheet aria-label={t('printedList')}>
      <h1>{t('dayRange', { from: dayText(range.from), to: dayText(range.to - 1) })}</h1>
      <p>
        {t('printedHead', {
          calendars: calendars.map((c) => `${c.plate} ${c.name}`).join(', '),
          count: items.length,
          clocks,
        })}
      </p>
      <table>
        <thead>
          <tr>
            {[t('day'), t('time'), t('calendar'), t('entry'), t('place'), t('notes')].map((heading) => (
              <th scope="col" key={heading}>
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {items.map((item) => {
            const calendar = calendarOf.get(item.entry.calendarId)!;
            return (
              <tr key={item.key}>
                <td>{dayText(item.firstDay)}</td>
                <td>{timeOf(item)}</td>
                <td>{calendar.plate}</td>
                <td>
                  <strong>{item.one.content.title || t('untitled')}</strong>
                </td>
                <td>{item.one.content.place}</td>
                <td>{marksOf(item, calendar.zone)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Sheet>
  );
}
