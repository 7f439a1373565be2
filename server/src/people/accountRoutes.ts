import type { OwnAccount, OwnFeed } from '@zonal/core/api';
import { addressKnownLetter, addressLetter } from '@zonal/core/post';
import { Problem } from '@zonal/core/problems';
import { isUUID } from 'class-validator';
import type { Request } from 'express';
import type { Sequelize } from 'sequelize';
import { languageOf } from '../db/accountLanguage';
import { PEOPLE_TOUCHED, type MakeChange } from '../db/changes';
import { houseName } from '../db/houseName';
import { UserRow } from '../db/models';
import { requireMailsLeft, type Outbox } from '../db/outbox';
import { route } from '../http/route';
import { log } from '../log';
import { AccountInput, AddressInput, PasswordInput, RestInput, StewardInput } from './accountInput';
import { allAccounts, checkPassword, checkPublishers, checkSteward } from './accounts';
import { credentialsChanged } from './credentials';
import { devicesOf, endSessions } from './devices';
import { PASS_MINUTES, makePass, passEnds } from './passes';
import { hashPassword, passwordFits } from './passwords';
import { proofOf, type Doorkeeper } from './session';

export interface AccountSetting {
  readonly sequelize: Sequelize;
  readonly change: MakeChange;
  readonly publicUrl: string;
  readonly outbox: Outbox;
  /** Returns whether a mail server is set up. */
  readonly mayMail: () => Promise<boolean>;
  /** Returns the feeds that are somebody's own. */
  readonly feedsOf: (userId: string) => Promise<OwnFeed[]>;
}

/** Does what follows a request after its answer, so that the time of the answer tells nothing. */
export function afterwards(work: () => Promise<unknown>): void {
  void work().catch((error: unknown) =>
    log.warn({ err: error }, 'what followed a request could not be done'),
  );
}

