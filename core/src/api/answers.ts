import type { Entry, EntryImage, Imported, PropertyDefinition, Rezone } from '../entries';
import type { EmbedLook } from '../forms';
import type {
  Audience,
  Colour,
  Demand,
  Glass,
  LabelHold,
  LinkNote,
  PlatePattern,
  PlateShape,
  WindowInput,
  WindowRules,
  WindowSaid,
} from '../glass';
import type { ProblemCode } from '../problems';
import type { AlertProblem } from '../reach';
import type { HouseRole, Sight, Standing, Who } from '../rights';
import type { RequestRecord } from './requests';
import type { InsideLanguage } from '../texts';

/*
 * What the organiser's API is asked and answers, as it stands in JSON: each shape once, for the server that gives it, the
 * application that reads it, and the description that it gives of itself. Moments are instants as ISO 8601 text in UTC.
 */

/** Who is signed in, and the token that changing requests must carry. */
export interface Session {
  readonly user: {
    readonly name: string;
    readonly email: string;
    readonly role: HouseRole;
    /** Null for the language of the browser. */
    readonly language: InsideLanguage | null;
  } | null;
  readonly csrf: string;
  /** Origin of model pages of other sites in which embeds can be tried, or empty where there is none. */
  readonly tryOut: string;
  /** Accounts of the demo that anybody may sign in with; none where it is no demo. */
  readonly demo: Demo['accounts'];
  /** Address of a page that shows the mails that were sent, where they go to a stand-in; or empty. */
  readonly postbox: string;
  /** Whether there is an account at all. */
  readonly begun: boolean;
  /** Whether a mail server is set up. Without one, stewards hand addresses over that would otherwise be mailed. */
  readonly sendsMail: boolean;
}

export interface SignIn {
  readonly email: string;
  readonly password: string;
}

/** Accounts and addresses of the demo. */
export interface Demo {
  readonly accounts: readonly {
    readonly name: string;
    readonly email: string;
    readonly password: string;
    readonly role: string;
  }[];
  readonly windows: readonly {
    readonly slug: string;
    readonly title: string;
    readonly zone: Audience;
    readonly glass: string;
    readonly listed: boolean;
    readonly madeOutTo: string;
    readonly key: string;
    readonly see: string;
    readonly embed: string;
    readonly feed: string;
    readonly dav: string;
    readonly freeBusy: string;
    readonly jCal: string;
    readonly table: string;
    /** What changed last, as an Atom feed. */
    readonly changes: string;
    readonly copy: string;
  }[];
}

export interface Calendar {
  readonly id: string;
  readonly name: string;
  readonly description: string;
  readonly zone: string;
  readonly plate: string;
  readonly colour: Colour;
  readonly shape: PlateShape;
  readonly pattern: PlatePattern;
  readonly place: string;
  /** Degrees, north and east positive; null where its home place has no spot. */
  readonly latitude: number | null;
  readonly longitude: number | null;
  readonly archivedAt: string | null;
  /** When everything of it was withdrawn from outside, or null. */
  readonly lockedAt: string | null;
  readonly version: number;
  /** How many entries the asker sees of it. */
  readonly entryCount: number;
  /** What the asker is to it, and how much they see of it. */
  readonly who: Who;
  readonly sight: Sight;
  /** Names of the windows over it, for those who may know them. */
  readonly windows: readonly string[];
  /** Whether the asker has it on the desk. */
  readonly onDesk: boolean;
}

/** A calendar as it is made or changed; with no version it is new. */
export interface CalendarInput
  extends
    Pick<Calendar, 'name' | 'description' | 'zone' | 'plate' | 'colour'>,
    Partial<Pick<Calendar, 'shape' | 'pattern' | 'place' | 'latitude' | 'longitude'>> {
  readonly version?: number;
}

/** What somebody is to a calendar, since when, and by whom. */
export interface CalendarPerson {
  readonly userId: string;
  readonly name: string;
  readonly email: string;
  readonly standing: Standing;
  /** Of a reader; null for those who see everything. */
  readonly glass: Glass | null;
  readonly since: string;
  /** Empty for what was so before it was noted. */
  readonly by: string;
}

/** The people of a calendar, and the glass through which everybody else in the house sees it. */
export interface CalendarPeople {
  readonly people: readonly CalendarPerson[];
  /** Who was asked into the house, and will be something to it. */
  readonly invited: readonly (Pick<CalendarPerson, 'standing' | 'glass'> & { readonly email: string })[];
  readonly houseGlass: Glass;
  /** Whether everybody in the house may know of it: its name, what it is for, and who publishes it. */
  readonly known: boolean;
  /** Labels that hold entries back from those who look through a glass. */
  readonly labelHolds: readonly LabelHold[];
  /** Rises with each change. */
  readonly version: number;
}

