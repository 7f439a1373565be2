import type { RequestState, SheetItem, ToCalendar } from '@zonal/core/api';
import type { Entry, Imported, PropertyDefinition } from '@zonal/core/entries';
import type { EmbedLook } from '@zonal/core/forms';
import type {
  Audience,
  Colour,
  CutField,
  Demand,
  Glass,
  LabelHold,
  PlatePattern,
  OutwardView,
  PlateShape,
  Reader,
  SourceGlass,
  WindowRules,
  WindowInput,
  WindowSaid,
  WindowSettings,
} from '@zonal/core/glass';
import type { LetterKind, MailState } from '@zonal/core/post';
import type { HouseRole, Standing } from '@zonal/core/rights';
import {
  USUAL_KEPT_DAYS,
  type LedgerItem,
  type LedgerStep,
  type Revision,
  type Stamp,
} from '@zonal/core/reach';
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import { initTellingModels } from './tellingModels';
import { initImageModel } from './imageModel';
import type { InsideLanguage } from '@zonal/core/texts';

export class UserRow extends Model<InferAttributes<UserRow>, InferCreationAttributes<UserRow>> {
  declare id: CreationOptional<string>;
  declare name: string;
  declare email: string;
  declare passwordHash: string;
  declare role: HouseRole;
  /** Set while the account is at rest: nobody can sign in with it. */
  declare restedAt: CreationOptional<Date | null>;
  /** When the password was last changed; null where it is the first one. */
  declare passwordAt: CreationOptional<Date | null>;
  /** When a steward last got an address for a new password to hand over. */
  declare passwordAddressAt: CreationOptional<Date | null>;
  /** Null for the language of the browser. */
  declare language: CreationOptional<InsideLanguage | null>;
}

export class CalendarRow extends Model<InferAttributes<CalendarRow>, InferCreationAttributes<CalendarRow>> {
  declare id: CreationOptional<string>;
  declare name: string;
  declare description: string;
  declare zone: string;
  declare plate: string;
  declare colour: Colour;
  declare shape: CreationOptional<PlateShape>;
  declare pattern: CreationOptional<PlatePattern>;
  /** Name and spot of its home place; the spot is in degrees, north and east positive. */
  declare place: CreationOptional<string>;
  declare latitude: CreationOptional<number | null>;
  declare longitude: CreationOptional<number | null>;
  declare archivedAt: CreationOptional<Date | null>;
  /** Set while everything of it is withdrawn from outside. */
  declare lockdown: CreationOptional<{ readonly at: string; readonly userId: string } | null>;
  /** The glass through which everybody in the house sees it. */
  declare houseGlass: CreationOptional<Glass>;
  /** Whether everybody in the house may know of it. */
  declare known: CreationOptional<boolean>;
  /** Labels that hold entries back from those who look through a glass. */
  declare labelHolds: CreationOptional<readonly LabelHold[]>;
  /** Rises whenever its people change. */
  declare peopleVersion: CreationOptional<number>;
  declare version: CreationOptional<number>;
}

/** The organisation: its home zone, the country of its public holidays, and its own properties of entries. */
export class HouseRow extends Model<InferAttributes<HouseRow>, InferCreationAttributes<HouseRow>> {
  declare id: number;
  declare name: string;
  declare zone: string;
  declare country: string;
  declare region: string;
  declare properties: readonly PropertyDefinition[];
  /** Words that must not go out unnoticed. */
  declare watchWords: CreationOptional<readonly string[]>;
  /** Mail addresses and telephone numbers that are no sensitive matter. */
  declare publicContacts: CreationOptional<readonly string[]>;
  /** Domains of the house's own mail addresses; empty where that is not said. */
  declare mailDomains: CreationOptional<readonly string[]>;
  /** For how many days polls are kept one by one. */
  declare pollDays: CreationOptional<number>;
  declare version: number;
}

/** What of an entry is kept as one JSON value; the rest stands in columns of its own. */
export type EntryData = Omit<Entry, 'id' | 'calendarId' | 'version' | 'uid' | 'imported'>;

