import { UserRow } from '../db/models';

/** Returns the names of people by id. */
export async function namesOf(ids: readonly (string | null)[]): Promise<Map<string, string>> {
  const rows = await UserRow.findAll({ where: { id: [...new Set(ids.filter((id) => id !== null))] } });
  return new Map(rows.map((r) => [r.id, r.name]));
}
