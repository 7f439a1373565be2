import { canonical } from '../../entries';
import { quickPrint, slotsApart, type OutwardItem, type OutwardView } from '../../glass';
import type { Revision } from '../../reach';
import { DAY, dayFromParts, partsOfDay, type Instant, type ZoneName } from '../../zones';
import { PRODUCT, itemText, pagesOf, settingOf, withPages } from '../icsCalendar';
import { zonesOf, type EventSetting } from '../icsEvent';
import { joinLines } from '../icsText';
import { timeZoneLines } from '../icsTimeZone';
import { noticeKind, noticeLines, type Notice } from '../notice';

/** What a collection has to know besides the view and its revision. */
export interface DavSetting {
  /** Addresses, absolute: of the collection with a slash at its end, of the page, and of the feed. */
  readonly addresses: { readonly dav: string; readonly see: string; readonly feed: string };
  readonly notice?: Notice | null;
  /** Stands for the view in tokens: those of one are none of another. */
  readonly of: string;
}

/** One calendar object resource (RFC 4791 section 4.1). */
export interface Member {
  /** The last part of its address. */
  readonly name: string;
  /** An entity tag: another one whenever the bytes are others. */
  readonly tag: string;
  /** Null for a notice, which is no entry. */
  readonly item: OutwardItem | null;
  /** Returns its bytes as iCalendar text. */
  text(): string;
}

/** The members of a collection as one reader has it. */
export class Members {
  readonly setting: EventSetting;
  private readonly years: readonly [from: number, to: number];
  /** Stands for what every member says besides its item: where that changes, all of them do. */
  readonly print: string;
  /** Made once somebody asks for one by its name. */
  private items: Map<string, OutwardItem> | null = null;

  constructor(
    readonly view: OutwardView,
    readonly revision: Revision,
    readonly own: DavSetting,
  ) {
    const { wording, hostZone, range } = view;
    this.setting = settingOf(view);
    // Whole years, or what is defined of a zone would be another thing each day.
    this.years = [yearOf(range.from), yearOf(range.to) + 2];
    const { busyWord, dueAs, remind, language } = wording;
    const told = [busyWord, dueAs, remind ?? 0, language, hostZone, ...this.years, this.pages];
    this.print = quickPrint(JSON.stringify(told)).slice(0, 12);
  }

  /** All of them: a notice first, then entries by their start. */
  all(): Member[] {
    return [...this.notices(), ...this.view.items.map((item) => this.ofItem(item))];
  }

  /** Returns the member of a name, or null. */
  named(name: string): Member | null {
    this.items ??= new Map(this.view.items.map((item) => [nameOf(item.uid), item]));
    const item = this.items.get(name);
    if (item) return this.ofItem(item);
    return this.notices().find((notice) => notice.name === name) ?? null;
  }

  ofItem(item: OutwardItem): Member {
    const stamp = this.revision.stamps[item.uid]!;
    // Overrides follow from the horizon too. The order of an object's keys depends on where it was loaded from.
    const apart = item.kind === 'series' ? slotsApart(item) : [];
    return {
      name: nameOf(item.uid),
      tag: `"${stamp.sequence}-${quickPrint(canonical([stamp.print, this.print, apart]))}"`,
      item,
      text: () => this.documentOf(itemText(item, stamp, this.setting), this.zonesText(item)),
    };
  }

  /** Returns a document (RFC 5545) with some components, which names no method (RFC 4791 section 4.1). */
  documentOf(components: string, zones = ''): string {
    const head = ['BEGIN:VCALENDAR', 'VERSION:2.0', `PRODID:${PRODUCT}`, 'CALSCALE:GREGORIAN'];
    return `${joinLines(head)}${zones}${withPages(components, this.pages)}END:VCALENDAR\r\n`;
  }

  zonesText(item: OutwardItem): string {
    const zones = [...new Set(zonesOf(item, this.setting))].sort();
    const dates = item.kind === 'series' ? [item, ...item.overrides] : [item];
    const from = dates.reduce((first, time) => Math.min(first, yearOf(time.from)), this.years[0]);
    const to = dates.reduce((last, time) => Math.max(last, yearOf(time.to) + 1), this.years[1]);
    return zones.map((zone) => definitionOf(zone, from, to)).join('');
  }

  private get pages(): string {
    return pagesOf({ page: this.own.addresses.see, notice: this.own.notice ?? null });
  }

  /** What those with this address are told besides: one member, or none. */
  notices(): Member[] {
    const { notice } = this.own;
    if (!notice) return [];
    const text = joinLines(noticeLines(notice, this.view));
    return [
      {
        name: noticeName(this.view, noticeKind(notice)),
        tag: `"n-${quickPrint(text)}"`,
        item: null,
        text: () => this.documentOf(text),
      },
    ];
  }

  /** Stands for that: what it is, and a print of it; empty for nothing. */
  get noticePrint(): string {
    const { notice } = this.own;
    return notice ? `${noticeKind(notice)}${quickPrint(JSON.stringify(notice)).slice(0, 8)}` : '';
  }
}

/** Returns the last part of the address of an entry. */
export function nameOf(uid: string): string {
  return `${uid}.ics`;
}

/** Returns the same of a notice. */
export function noticeName({ ids }: OutwardView, kind: string): string {
  return nameOf(`${ids.calendar}-${kind}`);
}

function yearOf(at: Instant): number {
  return partsOfDay(Math.floor(at / DAY)).year;
}

const definitions = new Map<string, string>();
const MOST_DEFINITIONS = 2_000;

/** Returns the VTIMEZONE of a zone that is right from the beginning of a year to that of another one. */
function definitionOf(zone: ZoneName, from: number, to: number): string {
  const key = `${zone} ${from} ${to}`;
  let text = definitions.get(key);
  if (text === undefined) {
    if (definitions.size >= MOST_DEFINITIONS) definitions.clear();
    const start = (year: number) => dayFromParts(year, 1, 1) * DAY;
    definitions.set(key, (text = joinLines(timeZoneLines(zone, start(from), start(to)))));
  }
  return text;
}
