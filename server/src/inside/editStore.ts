import type { EditAnswer, EntryChange } from '@zonal/core/api';
import { checkProperty, continuedLineages, type Entry, type Step } from '@zonal/core/entries';
import { labelHoldOf } from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { isUUID } from 'class-validator';
import { randomUUID } from 'node:crypto';
import { QueryTypes, literal, UniqueConstraintError, type Sequelize, type Transaction } from 'sequelize';
import type { MakeChange, Touched } from '../db/changes';
import { learnLabels } from '../db/labels';
import { CalendarRow, EditEntryRow, EditRow, EntryRow, HouseRow, type EntryState } from '../db/models';
import { columnsOf, entryOf, entryOfState } from './entryStore';
import { withStoredImages } from './imageStore';

const MOST_TOLD = 200;
/** After this many entries other work gets its turn. */
const BREATH = 25;

/** Starts an edit of somebody; nothing is changed yet. */
export async function stageEdit(
  userId: string,
  label: string,
  calendar: EditRow['calendar'] = null,
): Promise<EditRow> {
  return EditRow.create({ userId, label, calendar, state: 'staged' });
}

/** Returns an edit of somebody. Throws `not-found` for one of another person. */
export async function editOf(id: string, userId: string): Promise<EditRow> {
  const row = isUUID(id) ? await EditRow.findOne({ where: { id, userId } }) : null;
  if (!row) throw new Problem('not-found');
  return row;
}

/** Adds changes to a staged edit. Throws what is wrong with an entry, and `not-found` for an unknown calendar. */
export async function addChanges(edit: EditRow, changes: readonly EntryChange[]): Promise<string[]> {
  if (edit.state !== 'staged') throw new Problem('edit-closed');
  const zones = new Map((await CalendarRow.findAll()).map((c) => [c.id, c.zone]));
  const definitions = (await HouseRow.findByPk(1))?.properties ?? [];
  const rows = [];
  for (const [i, change] of (await withStoredImages(changes)).entries()) {
    if (i % BREATH === BREATH - 1) await new Promise((resolve) => setImmediate(resolve));
    const entryId = change.id ?? randomUUID();
    const zone = zones.get(change.calendarId);
    if (!zone) throw new Problem('not-found');
    if (change.entry && !change.imported) {
      for (const { name, value } of change.entry.properties) {
        const definition = definitions.find((d) => d.name === name);
        if (definition && value) checkProperty(definition, value);
      }
    }
    const after = change.entry ? stateOf(change, entryId, zone) : null;
    rows.push({ editId: edit.id, entryId, seen: change.version, top: change.version, before: null, after });
  }
  await EditEntryRow.bulkCreate(rows);
  return rows.map((r) => r.entryId);
}

function stateOf(
  { calendarId, uid, entry, imported, continues }: EntryChange,
  id: string,
  zone: string,
): EntryState {
  const { data, firstAt, lastAt } = columnsOf(entry!, zone);
  return {
    calendarId,
    uid: uid ?? id,
    firstAt: firstAt.toISOString(),
    lastAt: lastAt?.toISOString() ?? null,
    // The entry that is continued; its lineage is known when the edit is applied.
    data: continues ? { ...data, lineage: continues } : data,
    imported: imported ? { print: imported.print, sequence: imported.sequence } : null,
  };
}

type Way = 'apply' | 'take-back' | 'again';

const WAYS: Record<Way, { from: EditRow['state']; to: EditRow['state']; target: 'before' | 'after' }> = {
  apply: { from: 'staged', to: 'applied', target: 'after' },
  'take-back': { from: 'applied', to: 'taken-back', target: 'before' },
  again: { from: 'taken-back', to: 'applied', target: 'after' },
};

/**
 * Applies a staged edit, takes an applied one back, or does it again: all of it or nothing. Throws
 * `version-conflict` (with the entry as it is) when an entry of a staged edit was changed since it was seen, and
 * `edit-overtaken` when an entry is no longer as the edit had left it.
 */