export class EntryRow extends Model<InferAttributes<EntryRow>, InferCreationAttributes<EntryRow>> {
  declare id: CreationOptional<string>;
  declare calendarId: string;
  declare uid: string;
  declare version: CreationOptional<number>;
  /** The stretch in which the entry can take place; no end for an endless rule. */
  declare firstAt: Date;
  declare lastAt: Date | null;
  declare data: EntryData;
  /** What is remembered of the file that it was last brought in from. */
  declare imported: CreationOptional<Imported | null>;
}

/** A change of one or many entries at once that its author can take back. */
export class EditRow extends Model<InferAttributes<EditRow>, InferCreationAttributes<EditRow>> {
  declare id: CreationOptional<string>;
  declare userId: string;
  declare label: string;
  declare state: 'staged' | 'applied' | 'taken-back';
  /** Set for a change of zone. */
  declare calendar: { readonly id: string; readonly before: string; readonly after: string } | null;
  declare readonly createdAt: CreationOptional<Date>;
  /** When its state changed last. */
  declare readonly updatedAt: CreationOptional<Date>;
}

/** What an edit does to one entry. */
export class EditEntryRow extends Model<
  InferAttributes<EditEntryRow>,
  InferCreationAttributes<EditEntryRow>
> {
  declare editId: string;
  declare entryId: string;
  /** The version that was seen when the edit was made; 0 for a new entry. */
  declare seen: number;
  /** The highest version that the entry ever had, so that versions go on rising when it comes back. */
  declare top: number;
  declare before: EntryState | null;
  declare after: EntryState | null;
}

/** All of an entry's columns as JSON, so that an edit can put them back. */
export interface EntryState {
  readonly calendarId: string;
  readonly uid: string;
  readonly firstAt: string;
  readonly lastAt: string | null;
  readonly data: EntryData;
  readonly imported: Imported | null;
}

export class WindowRow extends Model<InferAttributes<WindowRow>, InferCreationAttributes<WindowRow>> {
  declare id: CreationOptional<string>;
  /** Its name in public addresses, made when it is first listed and kept from then on; null if it never was. */
  declare slug: CreationOptional<string | null>;
  declare name: string;
  declare settings: WindowSettings;
  /** Key of the window's pseudonyms. */
  declare secret: string;
  /** Whether search engines may list its pages. */
  declare listed: boolean;
  /** Since when it is; null where it is not. */
  declare listedAt: CreationOptional<Date | null>;
  /** When it was unlisted, and until when its public address goes on; null if it is listed or never was. */
  declare unlistedAt: CreationOptional<Date | null>;
  declare publicUntil: CreationOptional<Date | null>;
  /**
   * Labels in the filter that were not known when it was published, or were forgotten since, as goneFrom writes them.
   * They stay lost until the window is published anew: no entry, however hidden, mends a filter.
   */
  declare lostLabels: CreationOptional<readonly string[]>;
  declare closedAt: Date | null;
  /** When it closes by itself, and since when readers are told; null for not. */
  declare closesAt: CreationOptional<Date | null>;
  declare farewellAt: CreationOptional<Date | null>;
  /** When it was deleted: nobody inside sees it any more, and its addresses answer 410. */
  declare deletedAt: CreationOptional<Date | null>;
  declare version: CreationOptional<number>;
  declare readonly createdAt: CreationOptional<Date>;
}

export class WindowSourceRow extends Model<
  InferAttributes<WindowSourceRow>,
  InferCreationAttributes<WindowSourceRow>
> {
  declare windowId: string;
  declare calendarId: string;
  declare glass: SourceGlass;
  declare fields: CreationOptional<readonly CutField[]>;
  /** The calendar's name as outsiders may read it. */
  declare toldAs: CreationOptional<string>;
  declare position: number;
}

export class KeyRow extends Model<InferAttributes<KeyRow>, InferCreationAttributes<KeyRow>> {
  declare id: CreationOptional<string>;
  declare windowId: string;
  /** The secret part of its addresses: 160 random bits, sealed. */
  declare token: string;
  declare madeOutTo: string;
  declare audience: Audience;
  declare cap: Glass | null;
  /** The colleague whose own it is: then its cap follows what they may see inside; null for outsiders. */
  declare userId: CreationOptional<string | null>;
  /** From when on its addresses are no longer open; null for no end. */
  declare expiresAt: CreationOptional<Date | null>;
  /** Whom to tell of it, and notes for colleagues. */
  declare contact: CreationOptional<string>;
  declare notes: CreationOptional<string>;
  declare withdrawnAt: CreationOptional<Date | null>;
  /** How its embed looks, and the origins that may hold it; none for all. */
  declare look: CreationOptional<EmbedLook>;
  declare hosts: CreationOptional<readonly string[]>;
  /** How many readers it is made out for; null where that is not said. */
  declare meantFor: CreationOptional<number | null>;
  /** Whether it matters that its readers know: then it is told where one of them goes silent. */
  declare matters: CreationOptional<boolean>;
  declare version: CreationOptional<number>;
  declare readonly createdAt: CreationOptional<Date>;
}

