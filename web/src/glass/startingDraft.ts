import type { Calendar, OutwardWindow } from '@zonal/core/api';
import { WINDOW_TEMPLATES, type SourceGlass, type WindowInput, type WindowTemplate } from '@zonal/core/glass';
import { blankDraft, draftOf } from './draft';

/** What a new window can start from. */
export type Start =
  | { readonly kind: 'blank' }
  | { readonly kind: 'template'; readonly template: WindowTemplate }
  | { readonly kind: 'copy'; readonly window: OutwardWindow };

/** The draft that a new window starts with, and the glass with which calendars are added to it. */
export interface StartingDraft {
  readonly draft: WindowInput;
  readonly glass: SourceGlass;
}

/**
 * Returns the draft of a new window. A copy has the rules and the wording of the other window, without its name, keys, translations
 * and its place on the notice board, and only those of its calendars that are in `calendars`.
 */
export function startingDraft(start: Start, calendars: readonly Calendar[]): StartingDraft {
  const blank = blankDraft(calendars);
  if (start.kind === 'blank') return { draft: blank, glass: 'frosted' };
  if (start.kind === 'template') {
    const { settings, audience, glass } = WINDOW_TEMPLATES[start.template];
    return { draft: { ...blank, ...settings, audience }, glass };
  }
  const { version: _version, ...copied } = draftOf(start.window);
  const sources = copied.sources.filter((source) => calendars.some((c) => c.id === source.calendarId));
  const audience = start.window.keys[0]?.audience ?? 'street';
  return {
    draft: { ...copied, name: '', translations: [], listed: false, sources, audience },
    glass: 'frosted',
  };
}
