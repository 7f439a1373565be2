import { nextMorning } from '@zonal/core/reach';
import { DAY, MINUTE } from '@zonal/core/zones';
import { createHmac, timingSafeEqual } from 'node:crypto';
import { Op, QueryTypes, type Sequelize } from 'sequelize';
import type { NoticeDue, Outbox } from '../db/outbox';
import { secretFor, unsealed } from '../db/sealed';
import { NoticeRow } from '../db/tellingModels';
import { log } from '../log';
import type { ToldOrder } from '../outside/outside';
import type { ShownAt, ToldAt } from '../outside/publisher';
import { newestRevision } from '../outside/viewStore';

/** What readers get at an address now. */
export interface AtAddress {
  shownAt(token: string): Promise<ShownAt | null>;
  told(token: string, viewId: string | null, asked: ToldOrder): Promise<ToldAt | null>;
}

export interface Noticing extends AtAddress {
  readonly sequelize: Sequelize;
  readonly outbox: Outbox;
  readonly publicUrl: string;
  /** Milliseconds between two mails to a reader who wants to hear at once. */
  readonly gap: number;
}

/** For so long, in milliseconds, an address can be confirmed. */
export const CONFIRM_FOR = DAY;
/** So many readers are written to one after the other before others are looked for. */
const AT_ONCE = 20;
/** A process that was about somebody for so long, in milliseconds, has died. */
const CLAIMED_FOR = 5 * MINUTE;
/** Who could not be told now is tried again after so long. */
const LATER = 15 * MINUTE;

/** What an address in a mail is for. */
export type NoticePass = 'confirm' | 'stop';

/** Returns the address by which a reader confirms or stops: nobody can make it up, and nothing is kept of it. */
export function noticeAddress(
  publicUrl: string,
  { id, reading }: Pick<NoticeRow, 'id' | 'reading'>,
  what: NoticePass,
): string {
  const lang = reading.lang ? `?lang=${encodeURIComponent(reading.lang)}` : '';
  return `${publicUrl}/notices/${what}/${id}.${macOf(id, what)}${lang}`;
}

/** Returns the id of whom such an address was made for, or null where it was made for nobody. */
export function noticeOfPass(pass: string, what: NoticePass): string | null {
  const [, id, mac] = /^([0-9a-f-]{36})\.([\w-]{43})$/.exec(pass) ?? [];
  if (!id || !mac) return null;
  return timingSafeEqual(Buffer.from(mac), Buffer.from(macOf(id, what))) ? id : null;
}

function macOf(id: string, what: NoticePass): string {
  return createHmac('sha256', secretFor('change notices')).update(`${what}|${id}`).digest('base64url');
}

/** Lets whoever is due be written to, by this process or another one. Never throws for one of them. */
export async function tellReaders(noticing: Noticing, now: () => number = Date.now): Promise<void> {
  for (;;) {
    const rows = await claimed(noticing.sequelize, now());
    let behind = false;
    for (const row of rows)
      try {
        behind = (await tellReader(noticing, row, now())) === 'behind' || behind;
      } catch (error) {
        log.warn({ err: error, notice: row.id }, 'a reader could not be told of changes; trying again later');
        await putOff(row, now());
      }
    if (behind || rows.length < AT_ONCE) return;
  }
}

async function claimed(sequelize: Sequelize, now: number): Promise<NoticeRow[]> {
  const rows = await sequelize.query<{ id: string }>(
    `UPDATE notices SET claimed_at = :now, due = false WHERE id IN (
       SELECT id FROM notices WHERE due AND confirmed_at IS NOT NULL AND next_at <= :now
       AND (claimed_at IS NULL OR claimed_at < :died) ORDER BY next_at LIMIT ${AT_ONCE} FOR UPDATE SKIP LOCKED
     ) RETURNING id`,
    {
      replacements: { now: new Date(now), died: new Date(now - CLAIMED_FOR) },
      type: QueryTypes.SELECT,
    },
  );
  return NoticeRow.findAll({ where: { id: rows.map((r) => r.id) }, order: [['nextAt', 'ASC']] });
}

