import { expect, it } from 'vitest';
import { HOUR, MINUTE, dayFromText, dayToText } from '../zones';
import { readQuickLine } from './quickLine';

/** A Wednesday. */
const TODAY = dayFromText('2026-11-25');

const told = (text: string) => {
  const line = readQuickLine(text, TODAY);
  if (!line) return null;
  const { title, place, labels, day, lastDay, time } = line;
  const clock = (t: number) => `${Math.floor(t / HOUR)}:${String((t % HOUR) / MINUTE).padStart(2, '0')}`;
  const when = time
    ? `${clock(time.start)}-${clock(time.end)}`
    : lastDay > day
      ? `to ${dayToText(lastDay)}`
      : 'all day';
  return [dayToText(day), when, title, place, labels.join()].join(' | ');
};

it('understands day, time, title, place and labels', () => {
  const lines: Record<string, string> = {
    'Fri 14:00-15:30 Lock inspection @ North gate':
      '2026-11-27 | 14:00-15:30 | Lock inspection | North gate | ',
    'today Rope count @ Net loft #stock': '2026-11-25 | all day | Rope count | Net loft | stock',
    'wednesday 9:00 Market #family #quay': '2026-11-25 | 9:00-10:00 | Market |  | family,quay',
    'Tomorrow Harbour day': '2026-11-26 | all day | Harbour day |  | ',
    'Team meeting 09:00–09:45 Mon': '2026-11-30 | 9:00-9:45 | Team meeting |  | ',
    '2027-02-28 22:00 to 06:00 Night watch': '2027-02-28 | 22:00-30:00 | Night watch |  | ',
    '3 Jan Inventory': '2027-01-03 | all day | Inventory |  | ',
    'Dec 12, 2026 Carols @ Long Quay': '2026-12-12 | all day | Carols | Long Quay | ',
    'Sat 12 Dec to 14 Dec Regatta': '2026-12-12 | to 2026-12-14 | Regatta |  | ',
    'Sunday painting': '2026-11-29 | all day | painting |  | ',
    'Monitor the gauge': '2026-11-25 | all day | Monitor the gauge |  | ',
    '31 Feb Odd one': '2026-11-25 | all day | 31 Feb Odd one |  | ',
    'Gate 25:00 test': '2026-11-25 | all day | Gate 25:00 test |  | ',
  };
  for (const [text, expected] of Object.entries(lines)) expect(told(text), text).toBe(expected);
});

it('needs a title', () => {
  for (const text of ['', '  ', 'Fri 14:00', '@ North gate', '#works'])
    expect(readQuickLine(text, TODAY)).toBeNull();
});