/** The people of a calendar as they are to be: whoever is not named is nothing to it any more. */
export interface CalendarPeopleInput {
  readonly people: readonly Pick<CalendarPerson, 'userId' | 'standing' | 'glass'>[];
  readonly houseGlass: Glass;
  /** Whether everybody in the house may know of it; left out, it stays as it is. */
  readonly known?: boolean;
  /** Left out, they stay as they are. */
  readonly labelHolds?: readonly LabelHold[];
  /** The version that was seen. */
  readonly version: number;
}

/** What deleting a calendar would hit. */
export interface CalendarImpact {
  readonly entryCount: number;
  readonly windows: readonly {
    readonly id: string;
    readonly name: string;
    readonly keys: readonly string[];
    readonly left: boolean;
  }[];
}

/** A move of a calendar to another zone, and what its entries keep. */
export interface ZoneChange {
  readonly zone: string;
  readonly keep: Rezone;
}

export interface House {
  readonly name: string;
  readonly zone: string;
  readonly country: string;
  readonly region: string;
  readonly properties: readonly PropertyDefinition[];
  /** Words that must not go out unnoticed. */
  readonly watchWords: readonly string[];
  /** The house's own public mail addresses and telephone numbers, which are no sensitive matter. */
  readonly publicContacts: readonly string[];
  /** Domains of the house's own mail addresses, such as harbour.example; empty where that is not said. */
  readonly mailDomains: readonly string[];
  /** For how many days polls of subscribers are kept one by one; see KEPT_DAYS. */
  readonly pollDays: number;
  readonly version: number;
}

/** The house as it is changed; what is left out stays as it is. */
export type HouseInput = Omit<House, 'publicContacts' | 'mailDomains' | 'pollDays'> &
  Partial<Pick<House, 'publicContacts' | 'mailDomains' | 'pollDays'>>;

export interface WindowKey {
  readonly id: string;
  readonly madeOutTo: string;
  readonly audience: Audience;
  /** Of a colleague's own key it follows what they may see inside. */
  readonly cap: Glass | null;
  /** The colleague whose own it is; null for outsiders. */
  readonly userId: string | null;
  readonly madeAt: string;
  /** From when on its addresses are no longer open; null for no end. */
  readonly expiresAt: string | null;
  /** When it was withdrawn, or null; it can be brought back for a day. */
  readonly withdrawnAt: string | null;
  /** Whom to tell of it: a mail address, a telephone number; it never goes out. */
  readonly contact: string;
  /** For colleagues; they never go out. */
  readonly notes: string;
  /** How many readers it is made out for; null where that is not said. */
  readonly meantFor: number | null;
  /** Whether it matters that its readers know: then it is told where one of them goes silent. */
  readonly matters: boolean;
  /** How many readers came this week or last, whichever is more: people and programs, more or less. */
  readonly readers: number;
  /** How its embed looks where its code says nothing else. */
  readonly look: EmbedLook;
  /** Origins of the sites that may hold its embed; empty for all. */
  readonly hosts: readonly string[];
  readonly version: number;
  /** Addresses that it had before and that lead to it still, newest first: since when, and until when. */
  readonly turned: readonly { readonly at: string; readonly until: string }[];
  /** When it was last used, and which revision was fetched then. */
  readonly fetchedAt: string | null;
  readonly fetched: number | null;
  readonly token: string;
  readonly see: string;
  readonly embed: string;
  readonly feed: string;
  /** The same as a read-only CalDAV collection. */
  readonly dav: string;
  readonly freeBusy: string;
  readonly jCal: string;
  readonly table: string;
  /** What changed last, as an Atom feed. */
  readonly changes: string;
  readonly copy: string;
}

/** Rules that are being worked on; nothing of them is outside yet. */
export interface WindowDraft {
  readonly body: Partial<WindowInput>;
  readonly version: number;
  readonly by: string;
  readonly at: string;
  readonly publishAt: string | null;
  /** Why it was not shown when its time came, or empty. */
  readonly stopped: string;
}

