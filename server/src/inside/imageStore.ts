import { imageNamesOf, type Content } from '@zonal/core/entries';
import type { EntryChange, StoredImage } from '@zonal/core/api';
import { Problem } from '@zonal/core/problems';
import { ACCOUNT_LIMITS } from '@zonal/core/rights';
import { createHmac } from 'node:crypto';
import { Op, QueryTypes, literal, type Sequelize } from 'sequelize';
import { ImageRow } from '../db/imageModel';
import { secretFor } from '../db/sealed';
import { encodeImage } from './encodeImage';

/** Letters of an image's name, each a hexadecimal digit. */
const NAME_LENGTH = 32;
/** Days for which an image counts as used after it was last found in an entry, so that entries need not be read every day. */
const SEEN_DAYS = 30;
/** An image is deleted this many days after it was last found: an edit that removed it can then no longer be undone. */
const UNUSED_DAYS = SEEN_DAYS + 62;

/**
 * Stores an uploaded image and returns its name and size. The name follows from the picture, so that uploading it again changes
 * nothing for readers; without the server's secret nobody can compute it. Throws `image-unreadable` and `too-many-images`.
 */
export async function storeImage(file: Buffer, userId: string): Promise<StoredImage> {
  const most = ACCOUNT_LIMITS.imagesPerDay;
  const since = literal(`now() - interval '1 day'`);
  if ((await ImageRow.count({ where: { userId, createdAt: { [Op.gt]: since } } })) >= most)
    throw new Problem('too-many-images', { most });
  const { bytes, width, height } = await encodeImage(file);
  const hash = createHmac('sha256', secretFor('images')).update(bytes).digest('hex');
  const name = hash.slice(0, NAME_LENGTH);
  await ImageRow.upsert(
    { name, bytes, width, height, userId, usedAt: new Date() },
    { fields: ['userId', 'usedAt'] },
  );
  return { name, width, height };
}

/** Whether somebody uploaded an image. */
export async function isUploader(name: string, userId: string): Promise<boolean> {
  return (await ImageRow.count({ where: { name, userId } })) > 0;
}

/** Whether an entry of a calendar, or one of its dates, has an image. */
export async function isInCalendar(sequelize: Sequelize, name: string, calendarId: string): Promise<boolean> {
  const [found] = await sequelize.query(
    `SELECT 1 FROM entries WHERE calendar_id = :calendarId
       AND (data->'image'->>'name' = :name OR data->'overrides' @> :overrides::jsonb) LIMIT 1`,
    {
      replacements: { calendarId, name, overrides: JSON.stringify([{ content: { image: { name } } }]) },
      type: QueryTypes.SELECT,
    },
  );
  return found !== undefined;
}

/**
 * Returns changes of entries whose images are all stored. Throws `image-unknown` for one that is not; an imported entry loses it, as
 * its file may come from another house.
 */
export async function withStoredImages(changes: readonly EntryChange[]): Promise<readonly EntryChange[]> {
  const names = [...new Set(changes.flatMap(({ entry }) => (entry ? imageNamesOf(entry) : [])))];
  if (!names.length) return changes;
  const rows = await ImageRow.findAll({ where: { name: names }, attributes: ['name'], raw: true });
  const stored = new Set(rows.map((row) => row.name));
  return changes.map((change) => {
    const { entry } = change;
    if (!entry || imageNamesOf(entry).every((name) => stored.has(name))) return change;
    if (!change.imported) throw new Problem('image-unknown');
    const known = <T extends Pick<Content, 'image'>>(content: T): T =>
      content.image && !stored.has(content.image.name) ? { ...content, image: null } : content;
    const overrides = entry.overrides.map((o) => ({ ...o, content: known(o.content) }));
    return { ...change, entry: { ...known(entry), overrides } };
  });
}

/** Deletes images that no entry has had for a long time. It reads all entries, at most once in {@link SEEN_DAYS} for each image. */
export async function dropUnusedImages(sequelize: Sequelize): Promise<void> {
  const isUnseen = `used_at < now() - interval '${SEEN_DAYS} days'`;
  if (!(await ImageRow.count({ where: literal(isUnseen) }))) return;
  await sequelize.transaction(async (transaction) => {
    await sequelize.query(
      `UPDATE images SET used_at = now() WHERE ${isUnseen} AND name IN (
         SELECT data->'image'->>'name' FROM entries
         UNION SELECT one->'content'->'image'->>'name' FROM entries, jsonb_array_elements(data->'overrides') AS one)`,
      { transaction },
    );
    await sequelize.query(`DELETE FROM images WHERE used_at < now() - interval '${UNUSED_DAYS} days'`, {
      transaction,
    });
  });
}