/** The secret part of addresses that a key had before, sealed, and until when they lead on. */
export class TurnedTokenRow extends Model<
  InferAttributes<TurnedTokenRow>,
  InferCreationAttributes<TurnedTokenRow>
> {
  declare token: string;
  declare keyId: string;
  declare turnedAt: Date;
  declare endsAt: Date;
}

/** The newest revision of one outward view: what one audience sees of one window through one cap. */
export class ViewRow extends Model<InferAttributes<ViewRow>, InferCreationAttributes<ViewRow>> {
  /** `window|audience|cap`. */
  declare id: string;
  declare windowId: string;
  /** Its newest revision; the stamps of its items stand with them, and what has left by itself. */
  declare revision: Omit<Revision, 'stamps' | 'gone'>;
  /** The change that it takes into account, and the day of the host zone up to which it is worked out. */
  declare changeId: number;
  declare day: number;
  /** The program that worked it out, or last found that it does so too. */
  declare madeBy: CreationOptional<string>;
  /** What stands beside the items in this revision. */
  declare head: ViewHead;
  /** Whether an address leads to it. A closed view is not compiled, so the change log need not be kept for it. */
  declare open: CreationOptional<boolean>;
}

/** All of an outward view but its items. */
export type ViewHead = Omit<OutwardView, 'items'>;

/** One item of a view's newest revision, with its stamp: a compiled view outlasts a restart. */
export class ViewItemRow extends Model<InferAttributes<ViewItemRow>, InferCreationAttributes<ViewItemRow>> {
  declare viewId: string;
  declare uid: string;
  declare stamp: Stamp;
  declare item: LedgerItem;
}

/** An item that has left a view, for as long as that is told. */
export class ViewGoneRow extends Model<InferAttributes<ViewGoneRow>, InferCreationAttributes<ViewGoneRow>> {
  declare viewId: string;
  declare uid: string;
  declare sequence: number;
  declare at: Date;
}

/** The log by which every server process learns what to compile anew. */
export class ChangeRow extends Model<InferAttributes<ChangeRow>, InferCreationAttributes<ChangeRow>> {
  declare id: CreationOptional<number>;
  /** Calendars whose entries it changed, or which it changed themselves. */
  declare calendarIds: string[];
  /** What it did to entries. */
  declare edit: EditTarget | null;
  /** Calendars that are gone. */
  declare dropped: string[];
  /** The windows whose rules it changed, as they were after it. */
  declare windows: WindowState[];
  /** By whose change; null where nobody did it. */
  declare userId: string | null;
  /** When the store took it, by its own clock. */
  declare readonly createdAt: CreationOptional<Date>;
}

/** An edit, and the state of its entries that a change brought about. */
export interface EditTarget {
  readonly id: string;
  readonly target: 'before' | 'after';
}

/** What decides what a window shows, at the time of a change. The secret of its pseudonyms is not kept with it. */
export interface WindowState {
  readonly id: string;
  readonly rules: Omit<WindowRules, 'secret'>;
  readonly listed: boolean;
  readonly closed: boolean;
  /** When it was closed; absent in states that were stored before that was told. */
  readonly closedAt?: string | null;
  readonly version: number;
  /** Who could read it then, by any address; absent in states that were stored before this was. */
  readonly readers?: readonly OpenReader[];
}

/** A reader whom at least one address leads to a window, until an ISO 8601 instant or, if that is null, without end. */
export interface OpenReader extends Reader {
  readonly until: string | null;
}

