import type { Alert, MuteInput as MuteSaid } from '@zonal/core/api';
import { ALERT_KINDS, alertWords, type AlertKind, type Raised } from '@zonal/core/reach';
import type { InsideLanguage } from '@zonal/core/texts';
import { Problem } from '@zonal/core/problems';
import { IsBoolean, IsIn, IsOptional, IsUUID } from 'class-validator';
import { QueryTypes, type Sequelize } from 'sequelize';
import { IsInstant } from '../http/inputs';
import { KeyRow } from '../db/models';

export class MuteInput implements MuteSaid {
  @IsIn(Object.keys(ALERT_KINDS)) kind!: AlertKind;
  @IsOptional() @IsUUID() keyId!: string | null;
  @IsBoolean() muted!: boolean;
}

export class UrgentInput {
  /** The moment by which the newest change has to be known (ISO 8601 with a zone); null for none. */
  @IsOptional() @IsInstant() by!: string | null;
}

/** So many of the newest are told. */
const TOLD = 200;

interface StoredAlert {
  readonly since: Date;
  /** Null for an alert that was stored as a sentence. */
  readonly facts: Raised['facts'] | null;
  readonly say: string | null;
}

/** Returns the open alerts of windows, or of all if no ids are given, with those marked that somebody muted for themselves. */
export async function alerts(
  sequelize: Sequelize,
  userId: string,
  windowIds: readonly string[] | undefined,
  language: InsideLanguage,
): Promise<Alert[]> {
  if (windowIds && !windowIds.length) return [];
  const rows = await sequelize.query<Omit<Alert, 'since' | 'say'> & StoredAlert>(
    `SELECT a.id, a.kind, a.window_id AS "windowId", a.key_id AS "keyId", a.facts, a.say, a.since,
       EXISTS (SELECT 1 FROM alert_mutes m WHERE m.kind = a.kind AND m.window_id = a.window_id
         AND m.key_id IS NOT DISTINCT FROM a.key_id AND coalesce(m.user_id, :userId) = :userId) AS muted
     FROM alerts a
     ${windowIds ? 'WHERE a.window_id IN (:windowIds)' : ''}
     ORDER BY a.since DESC, a.id LIMIT ${TOLD}`,
    { replacements: { userId, windowIds }, type: QueryTypes.SELECT },
  );
  return rows.map(({ facts, say, ...alert }) => ({
    ...alert,
    say: facts ? alertWords({ kind: alert.kind, facts }, language) : (say ?? ''),
    since: alert.since.toISOString(),
  }));
}

/** Mutes alerts of a kind about a window or one of its keys for one person, or ends that. Throws `not-found`. */
export async function mute(
  sequelize: Sequelize,
  userId: string,
  windowId: string,
  { kind, keyId, muted }: MuteInput,
): Promise<void> {
  const key = keyId ?? null;
  if (key && !(await KeyRow.count({ where: { id: key, windowId } }))) throw new Problem('not-found');
  const sql = muted
    ? `INSERT INTO alert_mutes (kind, window_id, key_id, user_id) VALUES (:kind, :windowId, :key, :userId)
       ON CONFLICT DO NOTHING`
    : `DELETE FROM alert_mutes WHERE kind = :kind AND window_id = :windowId
       AND key_id IS NOT DISTINCT FROM CAST(:key AS uuid) AND coalesce(user_id, :userId) = :userId`;
  await sequelize.query(sql, { replacements: { kind, windowId, key, userId } });
}

/** Notes by when the newest change of a window has to be known; null for no such moment. */
export async function setUrgent(sequelize: Sequelize, windowId: string, by: string | null): Promise<void> {
  const sql = by
    ? `INSERT INTO urgent_changes (window_id, by) VALUES (:windowId, :by)
       ON CONFLICT (window_id) DO UPDATE SET by = excluded.by`
    : 'DELETE FROM urgent_changes WHERE window_id = :windowId';
  await sequelize.query(sql, { replacements: { windowId, by } });
}
