import { POLL_FORMS, unpackPolls } from '@zonal/core/reach';
import { DAY, dayFromText, dayToText } from '@zonal/core/zones';
import { QueryTypes, type Sequelize } from 'sequelize';
import { HouseRow } from '../db/models';
import type { Jobs } from '../jobs/jobs';

/** Rows that are summed up in one transaction. */
const AT_ONCE = 5_000;
/** Days after its last look at which nothing of a subscriber is known any more. */
const SUBSCRIBERS_KEPT = 400;

interface Row {
  readonly id: string;
  readonly key: string;
  readonly day: string;
  readonly polls: Buffer;
}

/**
 * Makes sums of polls that are older than the house keeps them one by one, and forgets subscribers that were not met for
 * long. Done again, or by two processes at once, it does nothing twice.
 */
export async function rollUp(sequelize: Sequelize, now: number = Date.now()): Promise<void> {
  const { pollDays } = (await HouseRow.findByPk(1))!;
  const before = dayToText(Math.floor(now / DAY) - pollDays);
  while ((await sumUp(sequelize, before)) === AT_ONCE) {
    // As long as there are more.
  }
  await sequelize.query('DELETE FROM subscribers WHERE last_at < :since', {
    replacements: { since: new Date(now - SUBSCRIBERS_KEPT * DAY) },
  });
}

/** Sums up some of the rows of before a day, and returns how many. */
function sumUp(sequelize: Sequelize, before: string): Promise<number> {
  return sequelize.transaction(async (transaction) => {
    const rows = await sequelize.query<Row>(
      `WITH old AS (
         SELECT subscriber_id, day FROM polls WHERE day < :before ORDER BY day, subscriber_id
         LIMIT ${AT_ONCE} FOR UPDATE SKIP LOCKED
       )
       DELETE FROM polls p USING old, subscribers s
       WHERE p.subscriber_id = old.subscriber_id AND p.day = old.day AND s.id = p.subscriber_id
       RETURNING p.subscriber_id AS id, s.place AS key, p.day::text AS day, p.polls`,
      { replacements: { before }, transaction, type: QueryTypes.SELECT },
    );
    const sums = new Map<
      string,
      { key: string; day: string; form: number; polls: number; subscribers: number }
    >();
    for (const { key, day, polls } of rows) {
      const forms = unpackPolls(polls, dayFromText(day) * DAY).map((p) => POLL_FORMS.indexOf(p.form));
      for (const form of new Set(forms)) {
        const name = `${key} ${day} ${form}`;
        const sum = sums.get(name) ?? { key, day, form, polls: 0, subscribers: 0 };
        sum.polls += forms.filter((one) => one === form).length;
        sum.subscribers++;
        sums.set(name, sum);
      }
    }
    if (sums.size)
      await sequelize.query(
        `INSERT INTO poll_sums (place, key_id, window_id, day, form, polls, subscribers)
         SELECT p.id, p.key_id, p.window_id, r.day, r.form, r.polls, r.subscribers
         FROM jsonb_to_recordset(:rows) AS r(key uuid, day date, form smallint, polls int, subscribers int)
         JOIN places p ON p.id = r.key
         ON CONFLICT (place, day, form) DO UPDATE SET polls = poll_sums.polls + excluded.polls,
           subscribers = poll_sums.subscribers + excluded.subscribers`,
        { replacements: { rows: JSON.stringify([...sums.values()]) }, transaction },
      );
    return rows.length;
  });
}

/** The hour in UTC at which old polls are summed up. */
const HOUR = 3;

/** Has old polls summed up each day, by one process of all. */
export async function startRollUps(jobs: Jobs, sequelize: Sequelize): Promise<void> {
  jobs.work('rollUp', () => rollUp(sequelize));
  await jobs.daily('rollUp', HOUR);
}
