import type { SheetItem } from '@zonal/core/api';
import { plainText } from '@zonal/core/entries';
import { PUBLIC_READERS } from '@zonal/core/glass';
import { useState } from 'react';
import styled from 'styled-components';
import { useWindowsQuery } from '../api/zonalApi';
import { Field } from '../ui/Field';
import { Faded, Stack } from '../ui/layout';
import { Loading } from '../ui/Notice';
import { Tick } from '../ui/Tick';
import { useNow } from '../ui/useNow';
import { choosable, itemName, withItem } from './sheetDraft';
import { t } from '../texts/outside';

const Group = styled.fieldset`
  border: 0;
  border-top: 1px solid var(--hair);
  margin: 0;
  padding: 0.5rem 0 0.3rem;
  display: grid;
  gap: 0.35rem;
  min-width: 0;
  overflow-wrap: anywhere;
  legend {
    float: left;
    font-weight: 700;
    padding: 0;
    & + * {
      clear: both;
    }
  }
`;

interface ItemsChooserProps {
  items: readonly SheetItem[];
  /** Whether no more go onto the sheet. */
  full: boolean;
  onChange: (items: SheetItem[]) => void;
}

/** The addresses that can be handed out, by window; those that lead nowhere are not offered. */
export function ItemsChooser({ items, full, onChange }: ItemsChooserProps) {
  const { data: windows } = useWindowsQuery();
  const [find, setFind] = useState('');
  const now = useNow();
  if (!windows) return <Loading what={t('fetchingWindows')} />;
  const chosen = new Set(items.map(itemName));
  const words = plainText(find).split(/\s+/).filter(Boolean);
  const groups = windows
    .map((window) => ({ window, offered: choosable(window, now) }))
    .map(({ window, offered }) => ({
      window,
      offered: offered.filter((item) => {
        const text = plainText(`${window.wording.name} ${item.madeOutTo}`);
        return words.every((word) => text.includes(word));
      }),
    }))
    .filter(({ offered }) => offered.length);
  return (
    <Stack>
      <Field label={t('findWindowOrKey')} type="search" value={find} onChange={setFind} />
      {full && <Faded role="status">{t('sheetFull')}</Faded>}
      {!groups.length && <Faded>{find ? t('noWindowOrKey') : t('nothingToHandOut')}</Faded>}
      {groups.map(({ window, offered }) => (
        <Group key={window.id}>
          <legend>{window.wording.name}</legend>
          {offered.map((item) => {
            const on = chosen.has(itemName(item));
            return (
              <Tick
                key={itemName(item)}
                isSelected={on}
                isDisabled={full && !on}
                onChange={(value) => onChange(withItem(items, item, value))}
              >
                {item.madeOutTo || PUBLIC_READERS}
              </Tick>
            );
          })}
        </Group>
      ))}
    </Stack>
  );
}
