import type { DirectoryCalendar, Wish } from '@zonal/core/api';
import { READ_THROUGH, type Glass } from '@zonal/core/glass';
import { sightReplyLetter, sightRequestLetter } from '@zonal/core/post';
import { Problem } from '@zonal/core/problems';
import { ACCOUNT_LIMITS, STANDINGS, wishWords, type Standing } from '@zonal/core/rights';
import { IsBoolean, IsIn, IsOptional, IsString, MaxLength, isUUID } from 'class-validator';
import { Op } from 'sequelize';
import { languageOf } from '../db/accountLanguage';
import type { MakeChange } from '../db/changes';
import { CalendarRow, OffDeskRow, StandingRow, UserRow, WishRow } from '../db/models';
import { houseName } from '../db/houseName';
import { listedRequests } from '../db/requests';
import type { Outbox } from '../db/outbox';
import { route, type Call } from '../http/route';
import { mayStillAct } from '../people/deferred';
import { glassOf, setStandings } from '../people/standings';
import { offDesk } from './calendarStore';

/** Answered requests that are listed, newest first. Those that wait for an answer are all listed. */
const MAX_ANSWERED_REQUESTS = 200;

export class DeskInput {
  @IsBoolean() onDesk!: boolean;
}

export class WishInput {
  @IsIn(STANDINGS) standing!: Standing;
  /** Of a reader; null for those who see everything. */
  @IsOptional() @IsIn(READ_THROUGH) glass!: Glass | null;
  @IsString() @MaxLength(1000) reason!: string;
}

export class WishReply {
  @IsBoolean() grant!: boolean;
  /** What they become where it is granted. */
  @IsIn(STANDINGS) standing!: Standing;
  @IsOptional() @IsIn(READ_THROUGH) glass!: Glass | null;
}

type Asker = Pick<Call, 'rights' | 'user'>;

async function publishersOf(calendarIds: readonly string[]): Promise<Map<string, UserRow[]>> {
  const where = { calendarId: [...calendarIds], standing: 'publisher' as const };
  const standings = await StandingRow.findAll({ where });
  const users = await UserRow.findAll({
    where: { id: standings.map((s) => s.userId), restedAt: null },
    order: [['name', 'ASC']],
  });
  const of = (id: string) =>
    users.filter((u) => standings.some((s) => s.calendarId === id && s.userId === u.id));
  return new Map(calendarIds.map((id) => [id, of(id)]));
}

async function directory({ rights, user }: Asker): Promise<DirectoryCalendar[]> {
  const ids = rights.inKnowledge();
  const rows = await CalendarRow.findAll({ where: { id: ids, archivedAt: null }, order: [['name', 'ASC']] });
  const [publishers, off] = await Promise.all([publishersOf(ids), offDesk(user.id)]);
  return rows.map(({ id, name, description, zone, plate, colour, shape, pattern }) => ({
    ...{ id, name, description, zone, plate, colour, shape, pattern },
    publishers: publishers.get(id)!.map((u) => u.name),
    who: rights.who(id)!,
    sight: rights.sight(id),
    onDesk: rights.sight(id) !== 'shut' && !off.has(id),
  }));
}

/** Returns one's own wishes of calendars of which one may still know, and those that one may answer. */
async function wishes({ rights, user }: Asker): Promise<Wish[]> {
  const concerned = {
    [Op.or]: [
      { userId: user.id, calendarId: rights.inKnowledge() },
      { calendarId: rights.calendarsFor('people') },
    ],
  };
  const rows = await listedRequests(WishRow, concerned, MAX_ANSWERED_REQUESTS);
  const calendars = await CalendarRow.findAll({ where: { id: rows.map((r) => r.calendarId) } });
  const ids = rows.flatMap((r) => [r.userId, ...(r.answeredBy ? [r.answeredBy] : [])]);
  const users = new Map((await UserRow.findAll({ where: { id: ids } })).map((u) => [u.id, u.name]));
  return rows.map((r) => ({
    id: r.id,
    calendarId: r.calendarId,
    calendar: calendars.find((c) => c.id === r.calendarId)!.name,
    standing: r.standing,
    glass: r.glass,
    reason: r.reason,
    userId: r.userId,
    by: users.get(r.userId) ?? '',
    at: r.createdAt.toISOString(),
    state: r.state,
    answeredBy: (r.answeredBy && users.get(r.answeredBy)) ?? '',
    answeredAt: r.answeredAt?.toISOString() ?? null,
    own: r.userId === user.id,
    toAnswer: r.state === 'open' && rights.may('people', r.calendarId),
  }));
}