/** Rules of a window that are not shown outside yet, as they were typed. */
export class DraftRow extends Model<InferAttributes<DraftRow>, InferCreationAttributes<DraftRow>> {
  declare windowId: string;
  declare body: Partial<WindowInput>;
  declare version: CreationOptional<number>;
  declare userId: string;
  /** When it is to be shown by itself. */
  declare publishAt: CreationOptional<Date | null>;
  /** Who scheduled it: it is published by what that person may do then. Null in drafts that were scheduled before this was. */
  declare scheduledBy: CreationOptional<string | null>;
  /** Large effects that were confirmed when it was scheduled. */
  declare confirmed: CreationOptional<readonly Demand[]>;
  /** Why a scheduled draft was not shown, or empty. */
  declare stopped: CreationOptional<string>;
  declare readonly updatedAt: CreationOptional<Date>;
}

/** The rules of a window as they were published, one row a version. */
export class VersionRow extends Model<InferAttributes<VersionRow>, InferCreationAttributes<VersionRow>> {
  declare windowId: string;
  declare version: number;
  declare body: Partial<WindowSaid>;
  declare userId: string | null;
  declare readonly createdAt: CreationOptional<Date>;
}

/** The clearest glass that an audience may get; with no calendar it is the house's. */
export class CeilingRow extends Model<InferAttributes<CeilingRow>, InferCreationAttributes<CeilingRow>> {
  declare id: CreationOptional<string>;
  declare calendarId: string | null;
  declare audience: Audience;
  declare glass: Glass;
  declare userId: string | null;
  declare readonly updatedAt: CreationOptional<Date>;
}

/** Somebody's request for a higher ceiling. */
export class CeilingRequestRow extends Model<
  InferAttributes<CeilingRequestRow>,
  InferCreationAttributes<CeilingRequestRow>
> {
  declare id: CreationOptional<string>;
  declare calendarId: string | null;
  declare audience: Audience;
  declare glass: Glass;
  declare reason: string;
  declare userId: string;
  declare state: CreationOptional<RequestState>;
  declare answeredBy: CreationOptional<string | null>;
  declare answeredAt: CreationOptional<Date | null>;
  declare readonly createdAt: CreationOptional<Date>;
}

/** One revision in the ledger of a view: what it changed, when, and by whose change. */
export class LedgerRow extends Model<InferAttributes<LedgerRow>, InferCreationAttributes<LedgerRow>> {
  declare viewId: string;
  declare number: number;
  declare at: Date;
  declare step: LedgerStep;
  declare appeared: number;
  declare vanished: number;
  declare altered: number;
  declare userIds: string[];
  declare windowVersion: number;
}

/** When a key was last used, and which revision was fetched with it. */
export class KeyUseRow extends Model<InferAttributes<KeyUseRow>, InferCreationAttributes<KeyUseRow>> {
  declare keyId: string;
  declare at: Date;
  declare revision: number;
  declare count: number;
}

/** A link sheet: addresses that are handed on together, at an address of its own. */
export class SheetRow extends Model<InferAttributes<SheetRow>, InferCreationAttributes<SheetRow>> {
  declare id: CreationOptional<string>;
  /** Sealed. */
  declare token: string;
  /** What the address is found by: see printOf. */
  declare tokenPrint: string;
  declare name: string;
  declare note: string;
  declare items: readonly SheetItem[];
  declare withdrawnAt: CreationOptional<Date | null>;
  declare userId: string | null;
  declare version: CreationOptional<number>;
  declare readonly createdAt: CreationOptional<Date>;
  declare readonly updatedAt: CreationOptional<Date>;
}

/** What somebody was made to a calendar. */
export class StandingRow extends Model<InferAttributes<StandingRow>, InferCreationAttributes<StandingRow>> {
  declare calendarId: string;
  declare userId: string;
  declare standing: Standing;
  /** Of a reader; null for those who see everything. */
  declare glass: Glass | null;
  declare byId: string | null;
  declare since: Date;
}

/** What an address leads to that works once. */
export const PASS_KINDS = ['first', 'invitation', 'password', 'address'] as const;
export type PassKind = (typeof PASS_KINDS)[number];

/** A calendar that somebody took off their desk. */
export class OffDeskRow extends Model<InferAttributes<OffDeskRow>, InferCreationAttributes<OffDeskRow>> {
  declare userId: string;
  declare calendarId: string;
}

