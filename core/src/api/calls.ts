import type { Entry, FindIn } from '../entries';
import type { OutwardView, Watch, WindowInput } from '../glass';
import type { Revision } from '../reach';
import type {
  AllCeilings,
  Calendar,
  CalendarImpact,
  CalendarInput,
  CalendarPeople,
  CalendarPeopleInput,
  CeilingReply,
  CeilingWish,
  CeilingInput,
  ClosingInput,
  Changes,
  CheckedItem,
  Demo,
  DraftInput,
  EditAnswer,
  EntryHistory,
  EditInput,
  EmbedInput,
  EntryInput,
  House,
  HouseInput,
  KeyInput,
  KeyTurn,
  Label,
  LedgerLine,
  OutwardWindow,
  Schedule,
  Session,
  StoredImage,
  Sheet,
  SheetCheck,
  SheetInput,
  SignIn,
  WindowDraft,
  WindowVersion,
  ZoneChange,
} from './answers';
import type { DirectoryCalendar, Wish, WishInput, WishReply } from './directory';
import type { Journal } from './journal';
import type {
  Alert,
  KnowingAnswer,
  MuteInput,
  Push,
  PushInput,
  PushStateInput,
  Reach,
  ReachMail,
  ReachMailAnswer,
  WindowReach,
} from './reach';
import type {
  Acceptance,
  Account,
  FirstSteward,
  HandOutAddress,
  Invitation,
  InvitationInput,
  InvitationsInput,
  MailServerInput,
  NewPassword,
  OwnAccount,
  PassInput,
  PassTold,
  Post,
  Standings,
} from './people';
import type { InsideLanguage } from '../texts';

/**
 * Every call of the organiser's API by its method and its path below /api. Who may make it, and what it does, stands with
 * its route in the server; a route that is not named here does not compile.
 */
export interface Calls {
  'GET /demo': { answer: Demo };

  'GET /session': { answer: Session };
  'POST /session': { body: SignIn; answer: Session };
  'DELETE /session': { answer: void };

  'GET /calendars': { answer: readonly Calendar[] };
  'POST /calendars': { body: CalendarInput; answer: Calendar };
  'PUT /calendars/:id': { body: CalendarInput; answer: Calendar };
  'DELETE /calendars/:id': { query: { windows?: 'take-out' }; answer: void };
  'PUT /calendars/:id/archive': { body: { archived: boolean }; answer: Calendar };
  'POST /calendars/:id/zone': { body: ZoneChange; answer: EditAnswer };
  'GET /calendars/:id/impact': { answer: CalendarImpact };
  'POST /calendars/:id/lock-down': { answer: void };
  'DELETE /calendars/:id/lock-down': { answer: void };

  'GET /calendars/:id/people': { answer: CalendarPeople };
  'PUT /calendars/:id/people': { body: CalendarPeopleInput; answer: CalendarPeople };

  'GET /calendars/:id/entries': { query: { from?: string; to?: string }; answer: readonly Entry[] };
  'POST /calendars/:id/entries': { body: EntryInput; answer: Entry };
  'POST /calendars/:id/images': { answer: StoredImage };
  'GET /calendars/:id/images/:name': { answer: void };
  'GET /find': { query: { text: string; in: FindIn }; answer: { total: number; entries: readonly Entry[] } };
  'GET /entries/:id': { answer: Entry };
  'GET /entries/:id/history': { answer: EntryHistory };
  'PUT /entries/:id': { body: EntryInput; answer: Entry };
  'DELETE /entries/:id': { query: { version: string }; answer: void };

  'POST /edits': { body: EditInput; answer: EditAnswer };
  'POST /edits/:id/changes': { body: Changes; answer: void };
  'DELETE /edits/:id': { answer: void };
  'POST /edits/:id/apply': { answer: EditAnswer };
  'POST /edits/:id/take-back': { answer: EditAnswer };
  'POST /edits/:id/again': { answer: EditAnswer };

  /**
   * Comes in pages, ordered by id: as long as there are more, the answer has a header `Link` with the relation `next`
   * (RFC 8288). `limit` is the size of a page, `after` the id of the last window of the page before.
   */
  'GET /windows': { query: { limit?: string; after?: string }; answer: readonly OutwardWindow[] };
  'GET /windows/:id': { answer: OutwardWindow };
  'POST /windows': { body: WindowInput; answer: OutwardWindow };
  'PUT /windows/:id': { body: WindowInput; answer: OutwardWindow };
  'PUT /windows/:id/draft': { body: DraftInput; answer: WindowDraft };
  'DELETE /windows/:id/draft': { answer: void };
  'POST /windows/:id/schedule': { body: Schedule; answer: OutwardWindow };
  'GET /windows/:id/versions': { answer: readonly WindowVersion[] };
  'DELETE /windows/:id/sources/:calendarId': { answer: OutwardWindow };
  'PUT /windows/:id/closing': { body: ClosingInput; answer: OutwardWindow };
  'POST /windows/:id/close': { answer: OutwardWindow };
  'POST /windows/:id/open': { answer: OutwardWindow };
  'DELETE /windows/:id': { answer: void };

  'GET /keys/:id/revision': { answer: Revision | null };
  'POST /windows/:id/keys': { body: KeyInput; answer: OutwardWindow };
  'PUT /keys/:id': { body: KeyInput; answer: OutwardWindow };
  'PUT /keys/:id/embed': { body: EmbedInput; answer: OutwardWindow };
  'POST /keys/:id/turn': { body: KeyTurn; answer: OutwardWindow };
  'POST /keys/:id/withdraw': { answer: OutwardWindow };
  'POST /keys/:id/bring-back': { answer: OutwardWindow };
  'GET /keys/:id/ledger': { answer: readonly LedgerLine[] };
  'GET /keys/:id/ledger/:number': { answer: OutwardView };

