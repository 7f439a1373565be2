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

  constructor(
    private readonly sequelize: Sequelize,
    databaseUrl: string,
    { lost, look, again }: JobTimes,
  ) {
    this.boss = new PgBoss({
      // At the first start it waits for another process that makes the tables.
      ...poolOptions(databaseUrl, 2, { lock_timeout: STORE_TIMES.statement }),
      expireInSeconds: lost,
      pollingIntervalSeconds: look,
      retryDelay: again,
      retryBackoff: true,
      maintenanceIntervalSeconds: Math.max(1, Math.min(60, lost)),
    });
    this.boss.on('error', (error) => log.warn({ err: error }, 'jobs: the store cannot be reached'));
  }

  async start(): Promise<void> {
    await this.boss.start();
    for (const [name, retryLimit] of Object.entries(RETRIES))
      await retryDeadlocks(() => this.boss.createQueue(name, { name, policy: 'standard', retryLimit }));
  }

  /** Does jobs of a name, one after the other or some at once. What throws is tried again. */
  async work<N extends JobName>(name: N, handle: (job: Try<N>) => Promise<void>, atOnce = 1): Promise<void> {
    for (let i = 0; i < atOnce; i++) {
      let worker = '';
      worker = await this.boss.work<JobData[N]>(name, { includeMetadata: true }, async (jobs) => {
        for (const { data, retryCount, retryLimit } of jobs)
          await handle({ data, tried: retryCount, last: retryCount >= retryLimit });
        // Where there was one there may be more: the next is looked for at once.
        if (worker) this.boss.notifyWorker(worker);
      });
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
    await this.boss.stop({ graceful: true, timeout: 5_000, wait: true });
  }
}
