import {
  CSV_FIELDS,
  columnWord,
  DATE_ORDERS,
  type CsvFieldName,
  type CsvMapping,
  type DateOrder,
} from '@zonal/core/forms';
import { useState } from 'react';
import styled from 'styled-components';
import { MainButton } from '../../ui/Button';
import { SelectOne } from '../../ui/Choice';
import { Faded, Row, Stack } from '../../ui/layout';
import type { ReadTable } from './fileTypes';
import { t } from '../../texts/inside';
import { LANGUAGE } from '../../texts/language';

type Table = ReadTable;

const Match = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 0.88rem;
  th,
  td {
    text-align: left;
    vertical-align: middle;
    padding: 0.2rem 0.7rem 0.2rem 0;
    border-bottom: 1px solid var(--hair);
  }
  td:last-child {
    color: var(--faded);
    max-width: 18rem;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  label {
    position: absolute;
    clip-path: inset(50%);
    height: 1px;
    overflow: hidden;
  }
`;

const ORDER_WORDS: Record<DateOrder, string> = {
  ymd: t('orderYmd'),
  dmy: t('orderDmy'),
  mdy: t('orderMdy'),
};

const KEY = 'zonal.columns';

interface Kept {
  readonly mapping: CsvMapping;
  readonly dateOrder: DateOrder;
}

/** What was chosen for a table with the same headings before, on this device. */
function keptFor(headings: readonly string[]): Kept | null {
  try {
    const all = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Record<string, Kept>;
    return all[headings.join('\t')] ?? null;
  } catch {
    return null;
  }
}

function keep(headings: readonly string[], kept: Kept): void {
  const all = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Record<string, Kept>;
  localStorage.setItem(KEY, JSON.stringify({ ...all, [headings.join('\t')]: kept }));
}

/** Says which column of a table holds which field; what was chosen is remembered for tables with the same headings. */
export function ColumnMatch({
  table,
  onGo,
}: {
  table: Table;
  onGo: (mapping: CsvMapping, order: DateOrder) => void;
}) {
  const kept = keptFor(table.headings);
  const [mapping, setMapping] = useState(kept?.mapping ?? table.mapping);
  const [order, setOrder] = useState(kept?.dateOrder ?? table.dateOrder);
  const fieldOf = (column: number) =>
    (Object.entries(mapping).find(([, at]) => at === column)?.[0] ?? '') as CsvFieldName | '';
  const set = (column: number, field: CsvFieldName | '') => {
    const next = Object.fromEntries(
      Object.entries(mapping).filter(([name, at]) => at !== column && name !== field),
    );
    setMapping(field ? { ...next, [field]: column } : next);
  };
  return (
    <Stack>
      <p>
        {t('tableRows', { count: table.rows })} {kept ? t('columnsKept') : t('columnsGuessed')}
      </p>
      <Match>
        <thead>
          <tr>
            <th scope="col">{t('column')}</th>
            <th scope="col">{t('columnHolds')}</th>
            <th scope="col">{t('firstRows')}</th>
          </tr>
        </thead>
        <tbody>
          {table.headings.map((heading, i) => (
            <tr key={i}>
              <th scope="row">{heading || t('columnNumber', { number: i + 1 })}</th>
              <td>
                <SelectOne
                  label={t('columnNamed', { column: heading || i + 1 })}
                  value={fieldOf(i)}
                  options={[
                    { value: '', text: heading ? t('aProperty', { name: heading }) : t('nothing') },
                    ...CSV_FIELDS.map((f) => ({ value: f.name, text: columnWord(f, LANGUAGE) })),
                  ]}
                  onChange={(field) => set(i, field)}
                />
              </td>
              <td>
                {table.sample
                  .map((row) => row[i])
                  .filter(Boolean)
                  .join(' · ')}
              </td>
            </tr>
          ))}
        </tbody>
      </Match>
      <SelectOne
        label={t('datesWritten')}
        value={order}
        options={DATE_ORDERS.map((o) => ({ value: o, text: ORDER_WORDS[o] }))}
        onChange={setOrder}
      />
      <Faded>{t('rowsHint')}</Faded>
      <Row>
        <MainButton
          isDisabled={mapping.title === undefined || mapping.startDate === undefined}
          onPress={() => {
            keep(table.headings, { mapping, dateOrder: order });
            onGo(mapping, order);
          }}
        >
          {t('previewImport')}
        </MainButton>
        {(mapping.title === undefined || mapping.startDate === undefined) && (
          <Faded>{t('columnsNeeded')}</Faded>
        )}
      </Row>
    </Stack>
  );
}
