import type { KeyInput as KeySaid, OutwardWindow } from '@zonal/core/api';
import {
  AUDIENCES,
  DEMANDS,
  GLASSES,
  KEY_LIMITS,
  OUTSIDERS,
  canComeBack,
  keyState,
  rehearsedWindow,
  type Audience,
  type Demand,
  type Glass,
} from '@zonal/core/glass';
import { MOST_HOSTS, hostNamed, unfitInLook, type EmbedLook } from '@zonal/core/forms';
import { Problem } from '@zonal/core/problems';
import { DAY } from '@zonal/core/zones';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Max,
  MaxLength,
  Min,
  MinLength,
} from 'class-validator';
import type { Transaction } from 'sequelize';
import { KeyRow, TurnedTokenRow, UserRow } from '../db/models';
import { windowTold, type Publishing } from '../glass/publishWindow';
import { requireKeyConfirmed } from '../glass/requireConfirmed';
import { keyOf, newToken, viewIdOf } from '../glass/windowStore';
import { IsInstant, IsVersion } from '../http/inputs';
import { route } from '../http/route';
import { capFor } from '../people/ownKeys';
import { loadView } from './viewStore';

export class KeyInput {
  /** The place or person that it is for. */
  @IsString() @MinLength(1) @MaxLength(KEY_LIMITS.nameLetters) madeOutTo!: string;
  @IsIn(AUDIENCES) audience!: Audience;
  /** The colleague whose own it is, for Crew and House. */
  @IsOptional() @IsUUID() userId?: string | null;
  /** The clearest glass that it ever shows; null for the window's own. */
  @IsOptional() @IsIn(GLASSES) cap!: Glass | null;
  /** Whom to tell of it; it never goes out. */
  @IsString() @MaxLength(KEY_LIMITS.contactLetters) contact!: string;
  @IsString() @MaxLength(KEY_LIMITS.noteLetters) notes!: string;
  /** How many readers it is made out for; null for not said. */
  @IsOptional() @IsInt() @Min(1) @Max(KEY_LIMITS.meantFor) meantFor?: number | null;
  /** Whether it matters that its readers know. */
  @IsOptional() @IsBoolean() matters?: boolean;
  /** From when on its addresses are no longer open (ISO 8601 with a zone); null for no end. */
  @IsOptional() @IsInstant() expiresAt!: string | null;
  /** The version that was changed; left out when the key is new. */
  @IsOptional() @IsVersion() version?: number;
  /** Large effects that somebody has looked at and wants. */
  @IsOptional() @IsIn(DEMANDS, { each: true }) confirmed?: Demand[];
}

export class EmbedInput {
  /** How it looks where its code says nothing else: by name as in the query string of its address. */
  @IsObject() look!: EmbedLook;
  @IsArray() @ArrayMaxSize(MOST_HOSTS) @IsString({ each: true }) hosts!: string[];
  @IsVersion() version!: number;
}

export class KeyTurnInput {
  /** Days for which the old address leads to the new one. */
  @IsInt() @Min(0) @Max(KEY_LIMITS.graceDays) graceDays!: number;
}

function requireHost(text: string): string {
  const host = hostNamed(text);
  if (host === null) throw new Problem('host-invalid', { host: text.slice(0, 100) });
  return host;
}

