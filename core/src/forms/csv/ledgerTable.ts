import type { LedgerLine } from '../../api';
import { tableText } from './writeCsv';

const HEADINGS = [
  'Window',
  'Audience',
  'Revision',
  'When',
  'By',
  'Appeared',
  'Vanished',
  'Changed',
  'Wording changed',
  'Version of the rules',
];

/** The ledger of one view of a window. `audience` says who sees it. */
export interface LedgerOfView {
  readonly window: string;
  readonly audience: string;
  readonly lines: readonly LedgerLine[];
}

/** Returns ledgers as one table (RFC 4180), a row for each revision. Moments are in UTC (ISO 8601). */
export function ledgerTable(ledgers: readonly LedgerOfView[]): string {
  const rows = ledgers.flatMap(({ window, audience, lines }) =>
    lines.map((line) => [
      ...[window, audience, String(line.number), line.at, line.by.join('; ')],
      ...[line.appeared, line.vanished, line.changed].map(String),
      ...[line.wording ? 'yes' : 'no', String(line.windowVersion)],
    ]),
  );
  return tableText([HEADINGS, ...rows]);
}
