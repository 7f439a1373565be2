import type { DigestReading } from '@zonal/core/post';
import type { NoticeWay } from '@zonal/core/forms';
import type { PushState } from '@zonal/core/reach';
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type InitOptions,
} from 'sequelize';

/** The address of a system outside that is told of changes of what a key shows. */
export class PushRow extends Model<InferAttributes<PushRow>, InferCreationAttributes<PushRow>> {
  declare keyId: string;
  /** Sealed, as secrets may stand in it; `host` is what of it may be told. */
  declare address: string;
  declare host: string;
  /** By which requests are signed; sealed. The one before counts as well for a time. */
  declare secret: string;
  declare oldSecret: CreationOptional<string | null>;
  declare oldUntil: CreationOptional<Date | null>;
  declare state: CreationOptional<PushState>;
  /** The revision that was told last, and of which view. */
  declare viewId: CreationOptional<string | null>;
  declare told: CreationOptional<number>;
  /** Whether there may be something to tell. */
  declare due: CreationOptional<boolean>;
  /** When its job was asked for; null where there is none. */
  declare askedAt: CreationOptional<Date | null>;
  declare version: CreationOptional<number>;
  declare createdAt: CreationOptional<Date>;
  /** Who set it up or resumed it last: changes are pushed as long as that person may publish them. Null in older ones. */
  declare byId: CreationOptional<string | null>;
}

/** One request to such an address, and what came of it. */
export class PushTryRow extends Model<InferAttributes<PushTryRow>, InferCreationAttributes<PushTryRow>> {
  declare id: CreationOptional<string>;
  declare keyId: string;
  declare message: string;
  declare revision: number;
  declare at: Date;
  /** Of HTTP; null where nothing was answered. */
  declare status: number | null;
  /** Milliseconds. */
  declare took: number;
  declare trouble: string;
}

/** A mail address that a reader left on a page, to hear of changes. */
export class NoticeRow extends Model<InferAttributes<NoticeRow>, InferCreationAttributes<NoticeRow>> {
  declare id: CreationOptional<string>;
  declare windowId: string;
  /** Null where it was left on the page of a listed window. */
  declare keyId: string | null;
  /** The secret part of the address at which it was left; sealed, as the mail address is. */
  declare token: string;
  declare mail: string;
  /** Stands for the mail address, so that it is found again. */
  declare mailPrint: string;
  declare way: NoticeWay;
  declare reading: DigestReading;
  /** By whose clocks the day begins. */
  declare zone: string;
  declare leftAt: Date;
  declare confirmedAt: CreationOptional<Date | null>;
  declare viewId: CreationOptional<string | null>;
  declare told: CreationOptional<number>;
  declare toldAt: CreationOptional<Date | null>;
  declare due: CreationOptional<boolean>;
  /** It is not written to before. */
  declare nextAt: Date;
  /** Since when a process is about it. */
  declare claimedAt: CreationOptional<Date | null>;
}

const text = { type: DataTypes.TEXT, allowNull: false };
const whole = { type: DataTypes.INTEGER, allowNull: false };
const flag = { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false };

/** Initialises these models; `at` says of which table. */
export function initTellingModels(at: (table: string, timestamps?: boolean) => InitOptions): void {
  PushRow.init(
    {
      keyId: { type: DataTypes.UUID, primaryKey: true },
      address: { ...text },
      host: { ...text },
      secret: { ...text },
      oldSecret: DataTypes.TEXT,
      oldUntil: DataTypes.DATE,
      state: { ...text, defaultValue: 'on' },
      viewId: DataTypes.TEXT,
      told: { ...whole, defaultValue: 0 },
      due: { ...flag },
      askedAt: DataTypes.DATE,
      version: { ...whole, defaultValue: 1 },
      createdAt: { type: DataTypes.DATE, defaultValue: DataTypes.NOW },
      byId: DataTypes.UUID,
    },
    at('pushes', false),
  );
  PushTryRow.init(
    {
      id: { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true },
      keyId: { type: DataTypes.UUID, allowNull: false },
      message: { ...text },
      revision: { ...whole },
      at: { type: DataTypes.DATE, allowNull: false },
      status: DataTypes.INTEGER,
      took: { ...whole },
      trouble: { ...text },
    },
    at('push_tries', false),
  );
  NoticeRow.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
      windowId: { type: DataTypes.UUID, allowNull: false },
      keyId: DataTypes.UUID,
      token: { ...text },
      mail: { ...text },
      mailPrint: { ...text },
      way: { ...text },
      reading: { type: DataTypes.JSONB, allowNull: false },
      zone: { ...text },
      leftAt: { type: DataTypes.DATE, allowNull: false },
      confirmedAt: DataTypes.DATE,
      viewId: DataTypes.TEXT,
      told: { ...whole, defaultValue: 0 },
      toldAt: DataTypes.DATE,
      due: { ...flag },
      nextAt: { type: DataTypes.DATE, allowNull: false },
      claimedAt: DataTypes.DATE,
    },
    at('notices', false),
  );
}
