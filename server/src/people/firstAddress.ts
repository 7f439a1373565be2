import { UserRow } from '../db/models';
import { passwordFits } from './passwords';
import { makePass, passEnds } from './passes';

/** Returns an address at which the first steward begins, or null where there is an account already. It works once. */
export async function firstAddress(publicUrl: string): Promise<string | null> {
  if (await UserRow.count()) return null;
  return makePass(publicUrl, { kind: 'first', userId: null, concerns: '', endsAt: passEnds('first') });
}

/** Throws an Error where somebody can sign in with what everybody can know, such as an account of the demo. */
export async function refuseKnownAccounts(
  known: readonly { readonly email: string; readonly password: string }[],
): Promise<void> {
  const rows = await UserRow.findAll({ where: { email: known.map((k) => k.email), restedAt: null } });
  for (const row of rows) {
    const { password } = known.find((k) => k.email === row.email)!;
    if (await passwordFits(row.passwordHash, password))
      throw new Error(
        `The database has the demo’s account ${row.email}, with the password that everybody can know. Use an empty database, ` +
          'or change that password in the demo first.',
      );
  }
}
