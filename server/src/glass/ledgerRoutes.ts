import { Problem } from '@zonal/core/problems';
import { viewAfter } from '@zonal/core/reach';
import { Op, literal } from 'sequelize';
import { LedgerRow } from '../db/models';
import { route } from '../http/route';
import { namesOf } from '../people/names';
import { keyOf, viewIdOf } from './windowStore';

export const ledgerRoutes = [
  route('GET /keys/:id/ledger', {
    tag: 'Ledger',
    summary: 'The numbered revisions of what readers with a key saw, newest first, at most 500',
    handle: async ({ param }) => {
      const viewId = viewIdOf(await keyOf(param('id')));
      const rows = await LedgerRow.findAll({
        where: { viewId },
        attributes: {
          exclude: ['step'],
          include: [
            [literal('pg_column_size(step)'), 'bytes'],
            [literal(`step ? 'wording'`), 'wording'],
          ],
        },
        order: [['number', 'DESC']],
        limit: 500,
      });
      const names = await namesOf(rows.flatMap((r) => r.userIds));
      return rows.map((r) => ({
        number: r.number,
        at: r.at.toISOString(),
        by: r.userIds.map((id) => names.get(id) ?? ''),
        appeared: r.appeared,
        vanished: r.vanished,
        changed: r.altered,
        wording: r.get('wording') === true,
        windowVersion: r.windowVersion,
        bytes: Number(r.get('bytes')),
      }));
    },
  }),
  route('GET /keys/:id/ledger/:number', {
    tag: 'Ledger',
    summary: 'The outward view of a past revision, as readers saw it',
    handle: async ({ param }) => {
      const viewId = viewIdOf(await keyOf(param('id')));
      const number = Number(param('number'));
      const rows =
        Number.isInteger(number) && number > 0 && number < 2 ** 31
          ? await LedgerRow.findAll({
              where: { viewId, number: { [Op.lte]: number } },
              order: [['number', 'ASC']],
            })
          : [];
      if (rows.at(-1)?.number !== number) throw new Problem('revision-missing');
      return viewAfter(rows.map((r) => r.step));
    },
  }),
];
