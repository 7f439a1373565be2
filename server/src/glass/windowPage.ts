import { Problem } from '@zonal/core/problems';
import { isUUID } from 'class-validator';
import { Op } from 'sequelize';
import { WindowRow } from '../db/models';

const DEFAULT_PAGE_SIZE = 100;
const MAX_PAGE_SIZE = 200;

/** A page of windows, and the address of the next one relative to the API, or null for the last page. */
export interface WindowPage {
  readonly ids: readonly string[];
  readonly next: string | null;
}

/**
 * Returns a page of windows by id: of all, or of those with `visible` ids. `limit` and `after` are as the caller sent them. Throws
 * `input-invalid`.
 */
export async function windowPage(
  visible: readonly string[] | undefined,
  { limit, after }: { readonly limit?: unknown; readonly after?: unknown },
): Promise<WindowPage> {
  const size = limit === undefined ? DEFAULT_PAGE_SIZE : Number(limit);
  if (!Number.isInteger(size) || size < 1 || size > MAX_PAGE_SIZE)
    throw new Problem('input-invalid', { fields: 'limit' });
  if (after !== undefined && !isUUID(after)) throw new Problem('input-invalid', { fields: 'after' });
  const rows = await WindowRow.findAll({
    attributes: ['id'],
    where: {
      [Op.and]: [
        visible ? { id: [...visible] } : {},
        after === undefined ? {} : { id: { [Op.gt]: after as string } },
      ],
    },
    order: [['id', 'ASC']],
    limit: size + 1,
  });
  const ids = rows.slice(0, size).map(({ id }) => id);
  const next = rows.length > size ? `windows?limit=${size}&after=${ids.at(-1)!}` : null;
  return { ids, next };
}
