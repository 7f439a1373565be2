import type { OutwardView } from '../glass';
import type { Revision } from '../reach';
import { dayAt, dayToText, type Instant } from '../zones';
import { changesParts } from './atom';
import { calendarParts } from './icsCalendar';
import { outwardTable } from './csv/outwardTable';
import { freeBusyParts } from './freeBusy';
import { jCalParts } from './jCal';
import type { Notice } from './notice';
import { wholeOf, type Parts } from './parts';
import { plainName } from './plainName';
import { copyWords } from './copyWords';

/** What a form needs to know besides the view and its revision. Addresses are absolute. */
export interface FormSetting {
  readonly addresses: { readonly see: string; readonly feed: string };
  readonly now: Instant;
  /**
   * The moment as of which feeds tell what has left, where it is another than now: the beginning of the day up to which
   * the view is worked out, so that the bytes stay the same all day.
   */
  readonly asOf?: Instant;
  /** What readers with this address have to be told besides, such as a new one. */
  readonly notice?: Notice | null;
  /** The hub by which programs can be told of changes (WebSub section 4); left out where there is none. */
  readonly hub?: string;
}

export interface Form {
  readonly contentType: string;
  /** The end of its file's name, and of its address below the folder. */
  readonly ending: string;
  readonly folder: 'feed' | 'copy';
  /** Whether scripts of other sites may read it (CORS). */
  readonly shared?: true;
  /** Whether the bytes stay the same from one moment to the next, so that they can be kept and compared. */
  readonly steady: boolean;
  /** Whether entries lead back to pages below the address of who asks, so that no two addresses get the same bytes. */
  readonly linked: boolean;
  /**
   * Whether the bytes follow from the revision, and in feeds from when they stopped to tell what has left; those of
   * free/busy time follow from the day as well.
   */
  readonly dated: boolean;
  /** Whether it tells for a time what has left. */
  readonly lets?: true;
  parts(view: OutwardView, revision: Revision, setting: FormSetting): Parts;
}

export const FORM_NAMES = ['feed', 'freeBusy', 'jCal', 'table', 'changes', 'copy'] as const;
export type FormName = (typeof FORM_NAMES)[number];

/** The forms that programs read. Each is made from the outward view and nothing else. */
export const FORMS: Readonly<Record<FormName, Form>> = {
  feed: {
    contentType: 'text/calendar; charset=utf-8',
    ending: 'ics',
    folder: 'feed',
    linked: true,
    steady: true,
    dated: true,
    lets: true,
    parts: (view, revision, { addresses, now, asOf = now, notice = null }) =>
      calendarParts(view, revision, { source: addresses.feed, page: addresses.see, notice, asOf }),
  },
  freeBusy: {
    contentType: 'text/calendar; charset=utf-8; component=VFREEBUSY',
    ending: 'ifb',
    folder: 'feed',
    linked: false,
    steady: true,
    dated: false,
    parts: (view, revision, { addresses, notice = null }) =>
      freeBusyParts(view, revision, addresses.feed.replace(/\.ics$/, '.ifb'), notice),
  },
  jCal: {
    contentType: 'application/calendar+json; charset=utf-8',
    ending: 'json',
    folder: 'feed',
    shared: true,
    linked: true,
    steady: true,
    dated: true,
    lets: true,
    parts: (view, revision, { addresses, now, asOf = now, notice = null }) =>
      jCalParts(view, revision, { source: addresses.feed, page: addresses.see, notice, asOf }),
  },
  table: {
    contentType: 'text/csv; charset=utf-8; header=present',
    ending: 'csv',
    folder: 'feed',
    linked: false,
    steady: true,
    dated: true,
    parts: (view, revision, { notice = null }) => outwardTable(view, revision, notice),
  },
  changes: {
    contentType: 'application/atom+xml; charset=utf-8',
    ending: 'atom',
    folder: 'feed',
    steady: true,
    linked: true,
    dated: true,
    parts: (view, revision, { addresses, notice = null, hub }) =>
      changesParts(view, revision, {
        ...(hub ? { hub } : {}),
        self: addresses.feed.replace(/\.ics$/, '.atom'),
        page: addresses.see,
        notice,
      }),
  },
  copy: {
    contentType: 'text/calendar; charset=utf-8',
    ending: 'ics',
    folder: 'copy',
    linked: false,
    steady: false,
    dated: false,
    parts: (view, revision, { addresses, now, notice = null }) =>
      calendarParts(view, revision, {
        source: '',
        page: addresses.see,
        notice,
        copy: copyWords(view, now, addresses.see),
      }),
  },
};

/** Returns the whole document of a form. */
export function writeForm(
  name: FormName,
  view: OutwardView,
  revision: Revision,
  setting: FormSetting,
): string {
  return wholeOf(FORMS[name].parts(view, revision, setting));
}

/** Returns a file name for a form: the window's name in plain letters, and for a copy its day. */
export function fileNameOf(name: FormName, view: OutwardView, now: Instant): string {
  const suffix = name === 'copy' ? `-copy-${dayToText(dayAt(view.hostZone, now))}` : '';
  return `${plainName(view.wording.name, 'calendar')}${suffix}.${FORMS[name].ending}`;
}

/** Returns the form at the end of an address below a folder, or null. */
export function formAt(folder: Form['folder'], ending: string): FormName | null {
  return FORM_NAMES.find((name) => FORMS[name].folder === folder && FORMS[name].ending === ending) ?? null;
}
