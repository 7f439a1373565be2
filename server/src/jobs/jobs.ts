import { setMaxListeners } from 'node:events';
import { setTimeout as delay } from 'node:timers/promises';
import PgBoss from 'pg-boss';
import type { Sequelize, Transaction } from 'sequelize';
import { STORE_TIMES, poolOptions } from '../db/connect';
import { log } from '../log';

/** What is to be done apart from any request, with what it is told. */
export interface JobData {
  /** Hand a mail over to the mail server. */
  mail: { readonly id: string };
  /** Make sums of old polls. */
  rollUp: object;
  /** Tell a key's system outside of changes. */
  push: { readonly keyId: string; /** Tries of jobs that this one goes on with. */ readonly tried?: number };
  /** Tell the hub of a listed window. */
  hub: { readonly windowId: string };
  /** Look whether there is something that organisers should hear of. */
  watch: object;
}
export type JobName = keyof JobData;

/** How often a job is tried again. */
export const RETRIES: Readonly<Record<JobName, number>> = {
  mail: 9,
  push: 12,
  hub: 6,
  rollUp: 2,
  watch: 0,
};

/** A job as its worker gets it. */
export interface Try<N extends JobName> {
  readonly data: JobData[N];
  /** How often it was tried before, and whether it is not tried again after this. */
  readonly tried: number;
  readonly last: boolean;
}

/** Seconds. */
export interface JobTimes {
  /** A job of which nothing was heard for so long was lost with its process, and is done again. */
  readonly lost: number;
  /** So often new jobs are looked for, and lost ones. */
  readonly look: number;
  /** One that failed is tried again after so long, then after twice as long, and so on. */
  readonly again: number;
}

/** How long a job that is being done may hold up closing. */
const CLOSING_MS = 5_000;

/** PostgreSQL's code for a statement that was ended because it and another one waited for each other. */
const DEADLOCK_DETECTED = '40P01';
const MAX_DEADLOCKS = 10;

/**
 * Runs a statement again if it was ended in a deadlock: two processes that start for the first time, or one beside another
 * one's jobs, may each wait for a table of the other's.
 */
export async function retryDeadlocks<T>(work: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await work();
    } catch (error) {
      if ((error as { code?: string }).code !== DEADLOCK_DETECTED || tries >= MAX_DEADLOCKS) throw error;
    }
  }
}

/**
 * Jobs that any process does, each once: they are kept in the database, beside what made them necessary, and outlast every
 * process. One that fails is tried again later and later.
 */
export class Jobs {
  private readonly boss: PgBoss;
  private readonly loops: Promise<void>[] = [];
  private readonly closing = new AbortController();

  constructor(
    private readonly sequelize: Sequelize,
    databaseUrl: string,
    private readonly times: JobTimes,
  ) {
    const { lost, look, again } = times;
    // Each loop listens to it.
    setMaxListeners(0, this.closing.signal);
    this.boss = new PgBoss({
      // At the first start it waits for another process that makes the tables.
      ...poolOptions(databaseUrl, 2, { lock_timeout: STORE_TIMES.statement }),
      expireInSeconds: lost,
      pollingIntervalSeconds: look,
      retryDelay: again,
      retryBackoff: true,
      maintenanceIntervalSeconds: Math.max(1, Math.min(60, lost)),
    });
    this.boss.on('error', (error) => this.warn(error, 'jobs: the database cannot be reached'));
  }

  async start(): Promise<void> {
    await this.boss.start();
    for (const [name, retryLimit] of Object.entries(RETRIES))
      await retryDeadlocks(() => this.boss.createQueue(name, { name, policy: 'standard', retryLimit }));
  }

  /** Does jobs of a name, one after the other or some at once. What throws is tried again. */
  work<N extends JobName>(name: N, handle: (job: Try<N>) => Promise<void>, atOnce = 1): void {
    for (let i = 0; i < atOnce; i++) this.loops.push(this.doAll(name, handle));
  }

  /**
   * Fetches and does jobs until this is closed. The library has workers of its own, but they leave a failure to store the
   * outcome of a job unhandled.
   */
  private async doAll<N extends JobName>(name: N, handle: (job: Try<N>) => Promise<void>): Promise<void> {
    const { signal } = this.closing;
    while (!signal.aborted) {
      const jobs = await this.boss
        .fetch<JobData[N]>(name, { includeMetadata: true })
        .catch((error: unknown) => this.warn(error, 'jobs: the database cannot be reached'));
      for (const job of jobs ?? []) {
        const failure = await this.failureOf(handle, job);
        const outcome = failure ? this.boss.fail(name, job.id, failure) : this.boss.complete(name, job.id);
        // The job is done again once it counts as lost.
        await outcome.catch((error: unknown) =>
          this.warn(error, 'jobs: the outcome of a job could not be stored'),
        );
      }
      // After one there may be more.
      if (!jobs?.length) await delay(this.times.look * 1000, undefined, { signal }).catch(() => undefined);
    }
  }

  private warn(err: unknown, message: string): void {
    log.warn({ err }, message);
  }

  /** Does a job; returns why it failed, or null. One that takes too long fails, too. */
  private async failureOf<N extends JobName>(
    handle: (job: Try<N>) => Promise<void>,
    { data, retryCount, retryLimit }: PgBoss.JobWithMetadata<JobData[N]>,
  ): Promise<{ message: string } | null> {
    const ended = new AbortController();
    const expired = async () => {
      await delay(this.times.lost * 1000, undefined, { signal: ended.signal });
      throw new Error(`It took more than ${this.times.lost} seconds.`);
    };
    try {
      const work = handle({ data, tried: retryCount, last: retryCount >= retryLimit });
      await Promise.race([work, expired()]);
      return null;
    } catch (error) {
      return { message: (error as Error).message };
    } finally {
      ended.abort();
    }
  }

  /** Puts a job off for some seconds, in place of the one that is being done. */
  async putOff<N extends JobName>(name: N, data: JobData[N], seconds: number): Promise<void> {
    await this.boss.send(name, data, { startAfter: seconds });
  }

  /** Asks for a job, as part of a transaction: it is there if the transaction is kept. */
  async ask<N extends JobName>(name: N, data: JobData[N], transaction: Transaction): Promise<void> {
    const executeSql = async (text: string, values: unknown[]) => {
      const bind = values.map((value) => (value === undefined ? null : value));
      const [rows] = await this.sequelize.query(text, { bind, transaction });
      return { rows };
    };
    await this.boss.send(name, data, { db: { executeSql } });
  }

  /** Has a job done each day at an hour in UTC, by one process of all. */
  async daily(name: JobName, hour: number): Promise<void> {
    await this.boss.schedule(name, `0 ${hour} * * *`);
  }

  /** Has a job done each minute, by one process of all. */
  async eachMinute(name: JobName): Promise<void> {
    await this.boss.schedule(name, '* * * * *');
  }

  /** Reports why no job runs now, as a sentence, or null. Throws if the database is away. */
  async trouble(): Promise<string | null> {
    return (await this.boss.getQueue('mail')) ? null : 'the queues of jobs are missing';
  }

  async close(): Promise<void> {
    this.closing.abort();
    await Promise.race([Promise.all(this.loops), delay(CLOSING_MS, undefined, { ref: false })]);
    await this.boss.stop({ graceful: true, timeout: CLOSING_MS, wait: true });
  }
}
