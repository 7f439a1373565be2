import type { WindowReach } from '../../api';
import { tableText } from './writeCsv';

const HEAD = [
  'Key',
  'Contact',
  'Audience',
  'Form',
  'Readers',
  'State',
  'First look',
  'Last look',
  'Looks',
  'Interval in minutes',
  'Expected by',
  'Revision held',
  'Changes behind',
];

/** Returns how the subscribers of a window stand as a table (RFC 4180), one row each; instants are in UTC (ISO 8601). */
export function reachTable({ keys }: WindowReach): string {
  const rows = keys.flatMap(({ madeOutTo, contact, audience, cap, subscribers }) =>
    subscribers.map((s) => [
      ...[
        madeOutTo,
        contact,
        cap ? `${audience}, at most ${cap}` : audience,
        s.form,
        String(s.readers),
        s.state,
      ],
      ...[s.firstLook, s.lastLook, String(s.looks)],
      s.interval === null ? '' : String(Math.round(s.interval / 60_000)),
      s.nextBy ?? '',
      ...[s.revision, s.behind].map((n) => (n === null ? '' : String(n))),
    ]),
  );
  return tableText([HEAD, ...rows]);
}
