import type { CeilingRequest } from '@zonal/core/api';
import { AUDIENCES, GLASSES } from '@zonal/core/glass';
import { ceilingReplyLetter, ceilingRequestLetter } from '@zonal/core/post';
import { Problem } from '@zonal/core/problems';
import { ACCOUNT_LIMITS, ceilingRequestWords } from '@zonal/core/rights';
import { IsIn, IsOptional, IsString, IsUUID, MaxLength, isUUID } from 'class-validator';
import { Op, type Sequelize, type Transaction } from 'sequelize';
import { languageOf } from '../db/accountLanguage';
import { houseName } from '../db/houseName';
import { sayWhose } from '../db/journal';
import { CalendarRow, CeilingRequestRow, UserRow } from '../db/models';
import type { Outbox } from '../db/outbox';
import { listedRequests } from '../db/requests';
import type { Call } from '../http/route';
import { namesOf } from '../people/names';

/** Answered requests that are listed, newest first. Those that wait for an answer are all listed. */
const MAX_ANSWERED_REQUESTS = 100;

export class CeilingRequestInput {
  @IsOptional() @IsUUID() calendarId!: string | null;
  @IsIn(AUDIENCES) audience!: (typeof AUDIENCES)[number];
  @IsIn(GLASSES) glass!: (typeof GLASSES)[number];
  @IsString() @MaxLength(1000) reason!: string;
}

type Asker = Pick<Call, 'rights' | 'user'>;

/** Returns the requests for higher ceilings of calendars of which the caller sees everything, newest first. */
export async function listCeilingRequests({ rights, user }: Asker): Promise<CeilingRequest[]> {
  const where = { calendarId: { [Op.or]: [{ [Op.is]: null }, { [Op.in]: rights.calendarsFor('see-all') }] } };
  // A request for the whole house concerns those who look after a calendar, and the person who made it.
  const seesHouse = rights.calendarsFor('ask-ceiling').length > 0;
  const rows = (await listedRequests(CeilingRequestRow, where, MAX_ANSWERED_REQUESTS)).filter(
    (row) => row.calendarId !== null || seesHouse || row.userId === user.id,
  );
  const names = await namesOf(rows.flatMap((row) => [row.userId, row.answeredBy ?? null]));
  const nameOf = (id: string | null | undefined) => (id && names.get(id)) || '';
  return rows.map((row) => ({
    id: row.id,
    calendarId: row.calendarId,
    audience: row.audience,
    glass: row.glass,
    reason: row.reason,
    by: nameOf(row.userId),
    at: row.createdAt.toISOString(),
    state: row.state,
    answeredBy: nameOf(row.answeredBy),
    answeredAt: row.answeredAt?.toISOString() ?? null,
    own: row.userId === user.id,
    toAnswer: row.state === 'open' && rights.steward,
  }));
}

/** Requests for higher ceilings: stored together with the mails that report them. */
export class CeilingRequests {
  private readonly href: string;

  constructor(
    private readonly sequelize: Sequelize,
    private readonly outbox: Outbox,
    publicUrl: string,
  ) {
    this.href = `${publicUrl}/requests`;
  }

  /**
   * Stores a request and writes to all stewards. An open request for the same ceiling is replaced, and nobody is written to again.
   * Throws `too-many-ceiling-requests`.
   */
  async ask(user: UserRow, input: CeilingRequestInput): Promise<void> {
    const { audience, glass } = input;
    const calendarId = input.calendarId ?? null;
    const reason = input.reason.trim();
    await this.sequelize.transaction(async (transaction) => {
      await sayWhose(this.sequelize, user.id, transaction);
      // One after the other for each account, so that simultaneous requests are all counted.
      await this.sequelize.query('SELECT id FROM users WHERE id = :id FOR UPDATE', {
        transaction,
        replacements: { id: user.id },
      });
      const own = { userId: user.id, state: 'open' as const };
      const replaced = await CeilingRequestRow.destroy({
        where: { ...own, calendarId, audience },
        transaction,
      });
      const most = ACCOUNT_LIMITS.ceilingRequests;
      if ((await CeilingRequestRow.count({ where: own, transaction })) >= most)
        throw new Problem('too-many-ceiling-requests', { most });
      await CeilingRequestRow.create(
        { calendarId, audience, glass, reason, userId: user.id },
        { transaction },
      );
      if (!replaced) await this.writeToStewards(user, { calendarId, audience, glass, reason }, transaction);
    });
  }

