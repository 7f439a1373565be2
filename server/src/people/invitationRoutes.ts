import type { ToCalendar } from '@zonal/core/api';
import { Problem } from '@zonal/core/problems';
import { INVITATION_LIMITS } from '@zonal/core/rights';
import { isUUID } from 'class-validator';
import type { Transaction } from 'sequelize';
import { PEOPLE_TOUCHED } from '../db/changes';
import { CalendarRow, InvitationRow, UserRow } from '../db/models';
import { route } from '../http/route';
import type { AccountSetting } from './accountRoutes';
import { InvitationInput, InvitationsInput, type ToCalendarInput } from './accountInput';
import { glassOf } from './standings';
import { allInvitations, invitationEnds, mailInvitation } from './invitations';

type InvitationSetting = Pick<AccountSetting, 'change' | 'publicUrl' | 'outbox' | 'mayMail'>;

const PENDING = { acceptedAt: null, withdrawnAt: null };

/** Readers have a glass, others none. Throws `calendar-gone`. */
async function promised(
  standings: readonly ToCalendarInput[],
  transaction: Transaction,
): Promise<ToCalendar[]> {
  const ids = standings.map((s) => s.calendarId);
  if ((await CalendarRow.count({ where: { id: ids }, transaction })) < ids.length)
    throw new Problem('calendar-gone');
  return standings.map((s) => ({ calendarId: s.calendarId, standing: s.standing, glass: glassOf(s) }));
}

/** Throws `not-found`, or `invitation-answered` where it is over. */
async function pending(id: string, transaction: Transaction): Promise<InvitationRow> {
  const row = isUUID(id) ? await InvitationRow.findByPk(id, { transaction }) : null;
  if (!row) throw new Problem('not-found');
  if (row.acceptedAt || row.withdrawnAt) throw new Problem('invitation-answered');
  return row;
}

export const invitationRoutes = ({ change, publicUrl, outbox, mayMail }: InvitationSetting) => [
  route('GET /invitations', {
    tag: 'People',
    summary: 'Who was asked into the house, and how that stands; for stewards',
    handle: () => allInvitations(),
  }),
  route('POST /invitations', {
    tag: 'People',
    summary:
      'Ask people into the house by mail, with what they will be to which calendars; 409 for addresses that have an account, or were asked already',
    status: 201,
    body: InvitationsInput,
    again: () => allInvitations(),
    handle: async ({ body, user }) => {
      const isHandedOut = !(await mayMail());
      const addresses = await change(user.id, async (transaction) => {
        const addresses = new Map<string, string>();
        const emails = [...body.emails];
        const known = await UserRow.findAll({ where: { email: emails }, transaction });
        if (known.length)
          throw new Problem('address-known', { emails: known.map((u) => u.email).join(', ') });
        const asked = await InvitationRow.findAll({ where: PENDING, transaction });
        const now = Date.now();
        const waiting = asked.filter((r) => r.endsAt.getTime() > now);
        const twice = waiting.filter((r) => emails.includes(r.email)).map((r) => r.email);
        if (twice.length) throw new Problem('invitation-pending', { emails: twice.join(', ') });
        if (waiting.length + emails.length > INVITATION_LIMITS.pending)
          throw new Problem('too-many-invitations', { most: INVITATION_LIMITS.pending });
        // One that ended unanswered makes room for a new one.
        const over = asked.filter((r) => emails.includes(r.email)).map((r) => r.id);
        await InvitationRow.update({ withdrawnAt: new Date() }, { where: { id: over }, transaction });
        const standings = await promised(body.standings, transaction);
        for (const email of emails) {
          const row = await InvitationRow.create(
            {
              email,
              role: body.steward ? 'steward' : 'member',
              standings,
              byId: user.id,
              sentAt: new Date(),
              endsAt: invitationEnds(),
            },
            { transaction },
          );
          addresses.set(row.id, await mailInvitation(row, { publicUrl, outbox, by: user }, transaction));
        }
        return { result: addresses, touched: PEOPLE_TOUCHED };
      });
      return allInvitations(isHandedOut ? addresses : undefined);
    },
  }),
  route('PUT /invitations/:id', {
    tag: 'People',
    summary: 'Change what somebody will be who has not answered yet; 409 when somebody else changed it first',
    body: InvitationInput,
    again: () => allInvitations(),
    handle: async ({ body, param, user }) => {
      await change(user.id, async (transaction) => {
        const { id } = await pending(param('id'), transaction);
        const standings = await promised(body.standings, transaction);
        const [changed] = await InvitationRow.update(
          { role: body.steward ? 'steward' : 'member', standings, version: body.version + 1 },
          { where: { id, ...PENDING, version: body.version }, transaction },
        );
        if (!changed) {
          const current = (await allInvitations()).find((i) => i.id === id) ?? null;
          throw new Problem('version-conflict', { current, yours: body });
        }
        return { result: undefined, touched: PEOPLE_TOUCHED };
      });
      return allInvitations();
    },
  }),
  route('POST /invitations/:id/resend', {
    tag: 'People',
    summary: 'Send an invitation again, with a new address and a new end; the earlier address stops working',
    again: () => allInvitations(),
    handle: async ({ param, user }) => {
      const isHandedOut = !(await mayMail());
      const addresses = await change(user.id, async (transaction) => {
        const row = await pending(param('id'), transaction);
        await row.update({ sentAt: new Date(), endsAt: invitationEnds() }, { transaction });
        const address = await mailInvitation(row, { publicUrl, outbox, by: user }, transaction);
        return { result: new Map([[row.id, address]]), touched: PEOPLE_TOUCHED };
      });
      return allInvitations(isHandedOut ? addresses : undefined);
    },
  }),
  route('DELETE /invitations/:id', {
    tag: 'People',
    summary: 'Withdraw an invitation; its address works no more',
    again: () => allInvitations(),
    handle: async ({ param, user }) => {
      await change(user.id, async (transaction) => {
        const row = await pending(param('id'), transaction);
        await row.update({ withdrawnAt: new Date() }, { transaction });
        return { result: undefined, touched: PEOPLE_TOUCHED };
      });
      return allInvitations();
    },
  }),
];
