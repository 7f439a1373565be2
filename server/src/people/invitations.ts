import type { Invitation, ToCalendar } from '@zonal/core/api';
import { invitationLetter, letterTexts } from '@zonal/core/post';
import { INVITATION_DAYS, invitationState, isOutside, standingWords } from '@zonal/core/rights';
import { LOCALES, type InsideLanguage } from '@zonal/core/texts';
import { Op, type Transaction } from 'sequelize';
import { languageOf } from '../db/accountLanguage';
import { CalendarRow, HouseRow, InvitationRow, MailRow, UserRow } from '../db/models';
import type { Outbox } from '../db/outbox';
import { makePass } from './passes';

const DAY = 86_400_000;
/** Invitations that are over are told for so long. */
const TOLD = 60 * DAY;

/** Returns the instant at which an invitation ends that is sent now. */
export function invitationEnds(now = Date.now()): Date {
  return new Date(now + INVITATION_DAYS * DAY);
}

/** Returns what somebody will be to which calendars, a line each; calendars that are gone are left out. */
export async function standingLines(
  standings: readonly ToCalendar[],
  language: InsideLanguage,
  transaction?: Transaction,
): Promise<string[]> {
  const ids = standings.map((s) => s.calendarId);
  const rows = await CalendarRow.findAll({ where: { id: ids }, transaction: transaction ?? null });
  return standings.flatMap((s) => {
    const calendar = rows.find((r) => r.id === s.calendarId);
    return calendar ? [standingWords(s, calendar.name, language)] : [];
  });
}

/**
 * Writes the mail of an invitation, with an address that works once; addresses that were sent earlier stop working. Returns the
 * address.
 */
export async function mailInvitation(
  row: InvitationRow,
  {
    publicUrl,
    outbox,
    by,
  }: {
    readonly publicUrl: string;
    readonly outbox: Outbox;
    readonly by: Pick<UserRow, 'id' | 'name' | 'language'>;
  },
  transaction: Transaction,
): Promise<string> {
  const pass = { kind: 'invitation', userId: null, concerns: row.id, endsAt: row.endsAt } as const;
  const href = await makePass(publicUrl, pass, transaction);
  const house = (await HouseRow.findByPk(1, { transaction }))!;
  // Whoever is invited has no account with a language yet.
  const language = languageOf(by);
  const own = await standingLines(row.standings, language, transaction);
  const lines = row.role === 'steward' ? [letterTexts(language)('steward'), ...own] : own;
  const ends = row.endsAt.toLocaleDateString(LOCALES[language], { dateStyle: 'long', timeZone: house.zone });
  const letter = invitationLetter({ house: house.name, language, by: by.name, lines, href, ends });
  await outbox.put(row.email, 'invitation', letter, transaction, { authorId: by.id });
  return href;
}

/**
 * Returns the invitations that wait for an answer, then those that are over, newest first. `handOut` has the addresses that a
 * steward hands over, by invitation.
 */
export async function allInvitations(
  handOut: ReadonlyMap<string, string> = new Map(),
): Promise<Invitation[]> {
  const now = Date.now();
  const [house, rows] = await Promise.all([
    HouseRow.findByPk(1),
    InvitationRow.findAll({
      where: { sentAt: { [Op.gt]: new Date(now - TOLD) } },
      order: [['sentAt', 'DESC']],
    }),
  ]);
  const byIds = rows.flatMap((r) => r.byId ?? []);
  const users = new Map((await UserRow.findAll({ where: { id: byIds } })).map((u) => [u.id, u.name]));
  const mails = await MailRow.findAll({
    where: { kind: 'invitation', recipient: rows.map((r) => r.email) },
    attributes: ['recipient', 'state'],
    order: [['createdAt', 'ASC']],
  });
  const mailOf = new Map(mails.map((m) => [m.recipient, m.state]));
  return rows
    .map((row) => ({
      id: row.id,
      email: row.email,
      steward: row.role === 'steward',
      standings: row.standings,
      state: invitationState(row, now),
      by: (row.byId && users.get(row.byId)) ?? '',
      sentAt: row.sentAt.toISOString(),
      endsAt: row.endsAt.toISOString(),
      answeredAt: (row.acceptedAt ?? row.withdrawnAt)?.toISOString() ?? null,
      outside: isOutside(row.email, house?.mailDomains ?? []),
      mail: mailOf.get(row.email) ?? null,
      handOutAddress: handOut.get(row.id) ?? null,
      version: row.version,
    }))
    .sort((a, b) => Number(b.state === 'pending') - Number(a.state === 'pending'));
}
