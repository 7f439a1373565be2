import type { Entry } from '@zonal/core/entries';
import { whenWords, type DraftEntry, type MergeItem } from '@zonal/core/forms';
import { fieldText } from '../../workers/fieldText';
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
            field,
            here: fieldText(existing[field as keyof Entry]),
            file: fieldText(draft[field as keyof DraftEntry]),
          }))
        : [],
  };
}
