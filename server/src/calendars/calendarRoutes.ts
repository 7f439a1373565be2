import { COLOURS } from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { IsIn, IsInt, IsOptional, IsString, Matches, MaxLength, MinLength, isUUID } from 'class-validator';
import { UniqueConstraintError, type Sequelize } from 'sequelize';
import { changing } from '../db/changes';
import { CalendarRow, EntryRow, WindowRow, WindowSourceRow } from '../db/models';
import { IsZone } from '../http/inputs';
import { route } from '../http/route';

export class CalendarInput {
  @IsString()
  @MinLength(1)
  @MaxLength(120)
  name!: string;

  @IsString()
  @MaxLength(2000)
  description!: string;

  @IsZone()
  zone!: string;

  /** Two or three letters by which the calendar is told apart. */
  @Matches(/^[A-Z0-9]{2,3}$/, { message: 'plate must be two or three capital letters or digits' })
  plate!: string;

  @IsIn(COLOURS)
  colour!: (typeof COLOURS)[number];

  /** The version that was changed; left out when the calendar is new. */
  @IsOptional()
  @IsInt()
  version?: number;
}

/** A calendar as the API gives it. */
export interface CalendarAnswer extends Required<Omit<CalendarInput, never>> {
  readonly id: string;
  readonly entryCount: number;
}

async function answers(where: { id?: string } = {}): Promise<CalendarAnswer[]> {
  const rows = await CalendarRow.findAll({ where, order: [['name', 'ASC']] });
  const counts = await EntryRow.count({ group: ['calendarId'] });
  const countOf = new Map(counts.map((c) => [c['calendarId'], c.count]));
  return rows.map((r) => ({
    id: r.id,
    name: r.name,
    description: r.description,
    zone: r.zone,
    plate: r.plate,
    colour: r.colour,
    version: r.version,
    entryCount: countOf.get(r.id) ?? 0,
  }));
}

/** Returns a calendar. Throws `not-found`. */
export async function calendarOf(id: string): Promise<CalendarRow> {
  const row = isUUID(id) ? await CalendarRow.findByPk(id) : null;
  if (!row) throw new Problem('not-found');
  return row;
}

async function named<T>(name: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof UniqueConstraintError) throw new Problem('name-taken', { name });
    throw error;
  }
}

export const calendarRoutes = (sequelize: Sequelize) => [
  route({
    method: 'get',
    path: '/calendars',
    tag: 'Calendars',
    summary: 'All calendars, by name',
    handle: () => answers(),
  }),
  route<CalendarInput>({
    method: 'post',
    path: '/calendars',
    tag: 'Calendars',
    summary: 'Make a calendar',
    body: CalendarInput,
    status: 201,
    handle: async ({ body }) => {
      const { version: _version, ...rest } = body;
      const row = await named(body.name, () => CalendarRow.create(rest));
      return (await answers({ id: row.id }))[0];
    },
  }),
  route<CalendarInput>({
    method: 'put',
    path: '/calendars/:id',
    tag: 'Calendars',
    summary: 'Change a calendar',
    body: CalendarInput,
    handle: async ({ body, param }) => {
      const current = await calendarOf(param('id'));
      const { version, ...rest } = body;
      const [changed] = await named(body.name, () =>
        CalendarRow.update(
          { ...rest, version: current.version + 1 },
          { where: { id: current.id, version: version ?? 0 } },
        ),
      );
      if (!changed)
        throw new Problem('version-conflict', {
          current: (await answers({ id: current.id }))[0],
          yours: body,
        });
      return (await answers({ id: current.id }))[0];
    },
  }),
  route({
    method: 'delete',
    path: '/calendars/:id',
    tag: 'Calendars',
    summary: 'Delete a calendar with its entries; refused while a window shows it',
    handle: async ({ param }) => {
      const { id } = await calendarOf(param('id'));
      await changing(sequelize, async (transaction) => {
        const sources = await WindowSourceRow.findAll({ where: { calendarId: id }, transaction });
        if (sources.length) {
          const windows = await WindowRow.findAll({
            where: { id: sources.map((s) => s.windowId) },
            transaction,
          });
          throw new Problem('calendar-in-use', { windows: windows.map((w) => w.name).join(', ') });
        }
        await CalendarRow.destroy({ where: { id }, transaction });
        return { result: undefined, touched: [{ calendarId: id, entryIds: null }] };
      });
    },
  }),
];
