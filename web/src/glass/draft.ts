import type { AllCeilings, Calendar, OutwardWindow } from '@zonal/core/api';
import {
  BLANK_WINDOW,
  ceilingsInForce,
  goneFrom,
  rulesOfSaid,
  saidByRules,
  type Ceilings,
  type KnownNames,
  type SourceGlass,
  type SourceRule,
  type WindowInput,
  type WindowRules,
} from '@zonal/core/glass';
import { t } from '../texts/glass';

/** Returns the draft of a new window on the house's zone. */
export function blankDraft(calendars: readonly Calendar[]): WindowInput {
  return { ...BLANK_WINDOW, hostZone: calendars[0]?.zone ?? BLANK_WINDOW.hostZone, audience: 'street' };
}

/** Returns a calendar as the source of a window: it starts frosted unless another glass is given. */
export function sourceOf({ id, name }: Calendar, glass: SourceGlass = 'frosted'): SourceRule {
  return { calendarId: id, glass, fields: [], as: name };
}

/** Returns a window as it is sent back to be changed. */
export function draftOf(window: OutwardWindow): WindowInput {
  return { ...saidByRules(window, window), version: window.version };
}

/** What the rules of a draft depend on besides the draft itself. */
export interface DraftSetting {
  /** The window that it is of; null for one not yet opened. */
  readonly window: OutwardWindow | null;
  readonly ceilings: Ceilings;
  readonly known: KnownNames;
}

/** Returns the ceilings in force, as far as they are known yet. */
export function ceilingsOf(all: AllCeilings | undefined, calendars: readonly Calendar[]): Ceilings {
  return ceilingsInForce(
    all?.ceilings ?? [],
    calendars.filter((c) => c.lockedAt).map((c) => c.id),
  );
}

/** Returns the rules that a draft says. */
export function rulesOfDraft(draft: WindowInput, { window, ceilings, known }: DraftSetting): WindowRules {
  return rulesOfSaid(
    { ...draft, name: draft.name.trim() || t('untitledWindow') },
    { secret: window?.secret ?? t('notOpenedYet'), ceilings, gone: goneFrom(draft.filter, known) },
  );
}

/** Returns the labels that a window's filter has lost outside and that the house knows again. */
export function regained(
  { filter, gone }: Pick<OutwardWindow, 'filter' | 'gone'>,
  known: KnownNames,
): string[] {
  const still = goneFrom(filter, known);
  return gone.filter((name) => !still.includes(name)).map((name) => name.replace(/^label:/, ''));
}
