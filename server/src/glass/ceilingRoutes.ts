import type { AllCeilings } from '@zonal/core/api';
import { AUDIENCES, DEMANDS, GLASSES, rehearsedWindow, withCeiling, type Demand } from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { IsBoolean, IsIn, IsOptional, IsUUID } from 'class-validator';
import { Op, type Transaction } from 'sequelize';
import { calendarOf } from '../inside/calendarStore';
import { CalendarRow, CeilingRow, type UserRow } from '../db/models';
import type { Outbox } from '../db/outbox';
import { route, type Call } from '../http/route';
import { CeilingRequestInput, CeilingRequests, listCeilingRequests } from './ceilingRequests';
import { windowIdsOn, type Publishing } from './publishWindow';
import { requireConfirmed } from './requireConfirmed';
import { namesOf } from '../people/names';
import { windowAnswers } from './windowStore';

export class CeilingInput {
  /** The calendar; null for the whole house. */
  @IsOptional() @IsUUID() calendarId!: string | null;
  @IsIn(AUDIENCES) audience!: (typeof AUDIENCES)[number];
  /** The clearest glass; null for no ceiling. */
  @IsOptional() @IsIn(GLASSES) glass!: (typeof GLASSES)[number] | null;
  /** Large effects that somebody has looked at and wants. */
  @IsOptional() @IsIn(DEMANDS, { each: true }) confirmed?: Demand[];
}

export class CeilingReplyInput {
  @IsBoolean() grant!: boolean;
  /** Large effects of granting it that somebody has looked at and wants. */
  @IsOptional() @IsIn(DEMANDS, { each: true }) confirmed?: Demand[];
}

/** Returns the ceilings of the house and of calendars of which the caller sees everything, and the requests for higher ones. */
async function answer(call: Pick<Call, 'rights' | 'user'>): Promise<AllCeilings> {
  const where = {
    calendarId: { [Op.or]: [{ [Op.is]: null }, { [Op.in]: call.rights.calendarsFor('see-all') }] },
  };
  const rows = await CeilingRow.findAll({ where });
  const names = await namesOf(rows.map((r) => r.userId));
  return {
    ceilings: rows.map(({ calendarId, audience, glass, userId, updatedAt }) => ({
      calendarId,
      audience,
      glass,
      by: (userId && names.get(userId)) || '',
      at: updatedAt.toISOString(),
    })),
    requests: await listCeilingRequests(call),
  };
}

const DAY = 86_400_000;