export async function turnEdit(
  sequelize: Sequelize,
  change: MakeChange,
  edit: EditRow,
  way: Way,
  yours: unknown = null,
): Promise<EditAnswer> {
  const { from, to, target } = WAYS[way];
  try {
    return await change(edit.userId, async (transaction) => {
      const [moved] = await EditRow.update(
        { state: to },
        { where: { id: edit.id, state: from }, transaction },
      );
      if (!moved) throw new Problem('edit-closed');
      if (way === 'apply') await rememberBefore(sequelize, edit.id, yours, transaction);
      else await checkUntouched(sequelize, edit, target === 'before' ? 'after' : 'before', transaction);
      await write(sequelize, edit.id, target, transaction);
      if (target === 'after') await learnLabels(sequelize, { editId: edit.id, transaction });
      if (edit.calendar) {
        const { id, before, after } = edit.calendar;
        const zone = target === 'after' ? after : before;
        const where = { id, zone: target === 'after' ? before : after };
        const [changed] = await CalendarRow.update({ zone }, { where, transaction });
        if (!changed)
          throw new Problem('edit-overtaken', { label: edit.label, title: 'the calendar’s zone' });
        await CalendarRow.increment('version', { where: { id }, transaction });
      }
      const { touched, ids } = await touchedBy(edit, target, transaction);
      const entries =
        ids.length <= MOST_TOLD
          ? (await EntryRow.findAll({ where: { id: ids }, transaction })).map(entryOf)
          : [];
      return {
        result: { id: edit.id, label: edit.label, state: to, size: ids.length, entries },
        touched,
      };
    });
  } catch (error) {
    if (error instanceof UniqueConstraintError) throw new Problem('uid-taken');
    throw error;
  }
}

/** An entry's columns as {@link EntryState}. */
const STATE = `jsonb_build_object('calendarId', e.calendar_id, 'uid', e.uid, 'firstAt', e.first_at, 'lastAt', e.last_at,
  'data', e.data, 'imported', e.imported)`;

async function rememberBefore(
  sequelize: Sequelize,
  editId: string,
  yours: unknown,
  transaction: Transaction,
): Promise<void> {
  const options = { replacements: { editId }, transaction };
  const [late] = await sequelize.query<{ entry_id: string }>(
    `SELECT x.entry_id FROM edit_entries x LEFT JOIN entries e ON e.id = x.entry_id
     WHERE x.edit_id = :editId AND coalesce(e.version, 0) <> x.seen LIMIT 1`,
    { ...options, type: QueryTypes.SELECT },
  );
  if (late) {
    const row = await EntryRow.findByPk(late.entry_id, { transaction });
    if (!row) throw new Problem('not-found');
    throw new Problem('version-conflict', { current: entryOf(row), yours });
  }
  await sequelize.query(
    `UPDATE edit_entries x SET before = ${STATE} FROM entries e WHERE x.edit_id = :editId AND e.id = x.entry_id`,
    options,
  );
  await keepLineages(sequelize, editId, transaction);
}

/** An edit that writes more new entries than this by hand is no cut of a series. */
const MOST_CONTINUING = 500;

/** Sets the lineages of what an edit writes: a changed entry keeps its own, a new one has that of what it continues. */
async function keepLineages(sequelize: Sequelize, editId: string, transaction: Transaction): Promise<void> {
  const options = { replacements: { editId }, transaction };
  await sequelize.query(
    `UPDATE edit_entries SET after = jsonb_set(after, '{data,lineage}', before->'data'->'lineage')
     WHERE edit_id = :editId AND after IS NOT NULL AND before->'data' ? 'lineage'`,
    options,
  );
  await sequelize.query(
    `UPDATE edit_entries x SET after = jsonb_set(x.after, '{data,lineage}', e.data->'lineage')
     FROM entries e WHERE x.edit_id = :editId AND x.before IS NULL AND x.after->'data'->>'lineage' = e.id::text
       AND e.data ? 'lineage'`,
    options,
  );
  const fresh = await EditEntryRow.findAll({
    where: literal(
      `edit_id = ${sequelize.escape(editId)} AND before IS NULL AND after IS NOT NULL
       AND NOT after->'data' ? 'lineage' AND nullif(after->'imported', 'null'::jsonb) IS NULL`,
    ),
    limit: MOST_CONTINUING + 1,
    transaction,
  });
  if (!fresh.length || fresh.length > MOST_CONTINUING) return;
  const left = await EditEntryRow.findAll({
    where: literal(`edit_id = ${sequelize.escape(editId)} AND before IS NOT NULL`),
    limit: MOST_CONTINUING,
    transaction,
  });
  const steps = [...fresh, ...left].map((row): Step => ({
    before: entryOfState(row.entryId, row.before),
    after: entryOfState(row.entryId, row.after),
  }));
  const zone = (await HouseRow.findByPk(1, { transaction }))?.zone ?? 'UTC';
  const calendars = await CalendarRow.findAll({
    where: { id: [...new Set(steps.flatMap(({ before }) => before?.calendarId ?? []))] },
    attributes: ['id', 'labelHolds'],
    transaction,
  });
  const labelHolds = new Map(calendars.map((calendar) => [calendar.id, calendar.labelHolds]));
  const isHeld = ({ calendarId, hold, labels }: Entry) =>
    hold !== 'none' || labelHoldOf(labels, labelHolds.get(calendarId) ?? []) !== null;
  for (const [id, lineage] of continuedLineages(steps, zone, isHeld)) {
    const row = fresh.find((r) => r.entryId === id)!;
    const after = { ...row.after!, data: { ...row.after!.data, lineage } };
    await row.update({ after }, { transaction });
  }
}

