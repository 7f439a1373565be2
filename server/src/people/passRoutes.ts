import type { PassTold } from '@zonal/core/api';
import { passwordLetter } from '@zonal/core/post';
import { Problem } from '@zonal/core/problems';
import type { Transaction } from 'sequelize';
import { requestLanguage } from '../http/requestLanguage';
import type { InsideLanguage } from '@zonal/core/texts';
import { languageOf } from '../db/accountLanguage';
import { PEOPLE_TOUCHED } from '../db/changes';
import { houseName } from '../db/houseName';
import { CalendarRow, HouseRow, InvitationRow, StandingRow, UserRow } from '../db/models';
import { route } from '../http/route';
import { Acceptance, FirstSteward, ForgottenInput, NewPassword, PassInput } from './accountInput';
import { afterwards, type AccountSetting } from './accountRoutes';
import { checkPassword } from './accounts';
import { credentialsChanged } from './credentials';
import { mayStillAct } from './deferred';
import { endOtherSessions, endSessions } from './devices';
import { standingLines } from './invitations';
import { PASS_MINUTES, makePass, passEnds, passFor, takePass, type Pass } from './passes';
import { hashPassword } from './passwords';
import type { Doorkeeper } from './session';
import { sessionAnswer, type SessionSetting } from './sessionRoutes';

/** Throws `invitation-withdrawn` if it no longer holds, and `pass-used` if it was accepted. */
async function invitationOf({ concerns }: Pass, transaction?: Transaction): Promise<InvitationRow> {
  const row = await InvitationRow.findByPk(concerns, { transaction: transaction ?? null });
  if (row?.acceptedAt) throw new Problem('pass-used');
  if (!row || row.withdrawnAt) throw new Problem('invitation-withdrawn');
  if (row.byId && !(await mayStillAct('invitation', row.byId, {}, transaction)))
    throw new Problem('invitation-withdrawn');
  return row;
}

async function told(pass: Pass, language: InsideLanguage): Promise<PassTold> {
  const house = await houseName();
  const plain = { kind: pass.kind, house, email: '', by: '', lines: [], endsAt: pass.endsAt.toISOString() };
  if (pass.kind === 'invitation') {
    const row = await invitationOf(pass);
    const by = row.byId ? ((await UserRow.findByPk(row.byId))?.name ?? '') : '';
    return { ...plain, email: row.email, by, lines: await standingLines(row.standings, language) };
  }
  if (pass.kind === 'address') return { ...plain, email: pass.concerns };
  const user = pass.userId ? await UserRow.findByPk(pass.userId) : null;
  return { ...plain, email: user?.email ?? '' };
}

