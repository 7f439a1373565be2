import type { CalendarPeople } from '@zonal/core/api';
import { GLASSES, WINDOW_LIMITS, type Glass } from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { STANDINGS, type Standing } from '@zonal/core/rights';
import { ArrayUnique, IsBoolean, IsIn, IsOptional, IsUUID } from 'class-validator';
import { Op, type Transaction } from 'sequelize';
import type { MakeChange } from '../db/changes';
import { CalendarRow, InvitationRow, StandingRow, UserRow } from '../db/models';
import { allAccounts } from './accounts';
import { setStandings } from './standings';
import { IsVersion, Parts } from '../http/inputs';
import { LabelHoldInput } from '../http/labelHoldInput';
import { route } from '../http/route';

/** People of one calendar. */
const MOST = 1000;

export class PersonInput {
  @IsUUID() userId!: string;
  @IsIn(STANDINGS) standing!: Standing;
  /** Of a reader; null for those who see everything. */
  @IsOptional() @IsIn(GLASSES) glass!: Glass | null;
}

export class CalendarPeopleInput {
  @ArrayUnique((p: PersonInput) => p?.userId)
  @Parts(() => PersonInput, MOST)
  people!: PersonInput[];
  /** The glass through which everybody else in the house sees it. */
  @IsIn(GLASSES) houseGlass!: Glass;
  /** Whether everybody in the house may know of it. */
  @IsOptional() @IsBoolean() known?: boolean;
  /** Labels that hold entries back from those who look through a glass. */
  @IsOptional()
  @ArrayUnique((h: LabelHoldInput) => h?.label)
  @Parts(() => LabelHoldInput, WINDOW_LIMITS.labelHolds)
  labelHolds?: LabelHoldInput[];
  @IsVersion() version!: number;
}

async function answer(calendarId: string, transaction?: Transaction): Promise<CalendarPeople> {
  const t = transaction ?? null;
  const calendar = await CalendarRow.findByPk(calendarId, { transaction: t });
  if (!calendar) throw new Problem('not-found');
  const rows = await StandingRow.findAll({ where: { calendarId }, transaction: t });
  const ids = rows.flatMap((r) => [r.userId, ...(r.byId ? [r.byId] : [])]);
  const users = new Map((await UserRow.findAll({ where: { id: ids } })).map((u) => [u.id, u]));
  const people = rows.flatMap(({ userId, standing, glass, byId, since }) => {
    const user = users.get(userId);
    if (!user) return [];
    const by = (byId && users.get(byId)?.name) ?? '';
    return [{ userId, name: user.name, email: user.email, standing, glass, since: since.toISOString(), by }];
  });
  people.sort(
    (a, b) => STANDINGS.indexOf(a.standing) - STANDINGS.indexOf(b.standing) || a.name.localeCompare(b.name),
  );
  const asked = await InvitationRow.findAll({
    where: { acceptedAt: null, withdrawnAt: null, endsAt: { [Op.gt]: new Date() } },
    order: [['email', 'ASC']],
    transaction: t,
  });
  const invited = asked.flatMap(({ email, standings }) => {
    const to = standings.find((s) => s.calendarId === calendarId);
    return to ? [{ email, standing: to.standing, glass: to.glass }] : [];
  });
  const { houseGlass, known, labelHolds, peopleVersion } = calendar;
  return { people, invited, houseGlass, known, labelHolds, version: peopleVersion };
}

export const peopleRoutes = (change: MakeChange) => [
  route('GET /people', {
    tag: 'People',
    summary: 'Everybody with an account, for those who may say who sees or writes a calendar',
    handle: async ({ rights }) => {
      if (!rights.steward && !rights.calendarsFor('people').length) return [];
      const everybody = await allAccounts();
      // Whose account is at rest concerns those who can take it up.
      return rights.steward ? everybody : everybody.filter((a) => a.restedAt === null);
    },
  }),
  route('GET /standings', {
    tag: 'People',
    summary: 'Who is what to the calendars whose people the asker may look after, by name, and the stewards',
    handle: async ({ rights }) => {
      const ids = rights.calendarsFor('people');
      if (!ids.length) return { calendars: [], stewards: [] };
      const [calendars, rows, users] = await Promise.all([
        CalendarRow.findAll({
          where: { id: ids },
          attributes: ['id', 'houseGlass'],
          order: [['name', 'ASC']],
        }),
        StandingRow.findAll({ where: { calendarId: ids } }),
        UserRow.findAll({ where: { restedAt: null }, order: [['name', 'ASC']] }),
      ]);
      const of = (calendarId: string) =>
        users.flatMap((u) => {
          const row = rows.find((r) => r.calendarId === calendarId && r.userId === u.id);
          return row ? [{ name: u.name, standing: row.standing, glass: row.glass }] : [];
        });
      return {
        calendars: calendars.map(({ id, houseGlass }) => ({ calendarId: id, houseGlass, people: of(id) })),
        stewards: users.filter((u) => u.role === 'steward').map((u) => u.name),
      };
    },
  }),
  route('GET /calendars/:id/people', {
    tag: 'People',
    summary: 'Who is what to a calendar, since when and by whom, and the glass of the whole house',
    handle: ({ param }) => answer(param('id')),
  }),
  route('PUT /calendars/:id/people', {
    tag: 'People',
    summary:
      'Say who is what to a calendar; acts at once, whoever is not named is nothing to it any more. 409 when somebody else changed it first',
    body: CalendarPeopleInput,
    again: ({ param }) => answer(param('id')),
    handle: async ({ body, param, user }) => {
      const calendarId = param('id');
      await change(user.id, async (transaction) => {
        const { houseGlass, known, labelHolds, version } = body;
        const [changed] = await CalendarRow.update(
          {
            houseGlass,
            ...(known === undefined ? {} : { known }),
            ...(labelHolds === undefined ? {} : { labelHolds }),
            peopleVersion: version + 1,
          },
          { where: { id: calendarId, peopleVersion: version }, transaction },
        );
        if (!changed)
          throw new Problem('version-conflict', { current: await answer(calendarId), yours: body });
        const ids = body.people.map((p) => p.userId);
        if ((await UserRow.count({ where: { id: ids }, transaction })) < ids.length)
          throw new Problem('person-unknown');
        const publishers = body.people.filter((p) => p.standing === 'publisher').map((p) => p.userId);
        const awake = { id: publishers, restedAt: null };
        if (!(await UserRow.count({ where: awake, transaction }))) throw new Problem('publisher-missing');
        await setStandings(calendarId, body.people, user.id, transaction);
        return { result: undefined, touched: [{ calendarId }] };
      });
      return answer(calendarId);
    },
  }),
];
