import { AUDIENCES, DEMANDS, GLASSES, rehearsedWindow, withCeiling, type Demand } from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { ACCOUNT_LIMITS } from '@zonal/core/rights';
import { IsBoolean, IsIn, IsOptional, IsString, IsUUID, MaxLength, isUUID } from 'class-validator';
import { Op, type Transaction } from 'sequelize';
import { calendarOf } from '../inside/calendarStore';
import { CalendarRow, CeilingRequestRow, CeilingRow, type UserRow } from '../db/models';
import { listedRequests } from '../db/requests';
import { route, type Call } from '../http/route';
import { windowIdsOn, type Publishing } from './publishWindow';
import { requireConfirmed } from './requireConfirmed';
import { namesOf, windowAnswers } from './windowStore';

/** Answered requests that are listed, newest first. Those that wait for an answer are all listed. */
const MAX_ANSWERED_REQUESTS = 100;

export class CeilingInput {
  /** The calendar; null for the whole house. */
  @IsOptional() @IsUUID() calendarId!: string | null;
  @IsIn(AUDIENCES) audience!: (typeof AUDIENCES)[number];
  /** The clearest glass; null for no ceiling. */
  @IsOptional() @IsIn(GLASSES) glass!: (typeof GLASSES)[number] | null;
  /** Large effects that somebody has looked at and wants. */
  @IsOptional() @IsIn(DEMANDS, { each: true }) confirmed?: Demand[];
}

export class CeilingRequestInput {
  @IsOptional() @IsUUID() calendarId!: string | null;
  @IsIn(AUDIENCES) audience!: (typeof AUDIENCES)[number];
  @IsIn(GLASSES) glass!: (typeof GLASSES)[number];
  @IsString() @MaxLength(1000) reason!: string;
}

export class CeilingReplyInput {
  @IsBoolean() grant!: boolean;
  /** Large effects of granting it that somebody has looked at and wants. */
  @IsOptional() @IsIn(DEMANDS, { each: true }) confirmed?: Demand[];
}

/** Returns the ceilings of the house and of calendars of which the asker sees everything, and what was asked for of them. */
async function answer({ rights, user }: Pick<Call, 'rights' | 'user'>) {
  const where = { calendarId: { [Op.or]: [{ [Op.is]: null }, { [Op.in]: rights.calendarsFor('see-all') }] } };
  const rows = await CeilingRow.findAll({ where });
  const requests = await listedRequests(CeilingRequestRow, where, MAX_ANSWERED_REQUESTS);
  // What is asked for the whole house concerns those who look after a calendar, and whoever asked.
  const ofHouse = rights.calendarsFor('ask-ceiling').length > 0;
  const told = requests.filter((r) => r.calendarId !== null || ofHouse || r.userId === user.id);
  const names = await namesOf([
    ...rows.map((r) => r.userId),
    ...told.flatMap((r) => [r.userId, r.answeredBy ?? null]),
  ]);
  const nameOf = (id: string | null | undefined) => (id && names.get(id)) || '';
  return {
    ceilings: rows.map(({ calendarId, audience, glass, userId, updatedAt }) => ({
      calendarId,
      audience,
      glass,
      by: nameOf(userId),
      at: updatedAt.toISOString(),
    })),
    requests: told.map((r) => ({
      id: r.id,
      calendarId: r.calendarId,
      audience: r.audience,
      glass: r.glass,
      reason: r.reason,
      by: nameOf(r.userId),
      at: r.createdAt.toISOString(),
      state: r.state,
      answeredBy: nameOf(r.answeredBy),
    })),
  };
}

const DAY = 86_400_000;

/** Answers wait until the change acts outside. */
export const ceilingRoutes = (publishing: Publishing) => {
  const { sequelize, publicUrl, change } = publishing;
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
      summary: 'Ask for a ceiling to be raised',
      body: CeilingRequestInput,
      status: 201,
      handle: async ({ body, user, rights }) => {
        const calendarId = body.calendarId ? (await calendarOf(body.calendarId)).id : null;
        const { audience, glass, reason } = body;
        await sequelize.transaction(async (transaction) => {
          // One after the other for each account: of many at once none goes uncounted.
          await sequelize.query('SELECT id FROM users WHERE id = :id FOR UPDATE', {
            transaction,
            replacements: { id: user.id },
          });
          const most = ACCOUNT_LIMITS.ceilingRequests;
          if (
            (await CeilingRequestRow.count({ where: { userId: user.id, state: 'open' }, transaction })) >=
            most
          )
            throw new Problem('too-many-ceiling-requests', { most });
          await CeilingRequestRow.create(
            { calendarId, audience, glass, reason, userId: user.id },
            { transaction },
          );
        });
        return answer({ rights, user });
      },
    }),
    route('POST /ceilings/requests/:id', {
      tag: 'Ceilings',
      summary: 'Grant or refuse what was asked for; large effects must be confirmed; for stewards',
      body: CeilingReplyInput,
      again: answer,
      handle: async ({ body, param, user, rights }) => {
        const row = isUUID(param('id')) ? await CeilingRequestRow.findByPk(param('id')) : null;
        if (!row) throw new Problem('not-found');
        if (row.state !== 'open') throw new Problem('request-answered');
        if (body.grant) await confirm(row, body.confirmed);
        await acting(user, row.calendarId, async (transaction) => {
          const state = body.grant ? 'granted' : 'refused';
          const [changed] = await CeilingRequestRow.update(
            { state, answeredBy: user.id },
            { where: { id: row.id, state: 'open' }, transaction },
          );
          if (!changed) throw new Problem('request-answered');
          if (body.grant) await put(row, user, transaction);
        });
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