/** Somebody's wish to be something to a calendar. */
export class WishRow extends Model<InferAttributes<WishRow>, InferCreationAttributes<WishRow>> {
  declare id: CreationOptional<string>;
  declare calendarId: string;
  declare userId: string;
  declare standing: Standing;
  /** Of a reader; null for those who see everything. */
  declare glass: Glass | null;
  declare reason: string;
  declare state: RequestState;
  declare answeredBy: CreationOptional<string | null>;
  declare answeredAt: CreationOptional<Date | null>;
  declare readonly createdAt: CreationOptional<Date>;
}

/** An address that works once: only what whoever has it can work out is kept of it. */
export class PassRow extends Model<InferAttributes<PassRow>, InferCreationAttributes<PassRow>> {
  declare print: string;
  declare kind: PassKind;
  declare userId: string | null;
  /** What it is for besides: an invitation's id, a new address. */
  declare concerns: string;
  declare endsAt: Date;
  declare usedAt: CreationOptional<Date | null>;
}

/** Somebody who was asked into the house. */
export class InvitationRow extends Model<
  InferAttributes<InvitationRow>,
  InferCreationAttributes<InvitationRow>
> {
  declare id: CreationOptional<string>;
  declare email: string;
  declare role: HouseRole;
  declare standings: readonly ToCalendar[];
  declare byId: string | null;
  declare sentAt: Date;
  declare endsAt: Date;
  declare acceptedAt: CreationOptional<Date | null>;
  declare withdrawnAt: CreationOptional<Date | null>;
  declare version: CreationOptional<number>;
}

/** A mail that is to go out, or went. */
export class MailRow extends Model<InferAttributes<MailRow>, InferCreationAttributes<MailRow>> {
  declare id: CreationOptional<string>;
  declare kind: LetterKind;
  declare recipient: string;
  declare subject: string;
  /** Stands for the recipient's address, so that mails to it are counted though it may be sealed. */
  declare recipientPrint: CreationOptional<string>;
  /** The account that caused it; null if nobody's did. */
  declare authorId: CreationOptional<string | null>;
  /** Sealed; null once it was sent. */
  declare content: string | null;
  declare state: MailState;
  declare tries: CreationOptional<number>;
  /** Why it was not sent, or empty. */
  declare trouble: CreationOptional<string>;
  declare sentAt: CreationOptional<Date | null>;
  declare readonly createdAt: CreationOptional<Date>;
  declare readonly updatedAt: CreationOptional<Date>;
}

/** The mail server that the house sends from. */
export class MailSettingsRow extends Model<
  InferAttributes<MailSettingsRow>,
  InferCreationAttributes<MailSettingsRow>
> {
  declare id: number;
  declare host: string;
  declare port: number;
  /** Whether the connection is encrypted from its beginning. */
  declare secure: boolean;
  declare account: string;
  /** Sealed; empty for none. */
  declare secret: string;
  declare sender: string;
  declare version: number;
}

// Made anew for each column: Sequelize writes into them.
const uuid = () => ({ type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 });
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const version = () => ({ type: DataTypes.INTEGER, allowNull: false, defaultValue: 1 });