/** What is reached by addresses that work once: each says itself whom it is for. */
export const passRoutes = (door: Doorkeeper, session: SessionSetting, setting: AccountSetting) => {
  const { sequelize, change, publicUrl, outbox } = setting;
  return [
    route('POST /passes', {
      tag: 'Signing in',
      summary: 'What an address that works once is for; 404, or 410 where it was used or has ended',
      body: PassInput,
      open: true,
      handle: async ({ req, body }) => told(await passFor(body.token), requestLanguage(req)),
    }),
    route('POST /passes/invitation', {
      tag: 'Signing in',
      summary: 'Accept an invitation: the account is made, and signed in',
      body: Acceptance,
      open: true,
      handle: async ({ req, res, body }) => {
        const { email } = await invitationOf(await passFor(body.token, 'invitation'));
        checkPassword(body.password, { name: body.name, email });
        const passwordHash = await hashPassword(body.password);
        const user = await change(null, async (transaction) => {
          const pass = await takePass(body.token, 'invitation', transaction);
          const invitation = await invitationOf(pass, transaction);
          if (await UserRow.count({ where: { email: invitation.email }, transaction }))
            throw new Problem('address-known', { emails: invitation.email });
          const account = { name: body.name, email: invitation.email, role: invitation.role, passwordHash };
          const row = await UserRow.create(account, { transaction });
          await invitation.update({ acceptedAt: new Date() }, { transaction });
          const ids = invitation.standings.map((s) => s.calendarId);
          const there = await CalendarRow.findAll({ where: { id: ids }, transaction });
          const rows = invitation.standings
            .filter((s) => there.some((c) => c.id === s.calendarId))
            .map((s) => ({ ...s, userId: row.id, byId: invitation.byId, since: new Date() }));
          await StandingRow.bulkCreate(rows, { transaction });
          // Whoever has the calendar's people open just now is told that they have changed.
          await CalendarRow.increment('peopleVersion', { where: { id: ids }, transaction });
          return { result: row, touched: PEOPLE_TOUCHED };
        });
        await door.signIn(req, user);
        return sessionAnswer(door, session, req, res);
      },
    }),
    route('POST /passes/first', {
      tag: 'Signing in',
      summary: 'Begin: the first steward, and the house; while there is no account at all',
      body: FirstSteward,
      open: true,
      handle: async ({ req, res, body }) => {
        const { name, email, password, house, zone, country } = body;
        checkPassword(password, { name, email });
        const passwordHash = await hashPassword(password);
        const user = await change(null, async (transaction) => {
          await takePass(body.token, 'first', transaction);
          if (await UserRow.count({ transaction })) throw new Problem('pass-used');
          await HouseRow.update(
            { name: house, zone, country, region: '' },
            { where: { id: 1 }, transaction },
          );
          const account = { name, email, role: 'steward' as const, passwordHash };
          const row = await UserRow.create(account, { transaction });
          return { result: row, touched: PEOPLE_TOUCHED };
        });
        await door.signIn(req, user);
        return sessionAnswer(door, session, req, res);
      },
    }),
    route('POST /passes/password', {
      tag: 'Signing in',
      summary:
        'Set a new password; every program that was signed in is signed out, and this one is signed in',
      body: NewPassword,
      open: true,
      handle: async ({ req, res, body }) => {
        const { userId } = await passFor(body.token, 'password');
        const row = userId ? await UserRow.findByPk(userId) : null;
        if (!row || !(await mayStillAct('one-time-link', row.id))) throw new Problem('pass-unknown');
        checkPassword(body.password, row);
        const passwordHash = await hashPassword(body.password);
        await change(row.id, async (transaction) => {
          await takePass(body.token, 'password', transaction);
          const columns = { passwordHash, passwordAt: new Date() };
          await UserRow.update(columns, { where: { id: row.id }, transaction });
          await credentialsChanged(row, 'password', outbox, transaction);
          return { result: undefined, touched: [] };
        });
        await endSessions(sequelize, row.id);
        await door.signIn(req, (await UserRow.findByPk(row.id))!);
        return sessionAnswer(door, session, req, res);
      },
    }),
    route('POST /passes/address', {
      tag: 'Signing in',
      summary: 'Confirm that a mail address is one’s own; one signs in with it from then on',
      body: PassInput,
      open: true,
      handle: async ({ req, body }) => {
        const id = await change(null, async (transaction) => {
          const { userId, concerns: email } = await takePass(body.token, 'address', transaction);
          const row = userId ? await UserRow.findByPk(userId, { transaction }) : null;
          if (!row || !(await mayStillAct('one-time-link', row.id, {}, transaction)))
            throw new Problem('pass-unknown');
          if (await UserRow.count({ where: { email }, transaction }))
            throw new Problem('address-known', { emails: email });
          // To the address that it was until now.
          await credentialsChanged(row, 'address', outbox, transaction);
          await row.update({ email }, { transaction });
          return { result: row.id, touched: PEOPLE_TOUCHED };
        });
        await endOtherSessions(sequelize, id, req.sessionID);
      },
    }),
    route('POST /forgotten', {
      tag: 'Signing in',
      summary:
        'Ask for a mail with which a new password is set; the answer is the same for unknown addresses',
      body: ForgottenInput,
      open: true,
      handle: ({ body }) => {
        afterwards(() =>
          change(null, async (transaction) => {
            const user = await UserRow.findOne({ where: { email: body.email, restedAt: null }, transaction });
            if (user) {
              const house = await houseName(transaction);
              const pass = { kind: 'password', userId: user.id, concerns: '' } as const;
              const href = await makePass(publicUrl, { ...pass, endsAt: passEnds('password') }, transaction);
              const words = { house, language: languageOf(user), href };
              const letter = passwordLetter({ ...words, minutes: PASS_MINUTES.password });
              await outbox.put(user.email, 'password', letter, transaction);
            }
            return { result: undefined, touched: [] };
          }),
        );
      },
    }),
  ];
};