  private async writeToStewards(
    asker: UserRow,
    asked: Pick<CeilingRequest, 'calendarId' | 'audience' | 'glass' | 'reason'>,
    transaction: Transaction,
  ): Promise<void> {
    const house = await houseName(transaction);
    const calendar = await nameOfCalendar(asked.calendarId, transaction);
    const stewards = await UserRow.findAll({
      where: { role: 'steward', restedAt: null, id: { [Op.ne]: asker.id } },
      transaction,
    });
    for (const steward of stewards) {
      const { id, email } = steward;
      const language = languageOf(steward);
      const letter = ceilingRequestLetter({
        ...{ house, language, by: asker.name, reason: asked.reason, href: this.href },
        request: ceilingRequestWords(asked, calendar, language),
      });
      await this.outbox.put(email, 'ceiling-request', letter, transaction, {
        authorId: asker.id,
        ifTooMany: 'skip',
        onlyIf: { effect: 'ceiling-request', authorId: id },
      });
    }
  }

  /** Returns a request that is open, as it was read. Throws `not-found` and `request-answered`. */
  async open(id: string): Promise<CeilingRequestRow> {
    const row = isUUID(id) ? await CeilingRequestRow.findByPk(id) : null;
    if (!row) throw new Problem('not-found');
    if (row.state !== 'open') throw new Problem('request-answered');
    return row;
  }

  /** Stores the answer to a request and writes to the person who made it. Throws `request-answered` if somebody was faster. */
  async answer(
    row: CeilingRequestRow,
    user: UserRow,
    isGranted: boolean,
    transaction: Transaction,
  ): Promise<void> {
    const [changed] = await CeilingRequestRow.update(
      { state: isGranted ? 'granted' : 'refused', answeredBy: user.id, answeredAt: new Date() },
      { where: { id: row.id, state: 'open' }, transaction },
    );
    if (!changed) throw new Problem('request-answered');
    const { calendarId, userId } = row;
    const asker = (await UserRow.findByPk(userId, { transaction }))!;
    const language = languageOf(asker);
    const letter = ceilingReplyLetter({
      ...{ house: await houseName(transaction), language, by: user.name },
      request: ceilingRequestWords(row, await nameOfCalendar(calendarId, transaction), language),
      isGranted,
      href: this.href,
    });
    const onlyIf = {
      effect: 'ceiling-reply',
      authorId: userId,
      ...(calendarId ? { calendarIds: [calendarId] } : {}),
    } as const;
    const by = { authorId: user.id, ifTooMany: 'skip' } as const;
    await this.outbox.put(asker.email, 'ceiling-reply', letter, transaction, { ...by, onlyIf });
  }

  /** Withdraws one's own request. Throws `not-found` and `request-answered`. */
  async takeBack(id: string, user: UserRow): Promise<void> {
    const own = { id, userId: user.id };
    if (!isUUID(id) || !(await CeilingRequestRow.count({ where: own }))) throw new Problem('not-found');
    const where = { ...own, state: 'open' as const };
    await this.sequelize.transaction(async (transaction) => {
      await sayWhose(this.sequelize, user.id, transaction);
      const [taken] = await CeilingRequestRow.update({ state: 'taken-back' }, { where, transaction });
      if (!taken) throw new Problem('request-answered');
    });
  }
}

async function nameOfCalendar(id: string | null, transaction: Transaction): Promise<string | null> {
  return id ? (await CalendarRow.findByPk(id, { transaction }))!.name : null;
}
