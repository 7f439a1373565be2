import type { Sheet, SheetCheck, SheetInput as SheetSaid } from '@zonal/core/api';
import { SHEET_LIMITS, canComeBack } from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { ACCOUNT_LIMITS } from '@zonal/core/rights';
import { DAY } from '@zonal/core/zones';
import { ArrayUnique, IsOptional, IsString, IsUUID, MaxLength, MinLength, isUUID } from 'class-validator';
import { Op } from 'sequelize';
import { SheetRow } from '../db/models';
import { seal } from '../db/sealed';
import type { Publishing } from '../glass/publishWindow';
import { windowIdsSeen } from '../people/windowsSeen';
import { randomToken } from '../glass/windowStore';
import { IsVersion, Parts } from '../http/inputs';
import { route } from '../http/route';
import { checkItems, lookAt, sheetAnswers, tokenPrint } from './sheetStore';

export class SheetItemInput {
  @IsUUID() windowId!: string;
  /** The key whose address it is; null for the one that a listed window has for everybody. */
  @IsOptional() @IsUUID() keyId!: string | null;
}

export class SheetCheckInput {
  @Parts(() => SheetItemInput, SHEET_LIMITS.links) items!: SheetItemInput[];
}

export class SheetInput extends SheetCheckInput {
  @IsString() @MinLength(1) @MaxLength(SHEET_LIMITS.nameLetters) name!: string;
  @IsString() @MaxLength(SHEET_LIMITS.noteLetters) note!: string;
  @ArrayUnique((i: SheetItemInput) => `${i?.windowId}|${i?.keyId}`) declare items: SheetItemInput[];
  /** The version that was changed; left out when the sheet is new. */
  @IsOptional() @IsVersion() version?: number;
}

async function rowOf(id: string): Promise<SheetRow> {
  const row = isUUID(id) ? await SheetRow.findByPk(id) : null;
  if (!row) throw new Problem('not-found');
  return row;
}

const newAddress = () => {
  const token = randomToken();
  return { token: seal(token), tokenPrint: tokenPrint(token) };
};

/** What is on a sheet is looked at whenever somebody asks for it: an address that leads nowhere is never told outside. */
export const sheetRoutes = (publishing: Publishing) => {
  const { change } = publishing;
  const answer = async (id: string): Promise<Sheet> =>
    (await sheetAnswers(publishing, [await rowOf(id)]))[0]!;
  const answerFor = ({ param }: { param: (name: 'id') => string }) => answer(param('id'));
  const itemsOf = ({ items }: SheetCheck) =>
    items.map(({ windowId, keyId }) => ({ windowId, keyId: keyId ?? null }));
  const columnsOf = ({ name, note, items }: SheetSaid) => ({ name, note, items: itemsOf({ items }) });
  /** Throws `version-conflict` unless a sheet is as it was seen. */
  const put = async (userId: string, row: SheetRow, seen: number, columns: object, yours: unknown) => {
    const { id } = row;
    await change(userId, async (transaction) => {
      const values = { ...columns, userId, version: seen + 1 };
      const [changed] = await SheetRow.update(values, { where: { id, version: seen }, transaction });
      if (!changed) throw new Problem('version-conflict', { current: await answer(id), yours });
      return { result: undefined, touched: [] };
    });
    return answer(id);
  };

  return [
    route('GET /sheets', {
      tag: 'Link sheets',
      summary:
        'The link sheets of windows that the asker may see, with what each of their addresses leads to now; withdrawn ones for a day',
      handle: async ({ rights, user }) => {
        const seen = await windowIdsSeen(rights);
        const withdrawnAt = { [Op.or]: [null, { [Op.gt]: new Date(Date.now() - DAY) }] };
        const rows = await SheetRow.findAll({ where: { withdrawnAt }, order: [['name', 'ASC']] });
        const told = rows.filter(
          ({ items, userId }) =>
            !seen || (items.length ? items.every((i) => seen.includes(i.windowId)) : userId === user.id),
        );
        return sheetAnswers(publishing, told);
      },
    }),
    route('POST /sheets', {
      tag: 'Link sheets',
      summary: 'Make a link sheet of keys and listed windows, with an address of its own',
      body: SheetInput,
      status: 201,
      again: (_call, id) => answer(String(id)),
      handle: async ({ body, user }) => {
        await checkItems(publishing, body.items);
        const id = await change(user.id, async (transaction) => {
          const where = { withdrawnAt: null };
          const count = (own: object) => SheetRow.count({ where: { ...where, ...own }, transaction });
          if ((await count({ userId: user.id })) >= ACCOUNT_LIMITS.linkSheets)
            throw new Problem('too-many-sheets', { most: ACCOUNT_LIMITS.linkSheets });
          if ((await count({})) >= SHEET_LIMITS.sheets)
            throw new Problem('too-many-sheets-of-house', { most: SHEET_LIMITS.sheets });
          const columns = { ...columnsOf(body), ...newAddress(), userId: user.id };
          const row = await SheetRow.create(columns, { transaction });
          return { result: row.id, touched: [] };
        });
        return answer(id);
      },
    }),
    route('POST /sheets/check', {
      tag: 'Link sheets',
      summary: 'What some addresses lead to now, and what is to be known before they are handed out',
      body: SheetCheckInput,
      handle: async ({ body }) => (await lookAt(publishing, itemsOf(body))).map((l) => l.checked),
    }),
    route('PUT /sheets/:id', {
      tag: 'Link sheets',
      summary: 'Change what is on a link sheet; its address stays. 409 when somebody else changed it first',
      body: SheetInput,
      again: answerFor,
      handle: async ({ body, param, user }) => {
        const row = await rowOf(param('id'));
        await checkItems(publishing, body.items);
        return put(user.id, row, body.version ?? 0, columnsOf(body), body);
      },
    }),
    route('POST /sheets/:id/turn', {
      tag: 'Link sheets',
      summary: 'Give a link sheet a new address; the old one leads nowhere from then on',
      again: answerFor,
      handle: async ({ param, user }) => {
        const row = await rowOf(param('id'));
        if (row.withdrawnAt) throw new Problem('sheet-gone');
        return put(user.id, row, row.version, newAddress(), null);
      },
    }),
    route('POST /sheets/:id/withdraw', {
      tag: 'Link sheets',
      summary: 'Withdraw the address of a link sheet at once; it can be brought back for a day',
      again: answerFor,
      handle: async ({ param, user }) => {
        const row = await rowOf(param('id'));
        if (row.withdrawnAt) return answer(row.id);
        return put(user.id, row, row.version, { withdrawnAt: new Date() }, null);
      },
    }),
    route('POST /sheets/:id/bring-back', {
      tag: 'Link sheets',
      summary: 'Bring a link sheet back that was withdrawn within the last day',
      again: answerFor,
      handle: async ({ param, user }) => {
        const row = await rowOf(param('id'));
        if (!row.withdrawnAt) return answer(row.id);
        if (!canComeBack(row, Date.now())) throw new Problem('sheet-gone');
        return put(user.id, row, row.version, { withdrawnAt: null }, null);
      },
    }),
  ];
};
