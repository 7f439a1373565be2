import { goneFrom, readFilter } from '@zonal/core/glass';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/** Keys that are open until a moment; labels that a window's filter has lost. */
export const name = '004-keys-and-labels';

export async function up(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  await sequelize.query(
    `
    ALTER TABLE keys ADD expires_at timestamptz;
    ALTER TABLE windows ADD lost_labels jsonb NOT NULL DEFAULT '[]';
  `,
    { transaction },
  );
  // A window whose filter names a label that was forgotten goes on showing less.
  const select = { type: QueryTypes.SELECT, transaction } as const;
  const labels = await sequelize.query<{ name: string }>('SELECT name FROM labels', select);
  const known = { calendars: [], properties: [], labels: labels.map((l) => l.name) };
  const windows = await sequelize.query<{ id: string; filter: unknown }>(
    `SELECT id, settings->'filter' AS filter FROM windows`,
    select,
  );
  for (const { id, filter } of windows) {
    const lost = goneFrom(readFilter(filter), known).filter((n) => n.startsWith('label:'));
    await sequelize.query('UPDATE windows SET lost_labels = :lost WHERE id = :id', {
      transaction,
      replacements: { id, lost: JSON.stringify(lost) },
    });
  }
}