/** Answers wait until the change acts outside. */
export const ceilingRoutes = (publishing: Publishing, outbox: Outbox) => {
  const { sequelize, publicUrl, change } = publishing;
  const requests = new CeilingRequests(sequelize, outbox, publicUrl);
  const acting = async (
    user: UserRow,
    calendarId: string | null,
    work: (transaction: Transaction) => Promise<void>,
  ) => {
    await change(user.id, async (transaction) => {
      await work(transaction);
      const windows = (await windowIdsOn(calendarId, transaction)).map((windowId) => ({ windowId }));
      const calendar = calendarId ? [{ calendarId }] : [];
      return { result: undefined, touched: [...calendar, ...windows] };
    });
  };

  type Wanted = Pick<CeilingInput, 'calendarId' | 'audience' | 'glass'>;

  /** Throws `confirm-needed` while a large effect of a ceiling on open windows was not confirmed. */
  const confirm = async ({ calendarId, audience, glass }: Wanted, confirmed: readonly Demand[] = []) => {
    const calendar = calendarId ? await calendarOf(calendarId) : null;
    // Of what is locked down nothing is seen, whatever its ceilings.
    if (calendar?.lockdown) return;
    const windows = (await windowAnswers(sequelize, publicUrl)).filter(
      (w) => !w.closedAt && (!calendar || w.sources.some((s) => s.calendarId === calendar.id)),
    );
    const pairs = windows
      .map((w) => rehearsedWindow(w, w, Date.now()))
      .map((before) => {
        const ceilings = withCeiling(before.rules.ceilings, { calendarId, audience, glass });
        return { before, after: { ...before, rules: { ...before.rules, ceilings } } };
      });
    await requireConfirmed(pairs, confirmed);
  };

  const put = async ({ calendarId, audience, glass }: Wanted, user: UserRow, transaction: Transaction) => {
    const where = { calendarId: calendarId ?? null, audience };
    await CeilingRow.destroy({ where, transaction });
    if (glass) await CeilingRow.create({ ...where, glass, userId: user.id }, { transaction });
  };

  return [
    route('GET /ceilings', {
      tag: 'Ceilings',
      summary: 'All ceilings with who set them and when, and what was asked for',
      handle: answer,
    }),
    route('PUT /ceilings', {
      tag: 'Ceilings',
      summary:
        'Set or lift the clearest glass of an audience, for the house or a calendar; acts at once, large effects must be confirmed; for stewards',
      body: CeilingInput,
      again: answer,
      handle: async ({ body, user, rights }) => {
        const calendarId = body.calendarId ? (await calendarOf(body.calendarId)).id : null;
        const wanted = { ...body, calendarId, glass: body.glass ?? null };
        await confirm(wanted, body.confirmed);
        await acting(user, calendarId, (t) => put(wanted, user, t));
        return answer({ rights, user });
      },
    }),
    route('POST /ceilings/requests', {
      tag: 'Ceilings',
      summary: 'Ask the stewards to raise a ceiling; an open request for the same ceiling is replaced',
      body: CeilingRequestInput,
      status: 201,
      again: answer,
      handle: async ({ body, user, rights }) => {
        const calendarId = body.calendarId ? (await calendarOf(body.calendarId)).id : null;
        await requests.ask(user, { ...body, calendarId });
        return answer({ rights, user });
      },
    }),
    route('POST /ceilings/requests/:id', {
      tag: 'Ceilings',
      summary: 'Grant or decline a request; large effects must be confirmed; for stewards',
      body: CeilingReplyInput,
      again: answer,
      handle: async ({ body, param, user, rights }) => {
        const row = await requests.open(param('id'));
        if (body.grant) await confirm(row, body.confirmed);
        await acting(user, row.calendarId, async (transaction) => {
          await requests.answer(row, user, body.grant, transaction);
          if (body.grant) await put(row, user, transaction);
        });
        return answer({ rights, user });
      },
    }),
    route('DELETE /ceilings/requests/:id', {
      tag: 'Ceilings',
      summary: 'Withdraw one’s own request while it is open',
      again: answer,
      handle: async ({ param, user, rights }) => {
        await requests.takeBack(param('id'), user);
        return answer({ rights, user });
      },
    }),
    route('POST /calendars/:id/lock-down', {
      tag: 'Ceilings',
      summary: 'Withdraw everything of a calendar from outside, in every window at once',
      handle: async ({ param, user }) => {
        const { id } = await calendarOf(param('id'));
        const lockdown = { at: new Date().toISOString(), userId: user.id };
        await acting(user, id, async (transaction) => {
          await CalendarRow.update({ lockdown }, { where: { id, lockdown: null }, transaction });
        });
      },
    }),
    route('DELETE /calendars/:id/lock-down', {
      tag: 'Ceilings',
      summary: 'Take a lock-down back: everybody within a day, a steward afterwards too',
      handle: async ({ param, user }) => {
        const { id, lockdown } = await calendarOf(param('id'));
        const old = lockdown && Date.now() - Date.parse(lockdown.at) > DAY;
        if (old && user.role !== 'steward') throw new Problem('lock-down-over');
        await acting(user, id, async (transaction) => {
          await CalendarRow.update({ lockdown: null }, { where: { id }, transaction });
        });
      },
    }),
  ];
};
