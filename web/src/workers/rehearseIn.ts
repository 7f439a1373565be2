import { canonical, type Entry } from '@zonal/core/entries';
import { zoneText } from '@zonal/core/forms';
import type { ZoneName } from '@zonal/core/zones';
import {
  USUAL_LETTING_GO,
  groupedExposures,
  isQuiet,
  itemOf,
  rehearse,
  type ItemChange,
  type ItemPart,
  type OutwardField,
  type OutwardItem,
  type OutwardOverride,
  type OutwardTime,
  type OutwardView,
  type RehearsedView,
  type RehearsedWindow,
  type Watch,
  type ViewDifference,
} from '@zonal/core/glass';
import { rekeyed, type Revision } from '@zonal/core/reach';
import type { FieldLine, ItemLine, RehearsalLines, ViewLines } from './questions';
import { t } from '../texts/rehearsal';
import { ruleWords } from '../texts/entryWords';
import { fieldText, whenWords } from '../texts/formWords';
import { WORDING_WORDS, partWord } from '../texts/glassWords';

/** More are counted and not listed. */
const MOST = 150;

/** Returns start and end by the host's clocks, as its pages tell them; an entry of another zone names it. */
function spanWords({ start, end }: Pick<OutwardTime, 'start' | 'end'>, hostZone: ZoneName): string {
  const span = t('span', { start: whenWords(start, hostZone), end: whenWords(end, hostZone) });
  const abroad = start.kind === 'zoned' && start.zone !== hostZone && start.zone !== 'UTC';
  return abroad ? t('enteredIn', { span, zone: zoneText(start.zone) }) : span;
}

function partText(item: OutwardItem, part: ItemPart, hostZone: ZoneName): string {
  if (part === 'time') return spanWords(item, hostZone);
  if (part === 'tentative') return item.kind === 'busy' && item.tentative ? t('tentative') : t('firm');
  if (item.kind === 'busy') return t('busyTime');
  if (part === 'recurrence')
    return item.kind === 'series'
      ? item.rule
        ? ruleWords(item.rule)
        : t('onDates', { count: item.dates.length })
      : t('once');
  if (part === 'dates') return '';
  return fieldText(part, item.content[part]);
}

/** Returns what differs on single dates of a series: one line a date and field, and one where a date comes or goes. */
function dateLines(before: OutwardItem, after: OutwardItem, hostZone: ZoneName): FieldLine[] {
  const datesOf = (item: OutwardItem) =>
    new Map((item.kind === 'series' ? item.overrides : []).map((o) => [canonical(o.slot), o]));
  const [old, next] = [datesOf(before), datesOf(after)];
  const whole = (o: OutwardOverride | undefined) =>
    o ? `${o.content.title}, ${whenWords(o.start, hostZone)}` : '';
  return [...new Set([...old.keys(), ...next.keys()])].flatMap((slot) => {
    const [a, b] = [old.get(slot), next.get(slot)];
    const day = whenWords((a ?? b)!.slot, hostZone);
    if (!a || !b) return [{ field: t('onDay', { day }), before: whole(a), after: whole(b) }];
    const fields = Object.keys({ ...a.content, ...b.content }) as OutwardField[];
    const lines = fields
      .map((f) => ({
        field: t('partOnDay', { part: partWord(f), day }),
        before: fieldText(f, a.content[f]),
        after: fieldText(f, b.content[f]),
      }))
      .filter((line) => line.before !== line.after);
    const time = (o: OutwardOverride) => spanWords(o, hostZone);
    return time(a) === time(b)
      ? lines
      : [{ field: t('timeOnDay', { day }), before: time(a), after: time(b) }, ...lines];
  });
}

function titleOf(item: OutwardItem, busyWord: string): string {
  return item.kind === 'busy' ? busyWord : item.content.title || t('untitled');
}

/** Returns a change as it is read; `fetchedBy` tells who has an item as it stands outside now. */
function itemLine(
  change: ItemChange,
  { wording: { busyWord }, hostZone }: OutwardView,
  fetchedBy: (uid: string) => readonly string[],
): ItemLine {
  const item = itemOf(change);
  return {
    kind: change.kind,
    uid: item.uid,
    title: titleOf(item, busyWord),
    when: whenWords(item.start, hostZone),
    fields:
      change.kind === 'changes'
        ? change.fields.flatMap((f) =>
            f === 'dates'
              ? dateLines(change.before, change.after, hostZone)
              : [
                  {
                    field: partWord(f),
                    before: partText(change.before, f, hostZone),
                    after: partText(change.after, f, hostZone),
                  },
                ],
          )
        : [],
    fetchedBy: change.kind === 'appears' ? [] : fetchedBy(item.uid),
  };
}

