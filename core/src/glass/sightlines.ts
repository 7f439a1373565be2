import type { Entry } from '../entries';
import type { Instant, ZoneName } from '../zones';
import { SOON, endOf, keyState } from './keyState';
import { exposuresOf, type Exposure, type Watch } from './exposure';
import { AUDIENCES, GLASSES, effectiveGlass, type Audience, type Glass, type Reason } from './glass';
import type { SourceGlass } from './rules';
import { fieldsOfSource, limitsFor, outwardView, sourceLimits, takenBy } from './outwardView';
import type { OutwardField } from './fields';
import type { RehearsedWindow } from './rehearsal';
import { rangeOfHorizon } from './rules';
import type { OutwardItem } from './view';

/** A window with what is known of when its keys were last used. */
export interface SightedWindow extends Omit<RehearsedWindow, 'keys' | 'listed' | 'publicUntil'> {
  readonly keys: readonly (RehearsedWindow['keys'][number] & {
    /** Instant of its last fetch, or null for never. */
    readonly fetchedAt: Instant | null;
    /** Instant at which it was made. */
    readonly madeAt: Instant;
    /** Instant from which on it is no longer open, or null for no end. */
    readonly expiresAt: Instant | null;
  })[];
}

export const SIGHT_MARKS = ['clearer-than-usual', 'sensitive', 'not-polled', 'ends-soon'] as const;
/** What is unusual about a cell. */
export type SightMark = (typeof SIGHT_MARKS)[number];

/** One way to see a calendar: a key of a window, with the glass that is in force and why. */
export interface SightPath {
  readonly windowId: string;
  readonly window: string;
  readonly keyId: string;
  readonly madeOutTo: string;
  readonly glass: Glass;
  readonly cut: boolean;
  readonly reasons: readonly Reason[];
  readonly marks: readonly SightMark[];
}

/** What an audience can see of a calendar: the clearest of all ways. */
export interface SightCell {
  readonly audience: Audience;
  readonly glass: Glass;
  readonly paths: readonly SightPath[];
  readonly marks: readonly SightMark[];
  /** Sensitive matter that this audience can read in this calendar. */
  readonly exposed: readonly Exposure[];
}

export interface SightRow {
  readonly calendarId: string;
  /** The glass before this calendar in most of its ways out; the less clear of two that are as common. */
  readonly usual: Glass;
  readonly cells: readonly SightCell[];
}

const QUIET = 60 * 86_400_000;

/** Returns the matrix of calendars by audiences, as of an instant. Holds on entries are not taken into account. */
export function sightlines(
  calendarIds: readonly string[],
  windows: readonly SightedWindow[],
  entries: (calendarId: string) => Iterable<Entry>,
  now: Instant,
  watch: Watch,
): SightRow[] {
  return calendarIds.map((calendarId) => {
    const paths = windows.filter((w) => !w.closed).flatMap((w) => pathsThrough(w, calendarId, now));
    const usual = usualOf(paths.map((p) => p.path.glass));
    const cells = AUDIENCES.map((audience): SightCell => {
      const own = paths.filter((p) => p.audience === audience);
      const exposed = own.length ? exposedBy(calendarId, own, entries, now, watch) : [];
      const marked = own.map(({ path }): SightPath => {
        const clearer = GLASSES.indexOf(path.glass) > GLASSES.indexOf(usual);
        return clearer ? { ...path, marks: ['clearer-than-usual', ...path.marks] } : path;
      });
      const marks = new Set(marked.flatMap((p) => p.marks));
      if (exposed.length) marks.add('sensitive');
      return {
        audience,
        glass: GLASSES[Math.max(0, ...marked.map((p) => GLASSES.indexOf(p.glass)))]!,
        paths: marked,
        marks: SIGHT_MARKS.filter((m) => marks.has(m)),
        exposed,
      };
    });
    return { calendarId, usual, cells };
  });
}

interface Way {
  readonly audience: Audience;
  readonly window: SightedWindow;
  readonly path: SightPath;
}