async function putOff({ id, claimedAt }: NoticeRow, now: number): Promise<void> {
  await NoticeRow.update(
    { due: true, claimedAt: null, nextAt: new Date(now + LATER) },
    { where: { id, claimedAt } },
  );
}

async function tellReader(
  { sequelize, outbox, publicUrl, gap, told: toldAt }: Noticing,
  row: NoticeRow,
  now: number,
): Promise<'behind' | 'done'> {
  const { id, viewId, told: since, way, zone, reading, claimedAt } = row;
  const sinceAt = (row.toldAt ?? row.confirmedAt!).getTime();
  const stop = noticeAddress(publicUrl, row, 'stop');
  const told = await toldAt(unsealed(row.token), viewId, { as: 'digest', since, sinceAt, reading, stop });
  // Nothing is shown there now; perhaps later.
  if (!told) {
    await putOff(row, now);
    return 'done';
  }
  const { letter, number } = told;
  // Another process knows of something newer: it is looked at again with the next ones.
  if (number < (await newestRevision(sequelize, told.viewId))) {
    await NoticeRow.update({ due: true, claimedAt: null }, { where: { id, claimedAt } });
    return 'behind';
  }
  await sequelize.transaction(async (transaction) => {
    const columns = { viewId: told.viewId, told: number, claimedAt: null };
    const written = letter
      ? { toldAt: new Date(now), nextAt: new Date(way === 'daily' ? nextMorning(zone, now) : now + gap) }
      : {};
    // Whoever has stopped it meanwhile is not written to.
    const [changed] = await NoticeRow.update(
      { ...columns, ...written },
      { where: { id, claimedAt }, transaction },
    );
    if (!changed || !letter) return;
    await outbox.put(unsealed(row.mail), 'notice', letter, transaction, {
      headers: {
        'List-Unsubscribe': `<${stop}>`,
        'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
      },
      toReader: true,
      onlyIf: { notice: id, viewId: told.viewId, number, since, sinceAt },
    });
  });
  return 'done';
}

/**
 * Whether a mail that waited may leave: its reader wants it still, and what it tells of is shown still. Where it is not, it is
 * written anew, of what is shown by then.
 */
export async function stillTold({ shownAt }: AtAddress, onlyIf: NoticeDue): Promise<boolean> {
  const row = await NoticeRow.findByPk(onlyIf.notice);
  if (!row) return false;
  const shown = await shownAt(unsealed(row.token));
  if (shown?.viewId === onlyIf.viewId && shown.number === onlyIf.number) return true;
  await NoticeRow.update(
    {
      told: onlyIf.since,
      toldAt: new Date(onlyIf.sinceAt),
      viewId: onlyIf.viewId,
      due: true,
      nextAt: new Date(),
    },
    { where: { id: onlyIf.notice, told: { [Op.gt]: onlyIf.since } } },
  );
  return false;
}

/**
 * Forgets addresses that nobody confirmed, those at a key or window that ended so long ago that it does not come back, and
 * mails to readers that were sent.
 */
export async function forgetNotices(sequelize: Sequelize, now: number = Date.now()): Promise<void> {
  const replacements = { unconfirmed: new Date(now - CONFIRM_FOR), ended: new Date(now - 30 * DAY) };
  await sequelize.query('DELETE FROM notices WHERE confirmed_at IS NULL AND left_at < :unconfirmed', {
    replacements,
  });
  await sequelize.query(
    `DELETE FROM notices n USING windows w LEFT JOIN keys k ON k.window_id = w.id
     WHERE w.id = n.window_id AND (w.closed_at < :ended OR w.closes_at < :ended
       OR (n.key_id IS NULL AND NOT w.listed AND w.public_until < :ended)
       OR (k.id = n.key_id AND (k.withdrawn_at < :ended OR k.expires_at < :ended)))`,
    { replacements },
  );
  await sequelize.query(
    `DELETE FROM mails WHERE kind IN ('notice', 'notice-confirm') AND created_at < :ended`,
    { replacements },
  );
}
