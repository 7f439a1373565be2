import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { hostname } from 'node:os';
import { QueryTypes, type Sequelize } from 'sequelize';
import type { LoggedChange } from '../db/changes';
import type { Unconfirmed } from '../http/callNotes';
import { log } from '../log';
import { PAUSE_MS } from './servingGate';

/** How often a process says that it is there, and what it has taken in. */
const BEAT = 1_000;
/** So long a change waits for the others to confirm it. */
const PATIENCE = 2_000;
const LOOK = 25;

interface OtherRow {
  readonly pid: number;
  readonly host: string;
  readonly id: string;
  readonly until: Date;
  readonly silent: boolean;
}

/**
 * This server process among the others that serve from one database: each announces itself with the last change that acts
 * in it, and until when it serves at the latest without hearing the store again.
 */
export class Presence {
  /** Those of this very process: tests run several servers in one. */
  private static readonly here = new Set<string>();
  private readonly id = randomUUID();
  private ticker: NodeJS.Timeout | undefined;
  private started = false;

  constructor(
    private readonly sequelize: Sequelize,
    private readonly state: { readonly taken: number; readonly unheard: number },
  ) {}

  /** Announces this process: from then on others wait for it. */
  async start(): Promise<void> {
    Presence.here.add(this.id);
    await this.forgetDead();
    this.started = true;
    await this.announce();
    const beat = () => {
      this.ticker = setTimeout(() => void this.announce().catch(noted).finally(beat), BEAT).unref();
    };
    beat();
  }

  /** Says what acts here now, once the process has started. */
  async announce(): Promise<void> {
    if (!this.started) return;
    const { taken, unheard } = this.state;
    await this.sequelize.query(
      `INSERT INTO processes (id, host, pid, birth, heard_at, change_id, serves_until)
       VALUES (:id, :host, :pid, :birth, now(), :taken, now() + :unheard * interval '1 millisecond')
       ON CONFLICT (id) DO UPDATE SET heard_at = excluded.heard_at, change_id = excluded.change_id,
         serves_until = excluded.serves_until`,
      {
        replacements: {
          ...{ id: this.id, host: hostname(), pid: process.pid, birth: birthOf(process.pid) ?? '' },
          ...{ taken, unheard },
        },
      },
    );
  }

  /** Waits until all processes that may be serving act by a change; returns those that have not confirmed it, or null. */
  async confirm(change: LoggedChange): Promise<Unconfirmed | null> {
    const end = Date.now() + PATIENCE;
    for (;;) {
      let left = await this.behind(change.id);
      if (left.some((other) => other.silent)) {
        await this.forgetDead();
        left = await this.behind(change.id);
      }
      const waitable = left.some((other) => !other.silent);
      if (!left.length) return null;
      if (!waitable || Date.now() >= end) {
        log.warn({ changeId: change.id, left }, 'a change is not confirmed by every server');
        const until = Math.max(...left.map((other) => other.until.getTime()));
        return { servers: left.length, until: new Date(until).toISOString() };
      }
      await new Promise((resolve) => setTimeout(resolve, LOOK));
    }
  }

  async close(): Promise<void> {
    clearTimeout(this.ticker);
    Presence.here.delete(this.id);
    await this.sequelize
      .query('DELETE FROM processes WHERE id = :id', { replacements: { id: this.id } })
      .catch(noted);
  }

  private behind(changeId: number): Promise<OtherRow[]> {
    return this.sequelize.query<OtherRow>(
      `SELECT id, host, pid, serves_until AS until, heard_at < now() - :silent * interval '1 millisecond' AS silent
       FROM processes WHERE id <> :id AND change_id < :changeId AND serves_until > now()`,
      { replacements: { id: this.id, changeId, silent: PAUSE_MS }, type: QueryTypes.SELECT },
    );
  }

  /** Processes of this machine that are no longer there serve nothing any more; nor do those whose time is over. */
  private async forgetDead(): Promise<void> {
    const rows = await this.sequelize.query<{ id: string; pid: number; birth: string }>(
      'SELECT id, pid, birth FROM processes WHERE host = :host',
      { replacements: { host: hostname() }, type: QueryTypes.SELECT },
    );
    const gone = rows.filter((row) => !Presence.here.has(row.id) && isGone(row)).map((row) => row.id);
    await this.sequelize.query(
      `DELETE FROM processes WHERE serves_until < now() - interval '1 day' ${gone.length ? 'OR id IN (:gone)' : ''}`,
      { replacements: { gone } },
    );
  }
}

/**
 * Returns what tells a running process from every other one that had its number: the machine's start and its own, in clock
 * ticks after it. Null if no such process runs; empty if this system does not say.
 */
function birthOf(pid: number): string | null {
  try {
    const boot = readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim();
    // Behind the name, which is in parentheses and may hold anything, the start is the 20th field (proc(5)).
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return `${boot}:${stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19]}`;
  } catch {
    return isAlive(pid) ? '' : null;
  }
}

/** Whether a process of this machine has ended. In a container that was started again, its number may be this one's. */
function isGone({ pid, birth }: { readonly pid: number; readonly birth: string }): boolean {
  return pid === process.pid || birthOf(pid) !== birth;
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

function noted(error: unknown): void {
  log.debug({ err: error }, 'this process could not announce itself');
}