/** A window with its rules, sources, keys and draft. Its secret is one for previews alone. */
export interface OutwardWindow extends WindowRules {
  readonly id: string;
  /** The part of its public addresses that names it; null if it was never listed. */
  readonly slug: string | null;
  /** The public addresses of its page and its feed; empty if it was never listed. */
  readonly listedSee: string;
  readonly listedFeed: string;
  readonly listed: boolean;
  /** For how many days the public address goes on after the window is unlisted. */
  readonly publicGraceDays: number;
  /** When it was unlisted; null if it is listed or never was. */
  readonly unlistedAt: string | null;
  /** When the public address of an unlisted window ends or ended; null if it is listed or never was. */
  readonly publicUntil: string | null;
  readonly closedAt: string | null;
  /** When it closes by itself, or null; and whether its readers are told. */
  readonly closesAt: string | null;
  readonly farewell: boolean;
  readonly version: number;
  readonly keys: readonly WindowKey[];
  readonly draft: WindowDraft | null;
  readonly trouble: Trouble | null;
}

/** What of a window cannot be worked out just now, and what readers get meanwhile. */
export interface Trouble {
  readonly problem: AlertProblem;
  readonly shows: 'last' | 'nothing';
  readonly at: string;
}

/** Rules that are being worked on, as they are sent. */
export interface DraftInput {
  readonly body: Partial<WindowInput>;
  /** The version of the draft that was changed; 0 where there was none. */
  readonly version: number;
}

/** When a draft is to be shown by itself; null for not. */
export interface Schedule {
  readonly at: string | null;
  readonly confirmed?: readonly Demand[];
}

/** When a window is to close by itself. */
export interface ClosingInput {
  /** An instant (ISO 8601 with a zone); null to stay open. */
  readonly at: string | null;
  /** Whether readers are told from now on. */
  readonly farewell: boolean;
  /** What was set before, so that nobody's choice is lost. */
  readonly was: string | null;
}

/** A key as it is made or changed. */
export interface KeyInput extends Pick<WindowKey, 'madeOutTo' | 'audience' | 'cap' | 'contact' | 'notes'> {
  /** The colleague whose own it is to be, as it must be for Crew and House; null, or left out, for outsiders. */
  readonly userId?: string | null;
  /** How many readers it is made out for; null, or left out, where that is not said. */
  readonly meantFor?: number | null;
  readonly matters?: boolean;
  /** From when on its addresses are no longer open (ISO 8601 with a zone); null for no end. */
  readonly expiresAt: string | null;
  /** The version that was changed; left out when the key is new. */
  readonly version?: number;
  /** Large effects that somebody has looked at and wants. */
  readonly confirmed?: readonly Demand[];
}

/** How a key's embed looks, and which sites may hold it. */
export interface EmbedInput {
  readonly look: EmbedLook;
  /** Names or addresses of sites; empty for all. */
  readonly hosts: readonly string[];
  /** The version of the key that was changed. */
  readonly version: number;
}

/** For how many days the address that a key had leads on to its new one. */
export interface KeyTurn {
  readonly graceDays: number;
}

/** What is on a link sheet: an address of a key, or with none the one that a listed window has for everybody. */
export interface SheetItem {
  readonly windowId: string;
  readonly keyId: string | null;
}

/** An item with where it leads now, and what is to be known of it before it is handed out. */
export interface CheckedItem extends SheetItem {
  readonly name: string;
  /** The place or person that the key is made out to; empty for everybody. */
  readonly madeOutTo: string;
  readonly see: string;
  readonly feed: string;
  readonly notes: readonly LinkNote[];
}

/** Keys and listed windows that are handed on together, at an address of their own. */
export interface Sheet {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  readonly items: readonly CheckedItem[];
  readonly address: string;
  /** When its address was withdrawn, or null; it can be brought back for a day. */
  readonly withdrawnAt: string | null;
  readonly by: string;
  readonly at: string;
  readonly version: number;
}

/** A link sheet as it is made or changed; with no version it is new. */
export interface SheetInput extends Pick<Sheet, 'name' | 'note'> {
  readonly items: readonly SheetItem[];
  readonly version?: number;
}

/** Items that somebody thinks of handing out. */
export interface SheetCheck {
  readonly items: readonly SheetItem[];
}

/** The rules of a window as they were published. */
export interface WindowVersion {
  readonly version: number;
  readonly body: WindowSaid;
  readonly by: string;
  readonly at: string;
}

