import type { Sequelize } from 'sequelize';
import { log } from '../log';
import type { ReaderBook } from './readerBook';

interface Use {
  count: number;
  at: number;
  revision: number;
}

const EVERY = 2000;

/** Counts what is fetched with each key, in memory, and stores it now and then in one statement. */
export class KeyUses {
  private uses = new Map<string, Use>();
  private readonly timer = setInterval(() => void this.store(), EVERY).unref();

  constructor(
    private readonly sequelize: Sequelize,
    private readonly readers: ReaderBook,
  ) {}

  /** Notes that a revision was fetched, or found unchanged, with a key; the trace is that of {@link traceOf}. */
  note(keyId: string, revision: number, now: number, trace: string): void {
    this.readers.note(keyId, trace);
    const use = this.uses.get(keyId);
    if (use) {
      use.count++;
      use.at = now;
      use.revision = revision;
    } else this.uses.set(keyId, { count: 1, at: now, revision });
  }

  /** Stores what was counted; while the database is away it is kept. Keys that are gone are left out. */
  async store(): Promise<void> {
    if (!this.uses.size) return;
    await this.readers.store();
    const { uses } = this;
    this.uses = new Map();
    const rows = [...uses].map(([id, u]) => ({
      id,
      at: new Date(u.at).toISOString(),
      r: u.revision,
      c: u.count,
    }));
    try {
      await this.sequelize.query(
        `INSERT INTO key_uses (key_id, at, revision, count)
         SELECT k.id, u.at, u.r, u.c FROM jsonb_to_recordset(:rows) AS u(id uuid, at timestamptz, r int, c bigint)
         JOIN keys k ON k.id = u.id
         ON CONFLICT (key_id) DO UPDATE SET at = greatest(key_uses.at, excluded.at),
           revision = CASE WHEN excluded.at >= key_uses.at THEN excluded.revision ELSE key_uses.revision END,
           count = key_uses.count + excluded.count`,
        { replacements: { rows: JSON.stringify(rows) } },
      );
    } catch (error) {
      log.warn({ err: error }, 'key uses could not be stored; trying again');
      for (const [id, use] of uses) {
        const newer = this.uses.get(id);
        if (newer) newer.count += use.count;
        else this.uses.set(id, use);
      }
    }
  }

  async close(): Promise<void> {
    clearInterval(this.timer);
    await this.store();
  }
}
