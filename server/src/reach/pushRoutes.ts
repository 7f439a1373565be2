import type { Push, PushInput as PushSaid, PushStateInput as StateSaid } from '@zonal/core/api';
import { Problem } from '@zonal/core/problems';
import { IsBoolean, IsInt, IsString, MaxLength, Min } from 'class-validator';
import type { Transaction } from 'sequelize';
import type { MakeChange } from '../db/changes';
import { seal, unsealed } from '../db/sealed';
import { PushRow } from '../db/tellingModels';
import { keyOf } from '../glass/windowStore';
import { route } from '../http/route';
import type { ShownAt } from '../outside/publisher';
import { pushAddress } from './pushing';
import { newSecret, pushTold, tellPush, turnedSecret, type PushSetting } from './pushStore';

export class PushInput implements PushSaid {
  /** Where changes are told: an address that begins with https:// and leads into no private network. */
  @IsString() @MaxLength(1000) address!: string;
  @IsInt() @Min(0) version!: number;
}

export class PushStateInput implements StateSaid {
  @IsBoolean() paused!: boolean;
}

type KeyCall = { readonly param: (name: 'id') => string };

/** Systems outside that are told of changes of what a key shows, by signed requests (Standard Webhooks). */
export const pushRoutes = (
  change: MakeChange,
  shownAt: (token: string) => Promise<ShownAt | null>,
  setting: PushSetting,
) => {
  const told = async (keyId: string, secret: string | null = null): Promise<Push> => {
    const push = await pushTold(keyId, secret);
    if (!push) throw new Problem('push-missing');
    return push;
  };
  const again = ({ param }: KeyCall) => told(param('id'));
  const rowOf = async (id: string): Promise<PushRow> => {
    const row = await PushRow.findByPk((await keyOf(id)).id);
    if (!row) throw new Problem('push-missing');
    return row;
  };
  const quietly = (userId: string, work: (transaction: Transaction) => Promise<unknown>) =>
    change(userId, async (transaction) => {
      await work(transaction);
      return { result: undefined, touched: [] };
    });

  return [
    route('GET /keys/:id/push', {
      tag: 'Push',
      summary: 'How changes of what a key shows are pushed to a system outside; null where they are not',
      handle: async ({ param }) => pushTold((await keyOf(param('id'))).id),
    }),
    route('PUT /keys/:id/push', {
      tag: 'Push',
      summary:
        'Have changes pushed to an address; a new one gets a secret, which is told once; 409 when somebody else changed it first',
      body: PushInput,
      again,
      handle: async ({ body, param, user }) => {
        const key = await keyOf(param('id'));
        const address = await pushAddress(body.address, setting.allowed);
        const { host } = new URL(address);
        // What there is now is known to whoever sets this up: only what changes from now on is told.
        const shown = await shownAt(unsealed(key.token));
        const secret = newSecret();
        let made = false;
        await quietly(user.id, async (transaction) => {
          const old = await PushRow.findByPk(key.id, { transaction, lock: true });
          if ((old?.version ?? 0) !== body.version)
            throw new Problem('version-conflict', { current: await pushTold(key.id), yours: body });
          const columns = {
            address: seal(address),
            host,
            state: 'on' as const,
            askedAt: null,
            due: true,
            byId: user.id,
          };
          if (old) return old.update({ ...columns, version: old.version + 1 }, { transaction });
          made = true;
          return PushRow.create(
            {
              ...columns,
              keyId: key.id,
              secret: seal(secret),
              viewId: shown?.viewId ?? null,
              told: shown?.number ?? 0,
            },
            { transaction },
          );
        });
        return told(key.id, made ? secret : null);
      },
    }),
    route('PUT /keys/:id/push/state', {
      tag: 'Push',
      summary: 'Pause the pushes of a key, or let them go on',
      body: PushStateInput,
      again,
      handle: async ({ body, param, user }) => {
        const { keyId } = await rowOf(param('id'));
        const columns = body.paused
          ? { state: 'paused' as const }
          : { state: 'on' as const, due: true, askedAt: null, byId: user.id };
        await quietly(user.id, (transaction) => PushRow.update(columns, { where: { keyId }, transaction }));
        return told(keyId);
      },
    }),
    route('POST /keys/:id/push/secret', {
      tag: 'Push',
      summary:
        'Give the pushes of a key a new secret, which is told once; the old one counts for a day as well',
      again,
      handle: async ({ param, user }) => {
        const { keyId } = await rowOf(param('id'));
        const secret = newSecret();
        await quietly(user.id, async (transaction) => {
          const row = await PushRow.findByPk(keyId, { transaction, lock: true });
          await row?.update(turnedSecret(row, secret), { transaction });
        });
        return told(keyId, secret);
      },
    }),
    route('POST /keys/:id/push/test', {
      tag: 'Push',
      summary: 'Send a test to the system that is told of changes, and see what it answers',
      again,
      handle: async ({ param }) => {
        const row = await rowOf(param('id'));
        await tellPush(row, 'calendar.test', setting);
        return told(row.keyId);
      },
    }),
    route('DELETE /keys/:id/push', {
      tag: 'Push',
      summary: 'Push changes of a key no more; its secret and its tries are forgotten',
      again: ({ param }) => pushTold(param('id')),
      handle: async ({ param, user }) => {
        const { keyId } = await rowOf(param('id'));
        await quietly(user.id, (transaction) => PushRow.destroy({ where: { keyId }, transaction }));
        return pushTold(keyId);
      },
    }),
  ];
};