/** Everybody's own account, and what stewards do with those of others. */
export const accountRoutes = (door: Doorkeeper, setting: AccountSetting) => {
  const { sequelize, change, publicUrl, outbox, mayMail } = setting;
  const own = async (req: Request, user: UserRow): Promise<OwnAccount> => {
    const row = (await UserRow.findByPk(user.id))!;
    const devices = await devicesOf(sequelize, row.id, { proof: proofOf(row), sid: req.sessionID });
    const { name, email, language } = row;
    return { name, email, language, devices, feeds: await setting.feedsOf(row.id) };
  };
  const requirePassword = async (user: UserRow, password: string) => {
    if (!(await passwordFits(user.passwordHash, password))) throw new Problem('password-wrong');
  };
  /** Throws `not-found`. */
  const somebody = async (id: string) => {
    const row = isUUID(id) ? await UserRow.findByPk(id) : null;
    if (!row) throw new Problem('not-found');
    return row;
  };
  return [
    route('GET /account', {
      tag: 'Account',
      summary: 'One’s own account, and the programs that are signed in with it',
      handle: ({ req, user }) => own(req, user),
    }),
    route('PUT /account', {
      tag: 'Account',
      summary: 'Change one’s name and language',
      body: AccountInput,
      again: ({ req, user }) => own(req, user),
      handle: async ({ req, body, user }) => {
        await change(user.id, async (transaction) => {
          const { name, language } = body;
          const columns = language === undefined ? { name } : { name, language };
          await UserRow.update(columns, { where: { id: user.id }, transaction });
          return { result: undefined, touched: PEOPLE_TOUCHED };
        });
        return own(req, user);
      },
    }),
    route('PUT /account/password', {
      tag: 'Account',
      summary: 'Change one’s password; all other programs are signed out',
      body: PasswordInput,
      again: ({ req, user }) => own(req, user),
      handle: async ({ req, body, user }) => {
        await requirePassword(user, body.password);
        checkPassword(body.next, user);
        const passwordHash = await hashPassword(body.next);
        await change(user.id, async (transaction) => {
          const columns = { passwordHash, passwordAt: new Date() };
          await UserRow.update(columns, { where: { id: user.id }, transaction });
          await credentialsChanged(user, 'password', outbox, transaction);
          return { result: undefined, touched: [] };
        });
        await door.keepOn(req, { passwordHash });
        return own(req, user);
      },
    }),
    route('POST /account/address', {
      tag: 'Account',
      summary:
        'Ask for another mail address; it is changed once that address has confirmed it. The answer is the same for known ones',
      body: AddressInput,
      handle: async ({ body, user }) => {
        await requirePassword(user, body.password);
        await requireMailsLeft('address', user.id);
        const by = { authorId: user.id, ifTooMany: 'skip' } as const;
        afterwards(() =>
          change(user.id, async (transaction) => {
            const house = await houseName(transaction);
            const taken = await UserRow.findOne({ where: { email: body.email }, transaction });
            if (taken) {
              if (taken.id !== user.id) {
                const letter = addressKnownLetter({ house, language: languageOf(taken) });
                await outbox.put(body.email, 'address-known', letter, transaction, by);
              }
              return { result: undefined, touched: [] };
            }
            const pass = { kind: 'address', userId: user.id, concerns: body.email } as const;
            const href = await makePass(publicUrl, { ...pass, endsAt: passEnds('address') }, transaction);
            const words = { house, language: languageOf(user), name: user.name };
            const letter = addressLetter({ ...words, href, minutes: PASS_MINUTES.address });
            await outbox.put(body.email, 'address', letter, transaction, by);
            return { result: undefined, touched: [] };
          }),
        );
      },
    }),
    route('DELETE /account/devices', {
      tag: 'Account',
      summary: 'Sign out everywhere, here too',
      handle: async ({ req, user }) => {
        await endSessions(sequelize, user.id);
        await door.signOut(req);
      },
    }),
    route('DELETE /account/devices/:id', {
      tag: 'Account',
      summary: 'Sign one program out',
      handle: async ({ req, param, user }) => {
        if (!(await endSessions(sequelize, user.id, param('id')))) throw new Problem('not-found');
        return own(req, user);
      },
    }),
    route('PUT /people/:id/steward', {
      tag: 'People',
      summary: 'Make somebody a steward, or no steward any more; there is always one; for stewards',
      body: StewardInput,
      again: () => allAccounts(),
      handle: async ({ body, param, user }) => {
        const { id } = await somebody(param('id'));
        await change(user.id, async (transaction) => {
          const role = body.steward ? 'steward' : 'member';
          await UserRow.update({ role }, { where: { id }, transaction });
          await checkSteward(transaction);
          return { result: undefined, touched: PEOPLE_TOUCHED };
        });
        return allAccounts();
      },
    }),
    route('POST /people/:id/password-address', {
      tag: 'People',
      summary:
        'Make an address with which somebody sets a new password, for a steward to hand over; only without a mail server',
      status: 201,
      handle: async ({ param, user }) => {
        const { id } = await somebody(param('id'));
        if (await mayMail()) throw new Problem('mail-server-set');
        return change(user.id, async (transaction) => {
          const where = { id, restedAt: null };
          const [found] = await UserRow.update({ passwordAddressAt: new Date() }, { where, transaction });
          if (!found) throw new Problem('account-resting');
          const endsAt = passEnds('password');
          const pass = { kind: 'password', userId: id, concerns: '', endsAt } as const;
          const address = await makePass(publicUrl, pass, transaction);
          return { result: { address, endsAt: endsAt.toISOString() }, touched: [] };
        });
      },
    }),
    route('PUT /people/:id/rest', {
      tag: 'People',
      summary: 'Put an account to rest, so that nobody signs in with it, or take it up again; for stewards',
      body: RestInput,
      again: () => allAccounts(),
      handle: async ({ body, param, user }) => {
        const one = await somebody(param('id'));
        await change(user.id, async (transaction) => {
          if (body.rested) await checkPublishers(one, transaction);
          const restedAt = body.rested ? new Date() : null;
          const where = { id: one.id, ...(body.rested ? { restedAt: null } : {}) };
          await UserRow.update({ restedAt }, { where, transaction });
          await checkSteward(transaction);
          return { result: undefined, touched: PEOPLE_TOUCHED };
        });
        if (body.rested) await endSessions(sequelize, one.id);
        return allAccounts();
      },
    }),
  ];
};
