import { rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { Sequelize } from 'sequelize';
import type { Config } from './config';
import { deskApp } from './app';
import { changeMaker, dropOldChanges, provideFollower, type LoggedChange } from './db/changes';
import { mayStillAct } from './people/deferred';
import { capOwnKeys } from './people/ownKeys';
import { dropOldEdits } from './inside/editStore';
import { dropUnusedImages } from './inside/imageStore';
import type { Unconfirmed } from './http/callNotes';
import type { ChangeNews } from '@zonal/core/api';
import { ChangeStream } from './http/changeStream';
import { log } from './log';
import type { Trouble } from './glass/trouble';
import { Outbox } from './db/outbox';
import { Jobs } from './jobs/jobs';
import { startPost } from './post/mailer';
import { forgetSignInTries } from './people/signInTries';
import { forgetNotices, stillTold, tellReaders } from './post/notices';
import { startTelling } from './reach/telling';
import { startRollUps } from './reach/rollUp';
import { startWatching } from './reach/watching';
import type { ToldOrder } from './outside/outside';
import type { ShownAt, ToldAt } from './outside/publisher';
import { forgetReaders } from './db/readers';
import { valueOf, type Told } from './threads/told';
import { followSchedule } from './glass/schedule';

const DAY = 24 * 3600 * 1000;

/** What the desk needs of the thread that answers readers. */
export interface Front {
  /** Waits until a change acts outside; returns who has not confirmed that in time. Tells `outside-stopped` and `outside-unsure`. */
  acts(change: LoggedChange): Promise<Told<Unconfirmed | null>>;
  troubles(): Promise<ReadonlyMap<string, Trouble>>;
  /** Which view stands behind an address for readers now; null where they get nothing there. */
  shownAt(token: string): Promise<ShownAt | null>;
  /** What somebody is told who does not look by themselves, of what readers get at an address; null as above. */
  told(token: string, viewId: string | null, asked: ToldOrder): Promise<ToldAt | null>;
}

/** The organisers' side of a server: the API, the application's files, drafts that show themselves. */
export interface Desk {
  /** Tells open pages what has changed. */
  tell(news: ChangeNews): Promise<void>;
  /** Reports why organisers cannot be answered or jobs do not run now, as a sentence, or null. Throws if the database is away. */
  trouble(): Promise<string | null>;
  /** Ends open streams, so that connections can end. */
  quiet(): Promise<void>;
  close(): Promise<void>;
}

/** Starts the organisers' side; it answers what `listen` hands it. */
export async function startDesk(
  config: Config,
  sequelize: Sequelize,
  front: Front,
): Promise<Desk & { readonly app: ReturnType<typeof deskApp>['app'] }> {
  provideFollower(capOwnKeys);
  const daily = await keepTidy(sequelize);
  const stream = new ChangeStream();
  const change = changeMaker(sequelize, async (made) => valueOf(await front.acts(made)));
  const troubles = () => front.troubles();
  const publishing = { sequelize, publicUrl: config.publicUrl, change, troubles };
  const jobs = config.jobs && new Jobs(sequelize, config.databaseUrl, config.jobs);
  const outbox = new Outbox(jobs && ((id, transaction) => jobs.ask('mail', { id }, transaction)));
  await jobs?.start();
  const at = {
    shownAt: (token: string) => front.shownAt(token),
    told: (...asked: Parameters<Front['told']>) => front.told(...asked),
  };
  const noticing = { ...at, sequelize, outbox, publicUrl: config.publicUrl, gap: config.telling.gap };
  const push = { told: at.told, allowed: config.pushAllowed };
  const post =
    jobs &&
    (await startPost(jobs, outbox, sequelize, config.mailServer, (onlyIf) =>
      'notice' in onlyIf ? stillTold(at, onlyIf) : mayStillAct(onlyIf.effect, onlyIf.authorId, onlyIf),
    ));
  const telling =
    jobs &&
    (await startTelling(
      { sequelize, jobs, push, publicUrl: config.publicUrl, hub: config.hub, times: config.telling },
      () => tellReaders(noticing),
    ));
  if (jobs) await startRollUps(jobs, sequelize);
  if (jobs) await startWatching(jobs, { sequelize, outbox, publicUrl: config.publicUrl, troubles });
  const { app, close } = deskApp(config, publishing, stream, noticing, push);
  const schedule = followSchedule(publishing);
  return {
    app,
    tell: (news) => Promise.resolve(stream.tell(news)),
    trouble: async () => {
      await sequelize.query('SELECT 1');
      return (await jobs?.trouble()) ?? null;
    },
    quiet: () => Promise.resolve(stream.close()),
    close: async () => {
      clearInterval(daily);
      await schedule.close();
      await telling?.close();
      post?.close();
      await jobs?.close();
      await close();
    },
  };
}

/** Starts the organisers' side behind a socket of this machine. */
export async function listeningDesk(
  config: Config,
  sequelize: Sequelize,
  front: Front,
  socketPath: string,
): Promise<Desk> {
  const desk = await startDesk(config, sequelize, front);
  const server = createServer(desk.app);
  // A connection that is kept is ended by the other side alone: else a request could meet one that is just being ended.
  server.keepAliveTimeout = 0;
  // One that ended by itself has left its socket behind.
  rmSync(socketPath, { force: true });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(socketPath, resolve);
  });
  return {
    tell: desk.tell,
    trouble: desk.trouble,
    quiet: desk.quiet,
    close: async () => {
      server.close();
      server.closeAllConnections();
      await desk.close();
    },
  };
}

/** Drops what is too old, at once and then daily. */
async function keepTidy(sequelize: Sequelize): Promise<NodeJS.Timeout> {
  const noteFailure = (error: unknown) => log.warn({ err: error }, 'old data could not be deleted');
  const tidy = async () => {
    await dropOldEdits(sequelize);
    await dropUnusedImages(sequelize).catch(noteFailure);
    await dropOldChanges(sequelize);
    await forgetReaders(sequelize);
    await forgetNotices(sequelize);
    await forgetSignInTries(sequelize);
  };
  await tidy();
  return setInterval(() => void tidy().catch(noteFailure), DAY).unref();
}
