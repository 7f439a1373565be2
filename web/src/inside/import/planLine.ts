import { fieldWord } from '@zonal/core/entries';
import { fieldText, whenWords, type MergeItem } from '@zonal/core/forms';
import type { PlanLine } from './fileTypes';

/** Returns a line of the preview as the page shows it. */
export function planLine(item: MergeItem, at: number): PlanLine {
  const { kind, title, start, reason, fields, existing, draft } = item;
  return {
    at,
    kind,
    title: title || 'Untitled',
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