/** The calendars of the house that one may know of, and how one asks to see more of them. */
export const directoryRoutes = (change: MakeChange, publicUrl: string, outbox: Outbox) => {
  const href = `${publicUrl}/calendars/directory`;
  return [
    route('GET /directory', {
      tag: 'Directory',
      summary: 'The calendars of the house of which the asker may know: name, what for, who publishes them',
      handle: (call) => directory(call),
    }),
    route('PUT /directory/:id/desk', {
      tag: 'Directory',
      summary: 'Put a calendar on one’s desk, or take it off',
      body: DeskInput,
      again: (call) => directory(call),
      handle: async ({ body, param, ...call }) => {
        const row = { userId: call.user.id, calendarId: param('id') };
        if (body.onDesk) await OffDeskRow.destroy({ where: row });
        else await OffDeskRow.upsert(row);
        return directory(call);
      },
    }),
    route('GET /wishes', {
      tag: 'Directory',
      summary: 'What the asker wished for, and what became of it; and the wishes that the asker may answer',
      handle: (call) => wishes(call),
    }),
    route('POST /calendars/:id/wishes', {
      tag: 'Directory',
      summary:
        'Ask a calendar’s publishers to be let see it, or more of it; an open wish of before is replaced',
      status: 201,
      body: WishInput,
      again: (call) => wishes(call),
      handle: async ({ body, param, ...call }) => {
        const { user } = call;
        const calendar = (await CalendarRow.findByPk(param('id')))!;
        await change(user.id, async (transaction) => {
          const own = { userId: user.id, state: 'open' as const };
          const open = await WishRow.findAll({ where: own, transaction });
          const most = ACCOUNT_LIMITS.accessRequests;
          if (open.filter((w) => w.calendarId !== calendar.id).length >= most)
            throw new Problem('too-many-wishes', { most });
          const again = open.some((w) => w.calendarId === calendar.id);
          await WishRow.destroy({ where: { ...own, calendarId: calendar.id }, transaction });
          const glass = glassOf(body);
          const { standing, reason } = body;
          const row = { calendarId: calendar.id, userId: user.id, standing, glass, reason: reason.trim() };
          await WishRow.create({ ...row, state: 'open' }, { transaction });
          const house = await houseName(transaction);
          // Whoever changes a wish that waits already does not write once more.
          const to = again ? [] : ((await publishersOf([calendar.id])).get(calendar.id) ?? []);
          for (const publisher of to) {
            const { id, email } = publisher;
            const language = languageOf(publisher);
            const wish = wishWords({ standing, glass }, calendar.name, language);
            const words = { house, language, by: user.name, wish, reason: row.reason, href };
            const letter = sightRequestLetter(words);
            const onlyIf = { effect: 'access-request', authorId: id, calendarIds: [calendar.id] } as const;
            const by = { authorId: user.id, ifTooMany: 'skip' } as const;
            await outbox.put(email, 'sight-request', letter, transaction, { ...by, onlyIf });
          }
          return { result: undefined, touched: [] };
        });
        return wishes(call);
      },
    }),
    route('POST /wishes/:id', {
      tag: 'Directory',
      summary: 'Answer a wish: the asker becomes what is said here, at once, or it is refused',
      body: WishReply,
      again: (call) => wishes(call),
      handle: async ({ body, param, ...call }) => {
        const { user } = call;
        await change(user.id, async (transaction) => {
          const wish = (await WishRow.findByPk(param('id'), { transaction }))!;
          if (wish.state !== 'open') throw new Problem('request-answered');
          const { calendarId, userId } = wish;
          if (body.grant && !(await mayStillAct('granted-access', userId, {}, transaction)))
            throw new Problem('asker-suspended');
          const state = body.grant ? 'granted' : 'refused';
          await wish.update({ state, answeredBy: user.id, answeredAt: new Date() }, { transaction });
          const calendar = (await CalendarRow.findByPk(calendarId, { transaction }))!;
          const given = { standing: body.standing, glass: glassOf(body) };
          if (body.grant) {
            const others = await StandingRow.findAll({ where: { calendarId }, transaction });
            const kept = others.filter((s) => s.userId !== userId);
            await setStandings(calendarId, [...kept, { userId, ...given }], user.id, transaction);
            await calendar.increment('peopleVersion', { transaction });
          }
          const asker = (await UserRow.findByPk(userId, { transaction }))!;
          const language = languageOf(asker);
          const letter = sightReplyLetter({
            ...{ house: await houseName(transaction), language, by: user.name, href },
            wish: wishWords(wish, calendar.name, language),
            given: body.grant ? wishWords(given, calendar.name, language) : null,
          });
          const by = { authorId: user.id, ifTooMany: 'skip' } as const;
          await outbox.put(asker.email, 'sight-reply', letter, transaction, by);
          return { result: undefined, touched: body.grant ? [{ calendarId }] : [] };
        });
        return wishes(call);
      },
    }),
    route('DELETE /wishes/:id', {
      tag: 'Directory',
      summary: 'Take one’s own wish back while it is open',
      again: (call) => wishes(call),
      handle: async ({ param, ...call }) => {
        const id = param('id');
        const own = isUUID(id) ? await WishRow.findOne({ where: { id, userId: call.user.id } }) : null;
        if (!own) throw new Problem('not-found');
        await change(call.user.id, async (transaction) => {
          const [taken] = await WishRow.update(
            { state: 'taken-back' },
            { where: { id, state: 'open' }, transaction },
          );
          if (!taken) throw new Problem('request-answered');
          return { result: undefined, touched: [] };
        });
        return wishes(call);
      },
    }),
  ];
};