/** Returns a difference with as many of its items as can be read. */
export function viewLines(
  view: Pick<RehearsedView, 'audience' | 'cap' | 'keys' | 'before' | 'after' | 'exposed'>,
  { items, times, wording }: ViewDifference,
  fetchedBy: (uid: string) => readonly string[],
): ViewLines {
  const shown = view.after ?? view.before;
  const exposed = groupedExposures(view.exposed);
  return {
    audience: view.audience,
    cap: view.cap,
    keys: view.keys,
    times,
    wording: wording.map((field) => wordingLine(field, view.before!, view.after!)),
    items: shown ? items.slice(0, MOST).map((c) => itemLine(c, shown, fetchedBy)) : [],
    more: Math.max(0, items.length - MOST),
    exposed: exposed.slice(0, MOST),
    moreExposed: Math.max(0, exposed.length - MOST),
  };
}

function wordingLine(
  field: keyof OutwardView['wording'] | 'hostZone',
  before: OutwardView,
  after: OutwardView,
): FieldLine {
  const text = (view: OutwardView) => {
    const value = field === 'hostZone' ? view.hostZone : view.wording[field];
    if (typeof value === 'object')
      return value.map((t) => (typeof t === 'string' ? t : `${t.language}: ${t.name}`)).join('; ');
    if (field === 'firstView') return value === undefined ? t('chosenByDay') : String(value);
    if (field === 'notices') return value === false ? t('notOffered') : t('offered');
    if (field === 'lettingGo') return t('daysLong', { days: String(value ?? USUAL_LETTING_GO) });
    return typeof value === 'number' ? t('minutesBefore', { minutes: value }) : value || t('none');
  };
  return { field: WORDING_WORDS[field], before: text(before), after: text(after) };
}

/** When a key was last used. */
interface KeyKnown {
  readonly fetchedAt: string | null;
}

interface RehearseSetting {
  readonly pairs: readonly { before: RehearsedWindow | null; after: RehearsedWindow | null }[];
  readonly before: (calendarId: string) => readonly Entry[];
  readonly after: (calendarId: string) => readonly Entry[];
  readonly watch: Watch;
  readonly now: number;
  /** The revision that readers with a key see now; null where it cannot be had. */
  readonly revisionOf: (keyId: string) => Promise<Revision | null>;
}

/** Returns what readers of each window would see differently, as it is read. */
export async function rehearseIn(setting: RehearseSetting): Promise<RehearsalLines[]> {
  const { pairs, before, after, watch, now, revisionOf } = setting;
  const out: RehearsalLines[] = [];
  for (const pair of pairs) {
    const told = rehearse(
      { window: pair.before, entries: before },
      { window: pair.after, entries: after },
      now,
      watch,
    );
    const views: ViewLines[] = [];
    for (const view of told.views) {
      const uses = (pair.before?.keys ?? []) as readonly (RehearsedWindow['keys'][number] &
        Partial<KeyKnown>)[];
      const used = view.keys.flatMap(({ id, madeOutTo }) => {
        const at = uses.find((k) => k.id === id)?.fetchedAt;
        return at ? [{ madeOutTo, at: Date.parse(at) }] : [];
      });
      const hits = view.difference.items.some((c) => c.kind !== 'appears');
      const live = hits && used.length ? await revisionOf(view.keys[0]!.id) : null;
      const revision = live && view.before ? rekeyed(live, view.before) : null;
      views.push(
        viewLines(view, view.difference, (uid) => {
          const stamp = revision?.stamps[uid];
          return stamp ? used.filter((u) => u.at >= stamp.at).map((u) => u.madeOutTo) : [];
        }),
      );
    }
    out.push({
      windowId: told.windowId,
      name: told.name,
      quiet: isQuiet(told) && told.demands.length === 0,
      demands: told.demands,
      views,
    });
  }
  return out;
}