  'GET /reach': { answer: Reach };
  /** When readers would know of a change that is made now: of some windows by their ids, with commas between, or of all. */
  'GET /reach/knowing': {
    query: { windows?: string; by: string; revision?: 'newest' };
    answer: KnowingAnswer;
  };
  'GET /windows/:id/reach': { answer: WindowReach };
  /** What organisers should hear of, the newest first. */
  'GET /keys/:id/push': { answer: Push | null };
  'PUT /keys/:id/push': { body: PushInput; answer: Push };
  'PUT /keys/:id/push/state': { body: PushStateInput; answer: Push };
  'POST /keys/:id/push/secret': { answer: Push };
  'POST /keys/:id/push/test': { answer: Push };
  'DELETE /keys/:id/push': { answer: Push | null };
  'GET /alerts': { answer: readonly Alert[] };
  'PUT /windows/:id/alerts': { body: MuteInput; answer: readonly Alert[] };
  /** Says by when the newest change of a window has to be known; null for no such moment. */
  'PUT /windows/:id/urgent': { body: { by: string | null }; answer: WindowReach };
  'POST /windows/:id/reach/mail': { body: ReachMail; answer: ReachMailAnswer };

  'GET /sheets': { answer: readonly Sheet[] };
  'POST /sheets': { body: SheetInput; answer: Sheet };
  'PUT /sheets/:id': { body: SheetInput; answer: Sheet };
  'POST /sheets/check': { body: SheetCheck; answer: readonly CheckedItem[] };
  'POST /sheets/:id/turn': { answer: Sheet };
  'POST /sheets/:id/withdraw': { answer: Sheet };
  'POST /sheets/:id/bring-back': { answer: Sheet };

  /** Server-Sent Events, each a {@link ChangeNews}. */
  'GET /changes': { answer: void };

  'GET /ceilings': { answer: AllCeilings };
  'PUT /ceilings': { body: CeilingInput; answer: AllCeilings };
  'POST /ceilings/requests': { body: CeilingWish; answer: AllCeilings };
  'POST /ceilings/requests/:id': { body: CeilingReply; answer: AllCeilings };
  'DELETE /ceilings/requests/:id': { answer: AllCeilings };

  'GET /house': { answer: House };
  'PUT /house': { body: HouseInput; answer: House };
  'GET /house/watch': { answer: Watch };
  'GET /labels': { answer: readonly Label[] };
  'DELETE /labels/:name': { answer: void };
  'GET /directory': { answer: readonly DirectoryCalendar[] };
  'PUT /directory/:id/desk': { body: { onDesk: boolean }; answer: readonly DirectoryCalendar[] };
  /** One's own wishes, and those that one may answer, newest first. */
  'GET /wishes': { answer: readonly Wish[] };
  'POST /calendars/:id/wishes': { body: WishInput; answer: readonly Wish[] };
  'POST /wishes/:id': { body: WishReply; answer: readonly Wish[] };
  'DELETE /wishes/:id': { answer: readonly Wish[] };

  'GET /people': { answer: readonly Account[] };
  'GET /standings': { answer: Standings };
  'PUT /people/:id/steward': { body: { steward: boolean }; answer: readonly Account[] };
  'POST /people/:id/password-address': { answer: HandOutAddress };
  'PUT /people/:id/rest': { body: { rested: boolean }; answer: readonly Account[] };

  'GET /invitations': { answer: readonly Invitation[] };
  'POST /invitations': { body: InvitationsInput; answer: readonly Invitation[] };
  'PUT /invitations/:id': { body: InvitationInput; answer: readonly Invitation[] };
  'POST /invitations/:id/resend': { answer: readonly Invitation[] };
  'DELETE /invitations/:id': { answer: readonly Invitation[] };

  /** What an address that works once is for. */
  'POST /passes': { body: PassInput; answer: PassTold };
  'POST /passes/invitation': { body: Acceptance; answer: Session };
  'POST /passes/first': { body: FirstSteward; answer: Session };
  'POST /passes/password': { body: NewPassword; answer: Session };
  'POST /passes/address': { body: PassInput; answer: void };
  'POST /forgotten': { body: { email: string }; answer: void };

  'GET /account': { answer: OwnAccount };
  'PUT /account': { body: { name: string; language?: InsideLanguage | null }; answer: OwnAccount };
  'PUT /account/password': { body: { password: string; next: string }; answer: OwnAccount };
  'POST /account/address': { body: { email: string; password: string }; answer: void };
  'DELETE /account/devices': { answer: void };
  'DELETE /account/devices/:id': { answer: OwnAccount };

  'GET /journal': {
    query: {
      area?: string;
      by?: string;
      /** Id of a calendar, a window, a key or a person that it concerns. */
      about?: string;
      from?: string;
      to?: string;
      /** Lines older than this one. */
      before?: string;
    };
    answer: Journal;
  };

  'GET /post': { answer: Post };
  'PUT /post/server': { body: MailServerInput; answer: Post };
  'DELETE /post/server': { answer: Post };
  'POST /post/test': { answer: Post };
  'POST /post/:id/again': { answer: Post };
}

export type CallName = keyof Calls;
export type AnswerOf<N extends CallName> = Calls[N]['answer'];
export type BodyOf<N extends CallName> = Calls[N] extends { body: infer B extends object } ? B : undefined;
export type QueryOf<N extends CallName> = Calls[N] extends { query: infer Q extends object } ? Q : undefined;

/** The names of the parts of a path that are filled in. */
export type PathPart<N extends string> = N extends `${string}/:${infer Rest}`
  ? Rest extends `${infer Part}/${infer More}`
    ? Part | PathPart<`/${More}`>
    : Rest
  : never;