/** One revision of what readers with a key saw. */
export interface LedgerLine {
  readonly number: number;
  readonly at: string;
  readonly by: readonly string[];
  readonly appeared: number;
  readonly vanished: number;
  readonly changed: number;
  /** Whether the window names itself otherwise from here on. */
  readonly wording: boolean;
  /** The version of the window's rules that was in force. */
  readonly windowVersion: number;
  /** What the line takes in the store. */
  readonly bytes: number;
}

/** The clearest glass of an audience; with no calendar it is the house's. */
export interface Ceiling {
  readonly calendarId: string | null;
  readonly audience: Audience;
  readonly glass: Glass;
  readonly by: string;
  readonly at: string;
}

/** Somebody's request for a higher ceiling. */
export interface CeilingRequest extends Pick<Ceiling, 'calendarId' | 'audience' | 'glass'>, RequestRecord {}

/** A ceiling as it is set; with no glass it is lifted. */
export interface CeilingInput extends Pick<Ceiling, 'calendarId' | 'audience'> {
  readonly glass: Glass | null;
  readonly confirmed?: readonly Demand[];
}

/** A ceiling that somebody asks for. */
export interface CeilingWish extends Pick<Ceiling, 'calendarId' | 'audience' | 'glass'> {
  readonly reason: string;
}

export interface CeilingReply {
  readonly grant: boolean;
  readonly confirmed?: readonly Demand[];
}

export interface AllCeilings {
  readonly ceilings: readonly Ceiling[];
  readonly requests: readonly CeilingRequest[];
}

/** A label with the number of entries that bear it, and the windows whose filters name it. */
export interface Label {
  readonly name: string;
  readonly count: number;
  /** The calendars that know it, of those of which the asker sees everything: filters over them may name it. */
  readonly calendarIds: readonly string[];
  readonly windows: readonly string[];
}

/** An entry as it is written. `version` is the one that was seen; with none it is new. */
export interface EntryInput extends Omit<Entry, 'id' | 'calendarId' | 'version' | 'uid' | 'imported'> {
  readonly version?: number;
}

/** What is to become of one entry; no `entry` deletes it. `version` is the one that was seen, 0 for a new one. */
export interface EntryChange {
  readonly id?: string;
  readonly uid?: string;
  readonly version: number;
  readonly calendarId: string;
  readonly entry?: EntryInput | null;
  /** What is remembered of the file that it comes from. */
  readonly imported?: Imported | null;
  /** The id of an entry that a new one was a part of until now. */
  readonly continues?: string;
}

export interface Changes {
  readonly changes: readonly EntryChange[];
}

/** An edit with what it is called where it can be taken back. */
export interface EditInput extends Changes {
  readonly label: string;
  /** Whether more changes follow before it is applied. */
  readonly staged?: boolean;
}

/** An uploaded image, as entries name it. */
export type StoredImage = Omit<EntryImage, 'alt'>;

/** What an edit did; it can be taken back by its id. */
export interface EditAnswer {
  readonly id: string;
  readonly label: string;
  readonly state: 'staged' | 'applied' | 'taken-back';
  /** Number of entries that it concerns. */
  readonly size: number;
  /** The entries as they are now, unless there are very many. */
  readonly entries: readonly Entry[];
}

/** A revision of a window in which an entry appeared, changed or vanished. */
export interface OutwardEffect {
  readonly windowId: string;
  readonly windowName: string;
  readonly revision: number;
  /** When the revision was made (ISO 8601). */
  readonly at: string;
}

/** One edit of an entry. */
export interface EntryHistoryLine {
  readonly editId: string;
  /** When it was made (ISO 8601). */
  readonly at: string;
  /** The name of the person who made it. */
  readonly by: string;
  /** When it was taken back (ISO 8601); null if it was not. */
  readonly takenBackAt: string | null;
  /** The entry before the edit; null if the edit wrote it. */
  readonly before: Entry | null;
  /** The entry after the edit; null if the edit deleted it. */
  readonly after: Entry | null;
  /** Revisions of windows that followed from it, up to the next edit; null if the asker may not see the calendar's windows. */
  readonly outside: readonly OutwardEffect[] | null;
}

/** The edits of an entry, newest first. Edits are kept for 60 days. */
export interface EntryHistory {
  readonly lines: readonly EntryHistoryLine[];
}

/** What changed inside, as open pages of the application are told: they fetch anew what concerns them. */
export interface ChangeNews {
  readonly calendarIds: readonly string[];
  readonly windowIds: readonly string[];
}

/** Every refusal: its code and a sentence that says what to do. */
export interface ApiProblem {
  readonly code: ProblemCode;
  readonly message: string;
  readonly details: Record<string, unknown>;
}
