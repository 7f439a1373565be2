import type { Device } from '@zonal/core/api';
import { createHash } from 'node:crypto';
import { QueryTypes, type Sequelize } from 'sequelize';
import { programOf } from './programs';
import { IDLE } from './session';

const HOUR = 3_600_000;

/** A session is told by what only whoever has it can work out. */
const idOf = (sid: string) => createHash('sha256').update(sid).digest('base64url').slice(0, 22);

interface SessionRow {
  readonly sid: string;
  readonly since: number;
  readonly program: string | null;
  readonly expire: string;
}

async function sessionsOf(sequelize: Sequelize, userId: string, proof: string): Promise<SessionRow[]> {
  return sequelize.query<SessionRow>(
    `SELECT sid, (sess->>'since')::float8 AS since, sess->>'program' AS program, expire::text AS expire FROM session
     WHERE sess->>'userId' = :userId AND sess->>'proof' = :proof AND expire > now() ORDER BY expire DESC LIMIT 100`,
    { replacements: { userId, proof }, type: QueryTypes.SELECT },
  );
}

/** Returns the programs with which somebody is signed in, the last used first. */
export async function devicesOf(
  sequelize: Sequelize,
  userId: string,
  { proof, sid }: { readonly proof: string; readonly sid: string },
): Promise<Device[]> {
  const rows = await sessionsOf(sequelize, userId, proof);
  return rows.map(({ sid: one, since, program, expire }) => {
    const used = new Date(`${expire.replace(' ', 'T')}Z`).getTime() - IDLE;
    return {
      id: idOf(one),
      program: program ?? programOf(undefined),
      since: new Date(since).toISOString(),
      usedAt: new Date(Math.floor(Math.max(used, since) / HOUR) * HOUR).toISOString(),
      own: one === sid,
    };
  });
}

/** Signs somebody out with every program but the one with this session. */
export async function endOtherSessions(sequelize: Sequelize, userId: string, sid: string): Promise<void> {
  await sequelize.query(`DELETE FROM session WHERE sess->>'userId' = :userId AND sid <> :sid`, {
    replacements: { userId, sid },
  });
}

/** Signs somebody out: with one program, told by its id, or with all. Returns how many there were. */
export async function endSessions(sequelize: Sequelize, userId: string, id?: string): Promise<number> {
  const rows = await sequelize.query<{ sid: string }>(
    `SELECT sid FROM session WHERE sess->>'userId' = :userId`,
    { replacements: { userId }, type: QueryTypes.SELECT },
  );
  const sids = rows.map((r) => r.sid).filter((sid) => id === undefined || idOf(sid) === id);
  if (sids.length)
    await sequelize.query('DELETE FROM session WHERE sid IN (:sids)', { replacements: { sids } });
  return sids.length;
}