/** Initialises all models on a connection. The tables are made by the migrations. */
export function initModels(sequelize: Sequelize): void {
  const at = (tableName: string, timestamps = true) => ({
    sequelize,
    tableName,
    underscored: true,
    timestamps,
  });
  initTellingModels(at);
  initImageModel(at);
  UserRow.init(
    {
      id: uuid(),
      name: text(),
      email: text(),
      passwordHash: text(),
      role: text(),
      restedAt: { type: DataTypes.DATE, allowNull: true },
      passwordAt: { type: DataTypes.DATE, allowNull: true },
      passwordAddressAt: { type: DataTypes.DATE, allowNull: true },
      language: { type: DataTypes.TEXT, allowNull: true },
    },
    at('users'),
  );
  CalendarRow.init(
    {
      id: uuid(),
      name: text(),
      description: text(),
      zone: text(),
      plate: text(),
      colour: text(),
      shape: { ...text(), defaultValue: 'square' },
      pattern: { ...text(), defaultValue: 'solid' },
      place: { ...text(), defaultValue: '' },
      latitude: { type: DataTypes.DOUBLE, allowNull: true },
      longitude: { type: DataTypes.DOUBLE, allowNull: true },
      archivedAt: { type: DataTypes.DATE, allowNull: true },
      lockdown: { type: DataTypes.JSONB, allowNull: true },
      houseGlass: { ...text(), defaultValue: 'shut' },
      known: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
      labelHolds: { type: DataTypes.JSONB, allowNull: false, defaultValue: [] },
      peopleVersion: version(),
      version: version(),
    },
    at('calendars'),
  );
  EntryRow.init(
    {
      id: uuid(),
      calendarId: { type: DataTypes.UUID, allowNull: false },
      uid: text(),
      version: version(),
      firstAt: { type: DataTypes.DATE, allowNull: false },
      lastAt: { type: DataTypes.DATE, allowNull: true },
      data: { type: DataTypes.JSONB, allowNull: false },
      imported: { type: DataTypes.JSONB, allowNull: true },
    },
    at('entries'),
  );
  HouseRow.init(
    {
      id: { type: DataTypes.INTEGER, primaryKey: true },
      name: text(),
      zone: text(),
      country: text(),
      region: text(),
      properties: { type: DataTypes.JSONB, allowNull: false },
      watchWords: { type: DataTypes.JSONB, allowNull: false, defaultValue: [] },
      publicContacts: { type: DataTypes.JSONB, allowNull: false, defaultValue: [] },
      mailDomains: { type: DataTypes.JSONB, allowNull: false, defaultValue: [] },
      pollDays: { type: DataTypes.INTEGER, allowNull: false, defaultValue: USUAL_KEPT_DAYS },
      version: version(),
    },
    at('house'),
  );
  EditRow.init(
    {
      id: uuid(),
      userId: { type: DataTypes.UUID, allowNull: false },
      label: text(),
      state: text(),
      calendar: { type: DataTypes.JSONB, allowNull: true },
      createdAt: DataTypes.DATE,
      updatedAt: DataTypes.DATE,
    },
    at('edits'),
  );
  EditEntryRow.init(
    {
      editId: { type: DataTypes.UUID, primaryKey: true },
      entryId: { type: DataTypes.UUID, primaryKey: true },
      seen: { type: DataTypes.INTEGER, allowNull: false },
      top: { type: DataTypes.INTEGER, allowNull: false },
      before: { type: DataTypes.JSONB, allowNull: true },
      after: { type: DataTypes.JSONB, allowNull: true },
    },
    at('edit_entries', false),
  );
  WindowRow.init(
    {
      id: uuid(),
      slug: { type: DataTypes.TEXT, allowNull: true },
      name: text(),
      settings: { type: DataTypes.JSONB, allowNull: false },
      secret: text(),
      listed: { type: DataTypes.BOOLEAN, allowNull: false },
      listedAt: { type: DataTypes.DATE, allowNull: true },
      unlistedAt: { type: DataTypes.DATE, allowNull: true },
      publicUntil: { type: DataTypes.DATE, allowNull: true },
      lostLabels: { type: DataTypes.JSONB, allowNull: false, defaultValue: [] },
      closedAt: { type: DataTypes.DATE, allowNull: true },
      closesAt: { type: DataTypes.DATE, allowNull: true },
      farewellAt: { type: DataTypes.DATE, allowNull: true },
      deletedAt: { type: DataTypes.DATE, allowNull: true },
      version: version(),
      createdAt: DataTypes.DATE,
    },
    // Nobody finds deleted windows, but for the compiler, whose addresses answer 410: it asks without this scope.
    { ...at('windows'), defaultScope: { where: { deletedAt: null } } },
  );
  WindowSourceRow.init(
    {
      windowId: { type: DataTypes.UUID, primaryKey: true },
      calendarId: { type: DataTypes.UUID, primaryKey: true },
      glass: text(),
      fields: { type: DataTypes.JSONB, allowNull: false, defaultValue: [] },
      toldAs: { ...text(), defaultValue: '' },
      position: { type: DataTypes.INTEGER, allowNull: false },
    },
    at('window_sources', false),
  );
  KeyRow.init(
    {
      id: uuid(),
      windowId: { type: DataTypes.UUID, allowNull: false },
      token: text(),
      madeOutTo: text(),
      audience: text(),
      cap: { type: DataTypes.TEXT, allowNull: true },
      userId: { type: DataTypes.UUID, allowNull: true },
      expiresAt: { type: DataTypes.DATE, allowNull: true },
      contact: { ...text(), defaultValue: '' },
      notes: { ...text(), defaultValue: '' },
      withdrawnAt: { type: DataTypes.DATE, allowNull: true },
      meantFor: { type: DataTypes.INTEGER, allowNull: true },
      matters: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
      look: { type: DataTypes.JSONB, allowNull: false, defaultValue: {} },
      hosts: { type: DataTypes.JSONB, allowNull: false, defaultValue: [] },
      version: version(),
      createdAt: DataTypes.DATE,
    },
    at('keys'),
  );
  TurnedTokenRow.init(
    {
      token: { type: DataTypes.TEXT, primaryKey: true },
      keyId: { type: DataTypes.UUID, allowNull: false },
      turnedAt: { type: DataTypes.DATE, allowNull: false },
      endsAt: { type: DataTypes.DATE, allowNull: false },
    },
    at('turned_tokens', false),
  );
  ViewRow.init(
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      windowId: { type: DataTypes.UUID, allowNull: false },
      revision: { type: DataTypes.JSONB, allowNull: false },
      changeId: {
        type: DataTypes.BIGINT,
        allowNull: false,
        get() {
          return this.getDataValue('changeId') === undefined
            ? undefined
            : Number(this.getDataValue('changeId'));
        },
      },
      day: { type: DataTypes.INTEGER, allowNull: false },
      madeBy: { ...text(), defaultValue: '' },
      head: { type: DataTypes.JSONB, allowNull: false },
      open: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: true },
    },
    at('views'),
  );
  ViewItemRow.init(
    {
      viewId: { type: DataTypes.TEXT, primaryKey: true },
      uid: { type: DataTypes.TEXT, primaryKey: true },
      stamp: { type: DataTypes.JSONB, allowNull: false },
      item: { type: DataTypes.JSONB, allowNull: false },
    },
    at('view_items', false),
  );
  ViewGoneRow.init(
    {
      viewId: { type: DataTypes.TEXT, primaryKey: true },
      uid: { type: DataTypes.TEXT, primaryKey: true },
      sequence: { type: DataTypes.INTEGER, allowNull: false },
      at: { type: DataTypes.DATE, allowNull: false },
    },
    at('view_gone', false),
  );
  ChangeRow.init(
    {
      id: {
        type: DataTypes.BIGINT,
        primaryKey: true,
        autoIncrement: true,
        get() {
          return Number(this.getDataValue('id'));
        },
      },
      calendarIds: { type: DataTypes.JSONB, allowNull: false },
      edit: { type: DataTypes.JSONB, allowNull: true },
      dropped: { type: DataTypes.JSONB, allowNull: false },
      windows: { type: DataTypes.JSONB, allowNull: false },
      userId: { type: DataTypes.UUID, allowNull: true },
      createdAt: DataTypes.DATE,
    },
    { ...at('changes'), updatedAt: false },
  );
  const json = () => ({ type: DataTypes.JSONB, allowNull: false });
  const some = (type: DataTypes.DataType) => ({ type, allowNull: true });
  const owner = () => ({ type: DataTypes.UUID, primaryKey: true });
  DraftRow.init(
    {
      windowId: owner(),
      body: json(),
      version: version(),
      userId: { type: DataTypes.UUID, allowNull: false },
      publishAt: some(DataTypes.DATE),
      scheduledBy: some(DataTypes.UUID),
      confirmed: { ...json(), defaultValue: [] },
      stopped: { ...text(), defaultValue: '' },
      updatedAt: DataTypes.DATE,
    },
    at('window_drafts'),
  );
  VersionRow.init(
    {
      windowId: owner(),
      version: { type: DataTypes.INTEGER, primaryKey: true },
      body: json(),
      userId: some(DataTypes.UUID),
      createdAt: DataTypes.DATE,
    },
    { ...at('window_versions'), updatedAt: false },
  );
  CeilingRow.init(
    {
      id: uuid(),
      calendarId: some(DataTypes.UUID),
      audience: text(),
      glass: text(),
      userId: some(DataTypes.UUID),
      updatedAt: DataTypes.DATE,
    },
    at('ceilings'),
  );
  CeilingRequestRow.init(
    {
      id: uuid(),
      calendarId: some(DataTypes.UUID),
      audience: text(),
      glass: text(),
      reason: text(),
      userId: { type: DataTypes.UUID, allowNull: false },
      state: { ...text(), defaultValue: 'open' },
      answeredBy: some(DataTypes.UUID),
      answeredAt: some(DataTypes.DATE),
      createdAt: DataTypes.DATE,
    },
    at('ceiling_requests'),
  );
  const count = () => ({ type: DataTypes.INTEGER, allowNull: false });
  LedgerRow.init(
    {
      viewId: { type: DataTypes.TEXT, primaryKey: true },
      number: { type: DataTypes.INTEGER, primaryKey: true },
      at: { type: DataTypes.DATE, allowNull: false },
      step: json(),
      appeared: count(),
      vanished: count(),
      altered: count(),
      userIds: json(),
      windowVersion: count(),
    },
    at('ledger', false),
  );
  KeyUseRow.init(
    {
      keyId: owner(),
      at: { type: DataTypes.DATE, allowNull: false },
      revision: count(),
      count: {
        type: DataTypes.BIGINT,
        allowNull: false,
        get() {
          return Number(this.getDataValue('count'));
        },
      },
    },
    at('key_uses', false),
  );
  StandingRow.init(
    {
      calendarId: owner(),
      userId: owner(),
      standing: text(),
      glass: some(DataTypes.TEXT),
      byId: some(DataTypes.UUID),
      since: { type: DataTypes.DATE, allowNull: false },
    },
    at('standings', false),
  );
  SheetRow.init(
    {
      id: uuid(),
      token: text(),
      tokenPrint: text(),
      name: text(),
      note: text(),
      items: json(),
      withdrawnAt: some(DataTypes.DATE),
      userId: some(DataTypes.UUID),
      version: version(),
      createdAt: DataTypes.DATE,
      updatedAt: DataTypes.DATE,
    },
    at('link_sheets'),
  );
  OffDeskRow.init({ userId: owner(), calendarId: owner() }, at('off_desk', false));
  WishRow.init(
    {
      id: uuid(),
      calendarId: { type: DataTypes.UUID, allowNull: false },
      userId: { type: DataTypes.UUID, allowNull: false },
      standing: text(),
      glass: some(DataTypes.TEXT),
      reason: text(),
      state: text(),
      answeredBy: some(DataTypes.UUID),
      answeredAt: some(DataTypes.DATE),
      createdAt: DataTypes.DATE,
    },
    { ...at('wishes'), updatedAt: false },
  );
  PassRow.init(
    {
      print: { type: DataTypes.TEXT, primaryKey: true },
      kind: text(),
      userId: some(DataTypes.UUID),
      concerns: json(),
      endsAt: { type: DataTypes.DATE, allowNull: false },
      usedAt: some(DataTypes.DATE),
    },
    at('passes', false),
  );
  InvitationRow.init(
    {
      id: uuid(),
      email: text(),
      role: text(),
      standings: json(),
      byId: some(DataTypes.UUID),
      sentAt: { type: DataTypes.DATE, allowNull: false },
      endsAt: { type: DataTypes.DATE, allowNull: false },
      acceptedAt: some(DataTypes.DATE),
      withdrawnAt: some(DataTypes.DATE),
      version: version(),
    },
    at('invitations'),
  );
  MailRow.init(
    {
      id: uuid(),
      kind: text(),
      recipient: text(),
      recipientPrint: { ...text(), defaultValue: '' },
      authorId: some(DataTypes.UUID),
      subject: text(),
      content: some(DataTypes.TEXT),
      state: text(),
      tries: { ...count(), defaultValue: 0 },
      trouble: { ...text(), defaultValue: '' },
      sentAt: some(DataTypes.DATE),
      createdAt: DataTypes.DATE,
      updatedAt: DataTypes.DATE,
    },
    at('mails'),
  );
  MailSettingsRow.init(
    {
      id: { type: DataTypes.INTEGER, primaryKey: true },
      host: text(),
      port: count(),
      secure: { type: DataTypes.BOOLEAN, allowNull: false },
      account: text(),
      secret: text(),
      sender: text(),
      version: version(),
    },
    at('mail_settings', false),
  );
}
