import type { Entry } from '@zonal/core/entries';
import type { Finding } from '@zonal/core/forms';
import type {
  Audience,
  Ceilings,
  Demand,
  EntryPath,
  ExposureGroup,
  Glass,
  ItemChange,
  OutwardView,
  Reader,
  RehearsedWindow,
  Showing,
  Watch,
  SightRow,
  SightedWindow,
  ViewDifference,
  WindowRules,
} from '@zonal/core/glass';
import type { EntryChange } from '@zonal/core/api';
import type { InsideGlass, InsideSetting } from '@zonal/core/rights';

export const PREVIEW_FORMS = ['page', 'embed', 'feed', 'freeBusy'] as const;
export type PreviewForm = (typeof PREVIEW_FORMS)[number];

/** What readers would get by rules. */
export interface PreviewQuestion {
  readonly kind: 'preview';
  readonly rules: WindowRules;
  readonly reader: Reader;
  /** The key whose revision comes before the draft's; null for a window that is not opened yet. */
  readonly keyId: string | null;
  readonly form: PreviewForm;
  readonly show: Showing;
  /** The reader's zone, or empty for the host's. */
  readonly zone: string;
  readonly now: number;
  readonly addresses: { readonly see: string; readonly feed: string };
}

export interface PreviewAnswer {
  readonly kind: 'page' | 'text';
  readonly text: string;
  /** What of a document for programs is not as the standards ask; none of a page. */
  readonly findings: readonly Finding[];
  /** Number of single times that a reader would see. */
  readonly count: number;
  /** Entries of the sources that the filter and the marks let in, of all there are. */
  readonly taken: number;
  readonly all: number;
  /** Some titles as they go out, to show what the pattern makes. */
  readonly titles: readonly string[];
}

/** What readers of windows would see differently: by new rules, by changed entries, or both. */
export interface RehearsalQuestion {
  readonly kind: 'rehearsal';
  /** Each window before and after; null before for one not opened yet, null after for one that goes. */
  readonly pairs: readonly { before: RehearsedWindow | null; after: RehearsedWindow | null }[];
  readonly changes: readonly EntryChange[];
  readonly watch: Watch;
  readonly now: number;
}

/** A field that changes, as it reads before and after. */
export interface FieldLine {
  readonly field: string;
  readonly before: string;
  readonly after: string;
}

export interface ItemLine {
  readonly kind: ItemChange['kind'];
  readonly uid: string;
  readonly title: string;
  readonly when: string;
  readonly fields: readonly FieldLine[];
  /** Keys with which it was fetched as it stands outside now. */
  readonly fetchedBy: readonly string[];
}

export interface ViewLines {
  readonly audience: Audience;
  readonly cap: Glass | null;
  readonly keys: readonly { readonly id: string; readonly madeOutTo: string }[];
  readonly times: ViewDifference['times'];
  readonly wording: readonly FieldLine[];
  readonly items: readonly ItemLine[];
  /** Items that are not listed, as there are too many. */
  readonly more: number;
  /** Sensitive matter that is newly exposed, grouped by what was found. */
  readonly exposed: readonly ExposureGroup[];
  /** Groups that are not listed, as there are too many. */
  readonly moreExposed: number;
}

export interface RehearsalLines {
  readonly windowId: string;
  readonly name: string;
  readonly quiet: boolean;
  readonly demands: readonly Demand[];
  readonly views: readonly ViewLines[];
}

/** The matrix of calendars by audiences. */
export interface SightQuestion {
  readonly kind: 'sightlines';
  readonly calendarIds: readonly string[];
  readonly windows: readonly SightedWindow[];
  readonly watch: Watch;
  readonly now: number;
}

/** Who can see one entry. */
export interface WhoQuestion {
  readonly kind: 'who';
  readonly entry: Entry;
  readonly windows: readonly SightedWindow[];
  readonly now: number;
}

/** What somebody inside would see of a calendar next, through a glass. */
export interface InsideQuestion {
  readonly kind: 'inside';
  readonly calendar: InsideSetting['calendar'];
  readonly through: InsideGlass;
  readonly ceilings: Ceilings;
  readonly now: number;
}

/** One time of an entry, as it is read. */
export interface InsideLine {
  readonly when: string;
  readonly title: string;
  readonly place: string;
}

/** Two past revisions, compared, and the later one as a page. */
export interface PastQuestion {
  readonly kind: 'past';
  readonly before: OutwardView | null;
  readonly after: OutwardView;
  readonly number: number;
  readonly show: Showing;
  readonly now: number;
}

export interface PastAnswer {
  readonly page: string;
  readonly lines: ViewLines;
}

/** All that the worker is asked, with what it answers. */
export interface Answers {
  readonly preview: PreviewAnswer;
  readonly rehearsal: readonly RehearsalLines[];
  readonly sightlines: readonly SightRow[];
  readonly who: readonly EntryPath[];
  readonly past: PastAnswer;
  readonly inside: readonly InsideLine[];
}

export type Question =
  PreviewQuestion | RehearsalQuestion | SightQuestion | WhoQuestion | PastQuestion | InsideQuestion;
export type AnswerOf<Q extends Question> = Answers[Q['kind']];

/** What the worker offers: an answer to each kind of question. `stamp` changes whenever entries may have changed. */
export type Outward = {
  readonly [K in Question['kind']]: (
    question: Extract<Question, { kind: K }>,
    stamp: string,
  ) => Answers[K] | Promise<Answers[K]>;
};