/** What was written is compared, not its version: taking back a later edit leaves the same content behind. */
async function checkUntouched(
  sequelize: Sequelize,
  edit: EditRow,
  expected: 'before' | 'after',
  transaction: Transaction,
): Promise<void> {
  const [other] = await sequelize.query<{ title: string }>(
    `SELECT coalesce(e.data->>'title', x.${expected}->'data'->>'title', '') AS title
     FROM edit_entries x LEFT JOIN entries e ON e.id = x.entry_id
     WHERE x.edit_id = :editId AND
       (x.${expected}->'data' IS DISTINCT FROM e.data OR x.${expected}->>'uid' IS DISTINCT FROM e.uid
        OR x.${expected}->>'calendarId' IS DISTINCT FROM e.calendar_id::text)
     LIMIT 1`,
    { replacements: { editId: edit.id }, transaction, type: QueryTypes.SELECT },
  );
  if (other) throw new Problem('edit-overtaken', { label: edit.label, title: `“${other.title}”` });
}

/** Brings all entries of an edit into the state before or after it. */
async function write(
  sequelize: Sequelize,
  editId: string,
  target: 'before' | 'after',
  transaction: Transaction,
): Promise<void> {
  const options = { replacements: { editId }, transaction };
  await sequelize.query(
    `UPDATE edit_entries x SET top = greatest(x.top, coalesce((SELECT version FROM entries e WHERE e.id = x.entry_id), 0)) + 1
     WHERE x.edit_id = :editId`,
    options,
  );
  await sequelize.query(
    `DELETE FROM entries e USING edit_entries x
     WHERE x.edit_id = :editId AND e.id = x.entry_id AND x.${target} IS NULL`,
    options,
  );
  await sequelize.query(
    `INSERT INTO entries (id, calendar_id, uid, version, first_at, last_at, data, imported, created_at, updated_at)
     SELECT x.entry_id, (x.${target}->>'calendarId')::uuid, x.${target}->>'uid', x.top,
       (x.${target}->>'firstAt')::timestamptz, (x.${target}->>'lastAt')::timestamptz, x.${target}->'data',
       nullif(x.${target}->'imported', 'null'::jsonb), now(), now()
     FROM edit_entries x WHERE x.edit_id = :editId AND x.${target} IS NOT NULL
     ON CONFLICT (id) DO UPDATE SET calendar_id = excluded.calendar_id, uid = excluded.uid,
       version = excluded.version, first_at = excluded.first_at, last_at = excluded.last_at, data = excluded.data,
       imported = excluded.imported, updated_at = excluded.updated_at`,
    options,
  );
}

async function touchedBy(
  edit: EditRow,
  target: 'before' | 'after',
  transaction: Transaction,
): Promise<{ touched: Touched[]; ids: string[] }> {
  const rows = (await EditEntryRow.findAll({
    where: { editId: edit.id },
    attributes: [
      'entryId',
      [literal(`before->>'calendarId'`), 'left'],
      [literal(`after->>'calendarId'`), 'entered'],
    ],
    raw: true,
    transaction,
  })) as unknown as { entryId: string; left: string | null; entered: string | null }[];
  const calendarIds = new Set(rows.flatMap((r) => [r.left, r.entered]).filter((id) => id !== null));
  if (edit.calendar) calendarIds.add(edit.calendar.id);
  return {
    ids: rows.map((r) => r.entryId),
    touched: [
      {
        calendarIds: [...calendarIds],
        edit: { id: edit.id, target },
        onlyAdds: target === 'after' && rows.every((r) => r.left === null),
      },
    ],
  };
}

/** Makes an edit and applies it at once. */
export async function editNow(
  sequelize: Sequelize,
  change: MakeChange,
  userId: string,
  label: string,
  changes: readonly EntryChange[],
): Promise<EditAnswer> {
  const edit = await stageEdit(userId, label);
  try {
    await addChanges(edit, changes);
    return await turnEdit(sequelize, change, edit, 'apply', changes[0]?.entry ?? null);
  } catch (error) {
    // Where nothing was changed, nothing is there to be taken back; what is stored stays.
    await EditRow.destroy({ where: { id: edit.id, state: 'staged' } }).catch(() => undefined);
    throw error;
  }
}

/** Forgets edits that are too old to be taken back, and those that nobody applied. */
export async function dropOldEdits(sequelize: Sequelize): Promise<void> {
  await sequelize.query(
    `DELETE FROM edits WHERE created_at < now() - interval '60 days'
       OR (state = 'staged' AND created_at < now() - interval '1 day')`,
  );
}
