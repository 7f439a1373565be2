import { conditionsOf } from '@zonal/core/glass';
import { plainText } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import type { Sequelize } from 'sequelize';
import type { MakeChange } from '../db/changes';
import { labelCounts } from '../db/labels';
import { WindowRow } from '../db/models';
import { route } from '../http/route';

function naming(rows: readonly WindowRow[], label: string): WindowRow[] {
  const plain = plainText(label);
  return rows.filter((r) =>
    conditionsOf(r.settings.filter).some((c) => c.field === 'label' && plainText(c.value) === plain),
  );
}

export const labelRoutes = (sequelize: Sequelize, change: MakeChange) => [
  route('GET /labels', {
    tag: 'House',
    summary: 'The labels that filters may name, with the entries that bear them',
    handle: async () => {
      const windows = await WindowRow.findAll();
      const labels = await labelCounts(sequelize);
      return labels.map((l) => ({ ...l, windows: naming(windows, l.name).map((w) => w.name) }));
    },
  }),
  route('DELETE /labels/:name', {
    tag: 'House',
    summary: 'Forget a label that no entry bears; filters that name it are broken from then on and show less',
    handle: async ({ param, user }) => {
      const name = param('name');
      const found = (await labelCounts(sequelize)).find((l) => l.name === name);
      if (!found) throw new Problem('not-found');
      if (found.count) throw new Problem('label-in-use', { label: name, count: found.count });
      await change(user.id, async (transaction) => {
        await sequelize.query('DELETE FROM labels WHERE name = :name', {
          replacements: { name },
          transaction,
        });
        const windows = naming(await WindowRow.findAll({ transaction }), name);
        for (const window of windows) {
          const lost = new Set([...window.lostLabels, `label:${plainText(name)}`]);
          await window.update({ lostLabels: [...lost] }, { transaction });
        }
        return { result: undefined, touched: windows.map((w) => ({ windowId: w.id })) };
      });
    },
  }),
];
