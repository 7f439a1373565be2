import { createCipheriv, createDecipheriv, createHmac, hkdfSync, randomBytes } from 'node:crypto';
import { QueryTypes, type Sequelize } from 'sequelize';

/** Begins what is sealed; what was written before there were seals has none. */
const MARK = 's1:';
const [NONCE, TAG] = [12, 16];

let key: Buffer | null = null;

/** Says by which secret texts are sealed in this thread. */
export function sealWith(secret: string): void {
  key = Buffer.from(hkdfSync('sha256', secret, '', 'the secret parts of addresses', 32));
}

/** Returns a text that says nothing to whoever has the store but not the secret (AES-256-GCM). */
export function seal(text: string): string {
  if (!key) throw new Error('There is no secret to seal with.');
  const nonce = randomBytes(NONCE);
  const cipher = createCipheriv('aes-256-gcm', key, nonce);
  const sealed = Buffer.concat([nonce, cipher.update(text, 'utf8'), cipher.final(), cipher.getAuthTag()]);
  return MARK + sealed.toString('base64url');
}

/** Returns what was sealed, or a text that never was. Throws where it was sealed by another secret. */
export function unsealed(text: string): string {
  if (!text.startsWith(MARK)) return text;
  if (!key) throw new Error('There is no secret to open seals with.');
  const sealed = Buffer.from(text.slice(MARK.length), 'base64url');
  const decipher = createDecipheriv('aes-256-gcm', key, sealed.subarray(0, NONCE));
  decipher.setAuthTag(sealed.subarray(-TAG));
  return decipher.update(sealed.subarray(NONCE, -TAG), undefined, 'utf8') + decipher.final('utf8');
}

/** Returns a secret that is made of the one by which texts are sealed, the same in every process. */
export function secretFor(text: string): string {
  if (!key) throw new Error('There is no secret to make others of.');
  return createHmac('sha256', key).update(text).digest('base64url');
}

const TABLES = [
  { table: 'keys', id: 'id' },
  { table: 'turned_tokens', id: 'token' },
  { table: 'link_sheets', id: 'id' },
] as const;

/** Rows that are sealed by one statement. */
const AT_ONCE = 5_000;

/**
 * Seals the addresses that were stored before there were seals. Throws where those that are sealed were so by another
 * secret: then no address could be shown or answered.
 */
export async function sealTokens(sequelize: Sequelize): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    for (const { table, id } of TABLES) {
      const select = { type: QueryTypes.SELECT, transaction } as const;
      const rows = await sequelize.query<{ id: string; token: string }>(
        `SELECT ${id}::text AS id, token FROM ${table} WHERE token NOT LIKE '${MARK}%' FOR UPDATE`,
        select,
      );
      for (let at = 0; at < rows.length; at += AT_ONCE) {
        const sealed = rows.slice(at, at + AT_ONCE).map((row) => ({ id: row.id, token: seal(row.token) }));
        await sequelize.query(
          `UPDATE ${table} t SET token = r.token FROM jsonb_to_recordset(:sealed) AS r(id text, token text)
           WHERE t.${id}::text = r.id`,
          { replacements: { sealed: JSON.stringify(sealed) }, transaction },
        );
      }
      const [one] = await sequelize.query<{ token: string }>(
        `SELECT token FROM ${table} WHERE token LIKE '${MARK}%' LIMIT 1`,
        select,
      );
      try {
        if (one) unsealed(one.token);
      } catch {
        throw new Error(
          'The addresses in the database were sealed with another secret. Set KEYS_SECRET (or SESSION_SECRET, where there ' +
            'is no KEYS_SECRET) to what it was, and start again.',
        );
      }
    }
  });
}

/** Returns what stands for a mail address, so that it is found again though it is sealed. */
export function mailPrintOf(mail: string): string {
  return createHmac('sha256', secretFor('mail addresses'))
    .update(mail.trim().toLowerCase())
    .digest('base64url');
}