function pathsThrough(window: SightedWindow, calendarId: string, now: Instant): Way[] {
  const { id, rules, keys } = window;
  const source = rules.sources.find((s) => s.calendarId === calendarId);
  if (!source) return [];
  const { to } = rangeOfHorizon(rules.horizon, rules.hostZone, now);
  return keys
    .filter((key) => keyState(key, now) !== 'ended')
    .map((key) => {
      const { glass, reasons } = effectiveGlass(sourceLimits(calendarId, rules, key));
      const marks: SightMark[] = [];
      if (now - Math.max(key.fetchedAt ?? 0, key.madeAt) > QUIET) marks.push('not-polled');
      const end = Math.min(endOf(key), rules.horizon.kind === 'fixed' ? to : Infinity);
      if (end - now < SOON) marks.push('ends-soon');
      const path: SightPath = {
        windowId: id,
        window: rules.wording.name,
        keyId: key.id,
        madeOutTo: key.madeOutTo,
        glass,
        cut: isCut(source.glass, glass),
        reasons,
        marks,
      };
      return { audience: key.audience, window, path };
    });
}

function isCut(source: SourceGlass, glass: Glass): boolean {
  return source === 'cut' && (glass === 'tinted' || glass === 'clear');
}

function usualOf(glasses: readonly Glass[]): Glass {
  const count = (g: Glass) => glasses.filter((x) => x === g).length;
  return GLASSES.reduce((best, g) => (count(g) > count(best) ? g : best), 'shut');
}

function exposedBy(
  calendarId: string,
  ways: readonly Way[],
  entries: (calendarId: string) => Iterable<Entry>,
  now: Instant,
  watch: Watch,
): Exposure[] {
  const out = new Map<string, Exposure>();
  const seen = new Set<string>();
  for (const { window, path, audience } of ways) {
    const { rules, keys } = window;
    const cap = keys.find((k) => k.id === path.keyId)!.cap;
    if (path.glass === 'shut' || path.glass === 'frosted' || seen.has(`${window.id}|${cap}`)) continue;
    seen.add(`${window.id}|${cap}`);
    const range = rangeOfHorizon(rules.horizon, rules.hostZone, now);
    const view = outwardView(entries(calendarId), rules, range, { audience, cap });
    for (const e of exposuresOf(view, watch)) out.set(`${e.kind}|${e.text}|${e.uid}|${e.field}`, e);
  }
  return [...out.values()];
}

/** Why a reader sees nothing of an entry, or the glass through which it is seen. */
export type EntrySight = 'seen' | 'closed' | 'ended' | 'filtered-out' | 'outside-horizon' | 'held-back';

/** What one key lets see of one entry. */
export interface EntryPath {
  readonly windowId: string;
  readonly window: string;
  readonly keyId: string;
  readonly madeOutTo: string;
  readonly audience: Audience;
  readonly sight: EntrySight;
  /** On whose clocks the window tells its times. */
  readonly hostZone: ZoneName;
  readonly glass: Glass;
  readonly reasons: readonly Reason[];
  /** Fields that go out, whether or not the entry has something in them. */
  readonly fields: readonly OutwardField[];
  /** What goes out of this entry alone, as it goes out. Busy time is merged with that of others. */
  readonly items: readonly OutwardItem[];
}

/** Returns what every key of every window lets see of an entry, and why. */
export function whoSees(entry: Entry, windows: readonly SightedWindow[], now: Instant): EntryPath[] {
  return windows.flatMap((window) => {
    const { rules } = window;
    const source = rules.sources.find((s) => s.calendarId === entry.calendarId);
    if (!source) return [];
    const takes = takenBy(rules);
    const range = rangeOfHorizon(rules.horizon, rules.hostZone, now);
    return window.keys.map((key): EntryPath => {
      const { id, madeOutTo, audience, cap } = key;
      const open = !window.closed && keyState(key, now) !== 'ended';
      const { glass, reasons } = effectiveGlass(limitsFor(entry, rules, { audience, cap }));
      const items = open ? outwardView([entry], rules, range, { audience, cap }).items : [];
      const taken = [entry, ...entry.overrides.map((o) => o.content)].some((c) => takes(entry.calendarId, c));
      const why: EntrySight = window.closed
        ? 'closed'
        : !open
          ? 'ended'
          : glass === 'shut'
            ? 'held-back'
            : !taken
              ? 'filtered-out'
              : 'outside-horizon';
      return {
        windowId: window.id,
        window: rules.wording.name,
        keyId: id,
        madeOutTo,
        audience,
        sight: items.length ? 'seen' : why,
        hostZone: rules.hostZone,
        glass,
        reasons,
        fields: fieldsOfSource(source, glass, rules),
        items,
      };
    });
  });
}