/** Answers wait until the change acts outside. */
export const keyRoutes = (publishing: Publishing) => {
  const { sequelize, change } = publishing;
  const answer = (windowId: string) => windowTold(publishing, windowId);
  const answerFor = async ({ param }: { param: (name: 'id') => string }) =>
    answer((await keyOf(param('id'))).windowId);

  /** Returns the cap that a key will have. Throws `key-person`, `person-unknown` and `key-shows-nothing`. */
  const capOf = async (window: OutwardWindow, { audience, userId, cap }: KeySaid): Promise<Glass | null> => {
    const outsider = (OUTSIDERS as readonly Audience[]).includes(audience);
    if (outsider !== !userId) throw new Problem('key-person');
    if (!userId) return cap ?? null;
    const user = await UserRow.findOne({ where: { id: userId, restedAt: null } });
    if (!user) throw new Problem('person-unknown');
    const own = await capFor(user, window.id, audience);
    if (own === 'shut') throw new Problem('key-shows-nothing', { name: user.name });
    return own;
  };

  /** Throws what keeps a key from being as it is wanted: `confirm-needed` where its readers would see much more, or less. */
  const check = async (window: OutwardWindow, id: string, body: KeySaid) => {
    if (keyState(body, Date.now()) === 'ended') throw new Problem('expiry-past');
    const cap = await capOf(window, body);
    if (window.closedAt) return;
    const told = rehearsedWindow(window, window, Date.now());
    const { madeOutTo, audience } = body;
    const before = told.keys.find((k) => k.id === id) ?? null;
    if (before?.audience === audience && before.cap === cap) return;
    const after = { id, madeOutTo, audience, cap };
    await requireKeyConfirmed(told, before, after, body.confirmed ?? []);
  };
  // The cap of a colleague's own key is set by what follows from each change: see capOwnKeys.
  const columnsOf = ({
    madeOutTo,
    audience,
    userId,
    cap,
    contact,
    notes,
    meantFor,
    matters,
    expiresAt,
  }: KeySaid) => ({
    madeOutTo,
    audience,
    userId: userId ?? null,
    cap: userId ? ('shut' as const) : (cap ?? null),
    contact,
    notes,
    ...(meantFor === undefined ? {} : { meantFor }),
    ...(matters === undefined ? {} : { matters }),
    expiresAt: expiresAt ? new Date(expiresAt) : null,
  });
  const acting = (userId: string, windowId: string, work: (transaction: Transaction) => Promise<unknown>) =>
    change(userId, async (transaction) => {
      await work(transaction);
      return { result: undefined, touched: [{ windowId }] };
    });
  /** Throws `version-conflict` unless a key is as it was seen. */
  const put = async (
    key: KeyRow,
    seen: number,
    columns: object,
    yours: unknown,
    transaction: Transaction,
  ) => {
    const where = { id: key.id, version: seen };
    const [changed] = await KeyRow.update({ ...columns, version: seen + 1 }, { where, transaction });
    if (changed) return;
    const current = (await answer(key.windowId)).keys.find((k) => k.id === key.id) ?? null;
    throw new Problem('version-conflict', { current, yours });
  };

  return [
    route('GET /keys/:id/revision', {
      tag: 'Windows',
      summary: 'The revision that readers with a key see now; null before the first one',
      handle: async ({ param }) => {
        return (await loadView(sequelize, viewIdOf(await keyOf(param('id')))))?.revision ?? null;
      },
    }),
    route('POST /windows/:id/keys', {
      tag: 'Keys',
      summary: 'Make a key out to a place or person; large effects must be confirmed',
      body: KeyInput,
      status: 201,
      again: ({ param }) => answer(param('id')),
      handle: async ({ body, param, user }) => {
        const window = await answer(param('id'));
        if (window.keys.length >= KEY_LIMITS.keys)
          throw new Problem('too-many-keys', { most: KEY_LIMITS.keys });
        await check(window, '', body);
        const columns = { ...columnsOf(body), windowId: window.id, token: newToken() };
        await acting(user.id, window.id, (transaction) => KeyRow.create(columns, { transaction }));
        return answer(window.id);
      },
    }),
    route('PUT /keys/:id', {
      tag: 'Keys',
      summary:
        'Change whom a key is made out to, its zone, its cap, its end (null for none), contact and notes; 409 when somebody else changed it first',
      body: KeyInput,
      again: answerFor,
      handle: async ({ body, param, user }) => {
        const key = await keyOf(param('id'));
        await check(await answer(key.windowId), key.id, body);
        await acting(user.id, key.windowId, (transaction) =>
          put(key, body.version ?? 0, columnsOf(body), body, transaction),
        );
        return answer(key.windowId);
      },
    }),
    route('PUT /keys/:id/embed', {
      tag: 'Keys',
      summary:
        'Change how a key’s embed looks and which sites may hold it; 409 when somebody else changed it first',
      body: EmbedInput,
      again: answerFor,
      handle: async ({ body, param, user }) => {
        const key = await keyOf(param('id'));
        const unfit = unfitInLook(body.look as Record<string, unknown>);
        if (unfit.length) throw new Problem('look-invalid', { names: unfit.join(', ') });
        const hosts = [...new Set(body.hosts.map(requireHost))];
        await acting(user.id, key.windowId, (transaction) =>
          put(key, body.version, { look: body.look, hosts }, body, transaction),
        );
        return answer(key.windowId);
      },
    }),
    route('POST /keys/:id/turn', {
      tag: 'Keys',
      summary: 'Give a key a new address; the old one shows the same and says where it went, for some days',
      body: KeyTurnInput,
      again: answerFor,
      handle: async ({ body, param, user }) => {
        const key = await keyOf(param('id'));
        if (keyState(key, Date.now()) === 'ended') throw new Problem('key-ended');
        const turnedAt = new Date();
        const endsAt = new Date(turnedAt.getTime() + body.graceDays * DAY);
        await acting(user.id, key.windowId, async (transaction) => {
          await put(key, key.version, { token: newToken() }, body, transaction);
          await TurnedTokenRow.create({ token: key.token, keyId: key.id, turnedAt, endsAt }, { transaction });
        });
        return answer(key.windowId);
      },
    }),
    route('POST /keys/:id/withdraw', {
      tag: 'Keys',
      summary: 'Withdraw a key at once, with all addresses that it had; it can be brought back for a day',
      again: answerFor,
      handle: async ({ param, user }) => {
        const key = await keyOf(param('id'));
        if (!key.withdrawnAt)
          await acting(user.id, key.windowId, (transaction) =>
            put(key, key.version, { withdrawnAt: new Date() }, null, transaction),
          );
        return answer(key.windowId);
      },
    }),
    route('POST /keys/:id/bring-back', {
      tag: 'Keys',
      summary: 'Bring a key back that was withdrawn within the last day, with the addresses that it had',
      again: answerFor,
      handle: async ({ param, user }) => {
        const key = await keyOf(param('id'));
        if (key.withdrawnAt) {
          if (!canComeBack(key, Date.now())) throw new Problem('key-gone');
          await acting(user.id, key.windowId, (transaction) =>
            put(key, key.version, { withdrawnAt: null }, null, transaction),
          );
        }
        return answer(key.windowId);
      },
    }),
  ];
};
