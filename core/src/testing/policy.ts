import type { Content, Entry } from '../entries';
import type { Reader, WindowRules } from '../glass';

/**
 * What a reader may see, written down by itself from the product's description and not taken from the code that
 * decides: the tests of non-interference compare the two.
 */

/** 0 shut, 1 frosted, 2 tinted, 3 clear. */
export type Clearness = 0 | 1 | 2 | 3;
const CLEARNESS = { shut: 0, frosted: 1, tinted: 2, clear: 3 } as const;

/** The least clearness with which a field goes out; null: it never does. `ask` is the window's switch for it. */
const POLICY: Readonly<Record<keyof Content, { least: 2 | 3; ask?: keyof WindowRules['switches'] } | null>> =
  {
    title: { least: 2 },
    place: { least: 2 },
    kind: { least: 2 },
    status: { least: 2 },
    shows: { least: 2 },
    planned: { least: 2, ask: 'planned' },
    description: { least: 3 },
    publicLink: { least: 3 },
    labels: { least: 3 },
    attachments: { least: 3 },
    image: { least: 3 },
    properties: { least: 3 },
    joinLink: { least: 3, ask: 'joinLink' },
    people: { least: 3, ask: 'people' },
    contact: { least: 3, ask: 'contact' },
    hold: null,
    kept: null,
  };

/** Returns how clearly a reader sees an entry, or one of its dates: the least of everything that limits it. */
export function clearnessOf(
  { calendarId, hold, labels }: Pick<Entry, 'calendarId' | 'hold' | 'labels'>,
  rules: WindowRules,
  { audience, cap }: Reader,
): Clearness {
  const source = rules.sources.find((s) => s.calendarId === calendarId);
  if (!source) return 0;
  const picked = source.fields.some((f) => POLICY[f]!.least === 3) ? 3 : 2;
  let least: number = source.glass === 'cut' ? picked : CLEARNESS[source.glass];
  for (const ceiling of [rules.ceilings.house, rules.ceilings.calendars[calendarId]]) {
    const most = ceiling?.[audience];
    if (most) least = Math.min(least, CLEARNESS[most]);
  }
  if (cap) least = Math.min(least, CLEARNESS[cap]);
  const marks = [hold, ...rules.labelHolds.filter((h) => labels.includes(h.label)).map((h) => h.hold)];
  if (marks.includes('frost')) least = Math.min(least, 1);
  if (marks.includes('keep-in')) least = 0;
  return least as Clearness;
}

/** Returns the fields of an entry that a reader gets who sees it this clearly. */
export function fieldsSeen(calendarId: string, clearness: Clearness, rules: WindowRules): (keyof Content)[] {
  const source = rules.sources.find((s) => s.calendarId === calendarId)!;
  return (Object.keys(POLICY) as (keyof Content)[]).filter((field) => {
    const rule = POLICY[field];
    if (!rule) return false;
    const { least, ask } = rule;
    if (clearness < least) return false;
    if (source.glass !== 'cut') return !ask || rules.switches[ask];
    return (
      ['status', 'shows', 'kind'].includes(field) || (source.fields as readonly string[]).includes(field)
    );
  });
}
