import type { SheetItem } from '@zonal/core/api';
import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { skipToken } from '@reduxjs/toolkit/query';
import styled from 'styled-components';
import { problemOf, useCheckItemsQuery } from '../api/zonalApi';
import { QuietButton } from '../ui/Button';
import { FramedList, Row } from '../ui/layout';
import { Empty } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { ItemNotes } from './ItemNotes';
import { itemName, movedItem, withItem } from './sheetDraft';
import { t } from '../texts/outside';

const List = styled(FramedList)`
  > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0.6rem;
  }
`;

/** What is on a sheet in its order, each address checked for whoever is given it. */
export function ItemsList({
  items,
  onChange,
}: {
  items: readonly SheetItem[];
  onChange: (items: SheetItem[]) => void;
}) {
  const { currentData, data, error } = useCheckItemsQuery(items.length ? { items } : skipToken);
  const problem = problemOf(error);
  // Until the new check is there, what was known before is told of what was there before.
  const known = new Map((currentData ?? data ?? []).map((item) => [itemName(item), item]));
  if (!items.length)
    return (
      <Empty>
        <p>{t('sheetEmpty')}</p>
      </Empty>
    );
  return (
    <>
      {problem && <ProblemNotice problem={problem} />}
      <List as="ol" aria-label={t('onSheet')}>
        {items.map((item, i) => {
          const checked = known.get(itemName(item));
          const name = checked ? `${checked.name}, ${checked.madeOutTo || 'anybody'}` : t('thisAddress');
          const last = items.length - 1;
          return (
            <li key={itemName(item)}>
              <span>
                {checked ? (
                  <>
                    <strong>{checked.name}</strong> · {checked.madeOutTo || 'anybody'}
                    <ItemNotes notes={checked.notes} />
                  </>
                ) : (
                  <small>{t('checking')}</small>
                )}
              </span>
              <Row>
                <QuietButton
                  aria-label={t('moveUp', { name })}
                  isDisabled={i === 0}
                  onPress={() => onChange(movedItem(items, item, -1))}
                >
                  <ArrowUp aria-hidden="true" />
                </QuietButton>
                <QuietButton
                  aria-label={t('moveDown', { name })}
                  isDisabled={i === last}
                  onPress={() => onChange(movedItem(items, item, 1))}
                >
                  <ArrowDown aria-hidden="true" />
                </QuietButton>
                <QuietButton
                  aria-label={t('removeFromSheet', { name })}
                  onPress={() => onChange(withItem(items, item, false))}
                >
                  <X aria-hidden="true" />
                </QuietButton>
              </Row>
            </li>
          );
        })}
      </List>
    </>
  );
}
