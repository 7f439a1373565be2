import { conditionsOf } from '@zonal/core/glass';
import { compareText, plainText } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import type { HouseRights } from '@zonal/core/rights';
import type { Sequelize } from 'sequelize';
import type { MakeChange } from '../db/changes';
import { groupedBy } from '../db/grouped';
import { labelCounts, labelsOfCalendars } from '../db/labels';
import { WindowRow } from '../db/models';
import { windowIdsSeen } from '../people/windowsSeen';
import { route } from '../http/route';
import type { InsideViews } from '../inside/insideViews';

function naming(rows: readonly WindowRow[], label: string): WindowRow[] {
  const plain = plainText(label);
  return rows.filter((r) =>
    conditionsOf(r.settings.filter).some((c) => c.field === 'label' && plainText(c.value) === plain),
  );
}

/** Returns the labels that somebody sees. Who publishes a calendar may name all of them in filters, also those of no entry. */
async function labelsSeen(sequelize: Sequelize, rights: HouseRights, views: InsideViews) {
  if (rights.steward) return labelCounts(sequelize);
  const whole = rights.calendarsFor('see-all');
  const counts = new Map((await labelCounts(sequelize, whole)).map((l) => [l.name, l.count]));
  const clear = rights.inSight().filter((id) => rights.sight(id) === 'clear');
  for (const seen of (await views.entriesOf(clear, rights)).values())
    for (const entry of seen)
      for (const label of new Set([entry, ...entry.overrides.map((o) => o.content)].flatMap((c) => c.labels)))
        counts.set(label, (counts.get(label) ?? 0) + 1);
  return [...counts].map(([name, count]) => ({ name, count })).sort((a, b) => compareText(a.name, b.name));
}

export const labelRoutes = (sequelize: Sequelize, change: MakeChange, views: InsideViews) => [
  route('GET /labels', {
    tag: 'House',
    summary:
      'The labels that filters may name, with the entries that bear them, as far as the asker sees them',
    handle: async ({ rights }) => {
      const ids = await windowIdsSeen(rights);
      const windows = await WindowRow.findAll({ where: ids ? { id: ids } : {} });
      const labels = await labelsSeen(sequelize, rights, views);
      const known = groupedBy(
        await labelsOfCalendars(sequelize, rights.calendarsFor('see-all')),
        (l) => l.name,
      );
      return labels.map((l) => ({
        ...l,
        calendarIds: (known.get(l.name) ?? []).map((k) => k.calendarId),
        windows: naming(windows, l.name).map((w) => w.name),
      }));
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
