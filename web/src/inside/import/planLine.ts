import { type MergeItem } from '@zonal/core/forms';
import type { PlanLine } from './fileTypes';
import { t } from '../../texts/inside';
import { fieldWord } from '../../texts/entryWords';
import { fieldText, whenWords } from '../../texts/formWords';

/** Returns a line of the preview as the page shows it. */
export function planLine(item: MergeItem, at: number): PlanLine {
  const { kind, title, start, reason, fields, existing, draft } = item;
  return {
    at,
    kind,
    title: title || t('untitled'),
    when: start ? whenWords(start) : '',
    reason,
    apart:
      existing && draft
        ? fields.map((field) => ({
            field: fieldWord(field),
            here: fieldText(field, existing[field]),
            file: fieldText(field, draft[field]),
          }))
        : [],
  };
}
