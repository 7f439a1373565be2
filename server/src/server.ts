import { rmSync } from 'node:fs';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import type { Sequelize } from 'sequelize';
import { outsideApp } from './app';
import type { Config } from './config';
import { connect } from './db/connect';
import { migrate } from './db/migrate';
import { sealTokens, sealWith } from './db/sealed';
import { startDesk, type Desk, type Front } from './desk';
import type { DeskData } from './deskThread';
import type { ChangeNews } from '@zonal/core/api';
import { healthOf } from './health';
import { answerStarting, forwardTo } from './http/forward';
import { log } from './log';
import { followChanges } from './outside/changeListener';
import { refuseKnownAccounts } from './people/firstAddress';
import { Compiler } from './outside/compiler';
import { compilingThread } from './outside/compilingThread';
import { pollPath } from './outside/pollPath';
import { Presence } from './outside/presence';
import { Publisher } from './outside/publisher';
import { ServingGate } from './outside/servingGate';
import { countingThread } from './reach/countingThread';
import { PollLog } from './reach/pollLog';
import { startCounting } from './reach/startCounting';
import { socketFolder } from './threads/socketFolder';
import { Thread } from './threads/thread';
import { told } from './threads/told';

export interface RunningServer {
  readonly port: number;
  readonly publisher: Publisher;
  /** Tells open pages what has changed. */
  readonly tell: (news: ChangeNews) => void;
  close(): Promise<void>;
}

/** A process that has not heard the database for this time is not ready. */
const HEALTHY_SILENCE_MS = 20_000;

/** Requests that are under way when the server is to stop may take this long. */
const ANSWER_DEADLINE_MS = 8_000;

type Handler = (req: IncomingMessage, res: ServerResponse) => void;

/**
 * Migrates the database and listens. This thread answers readers; what they are to see is worked out in another one, and
 * organisers are answered by a third. Without a folder of built threads all run in this one.
 */
export async function startServer(config: Config): Promise<RunningServer> {
  const patient = connect(config.databaseUrl, { patient: true });
  await migrate(patient);
  sealWith(config.keysSecret);
  await sealTokens(patient);
  await patient.close();
  const sequelize = connect(config.databaseUrl);
  await refuseKnownAccounts(config.refusedAccounts);
  const { databaseUrl, publicUrl, unheard, threads, hub } = config;
  const documentRoom = Math.ceil(config.room / 4);
  const compilerRoom = config.room - documentRoom;
  const mails = config.mailServer !== null;
  let desk: Desk | null = null;
  const tell = (news: ChangeNews) => {
    desk?.tell(news).catch((error: unknown) => log.warn({ err: error }, 'news could not be told'));
  };
  const publisher: Publisher = new Publisher(
    (outside) =>
      threads
        ? compilingThread(
            outside,
            { databaseUrl, publicUrl, keysSecret: config.keysSecret, mails, hub, room: compilerRoom },
            threads,
          )
        : new Compiler(outside, { sequelize, publicUrl, mails, hub, room: compilerRoom }),
    { tell, unheard, room: documentRoom, mayServe: (): boolean => gate.isOpen },
  );
  const gate = new ServingGate({ catchUp: () => publisher.catchUp() });
  await publisher.start();
  const { proxies } = config;
  const storing = threads
    ? await countingThread({ databaseUrl, proxies }, threads)
    : startCounting({ sequelize, proxies });
  const counting = new PollLog(storing);
  const presence = new Presence(sequelize, {
    get taken() {
      return publisher.taken;
    },
    unheard,
  });
  const front: Front = {
    acts: (change) =>
      told(async () => {
        await publisher.settle(change);
        return change.takesAway ? presence.confirm(change) : null;
      }),
    troubles: () => Promise.resolve(publisher.troubles),
    shownAt: (token) => publisher.shownAt(token),
    told: (token, viewId, asked) => publisher.told(token, viewId, asked),
  };
  const organisers = threads ? deskThread(config, front, threads) : await deskHere(config, sequelize, front);
  const poll = pollPath(publisher, counting);
  const health = healthOf({
    readers: () => Promise.resolve(readersTrouble(publisher, gate)),
    organisers: () => (desk ? desk.trouble() : Promise.resolve('starting')),
  });
  const app = outsideApp(config, publisher, counting, organisers.handle, health);
  const server = createServer((req, res) => {
    if (!poll(req, res)) app(req, res);
  });
  await listen(server, config);
  const listener = followChanges(
    databaseUrl,
    publisher,
    () => void presence.announce().catch(() => undefined),
  );
  [desk] = await Promise.all([organisers.start(), publisher.catchUp(), listener.listening]);
  // Others wait for this process from here on. It serves once it has what they made before.
  await presence.start();
  await gate.start();
  const { port } = server.address() as AddressInfo;
  log.info({ port, publicUrl }, 'listening');
  return {
    port,
    publisher,
    tell,
    close: async () => {
      await desk?.quiet().catch(() => undefined);
      await closeWhenAnswered(server);
      gate.close();
      await organisers.close();
      await counting.close();
      await listener.close();
      await publisher.close();
      await presence.close();
      await sequelize.close();
    },
  };
}

/** Accepts no new requests, and closes each connection once it is answered, at the latest after some seconds. */
async function closeWhenAnswered(server: Server): Promise<void> {
  const closed = new Promise((resolve) => server.close(resolve));
  const idle = setInterval(() => server.closeIdleConnections(), 100);
  const last = setTimeout(() => server.closeAllConnections(), ANSWER_DEADLINE_MS);
  server.closeIdleConnections();
  await closed;
  clearInterval(idle);
  clearTimeout(last);
}

function readersTrouble(publisher: Publisher, gate: ServingGate): string | null {
  if (!gate.isOpen) return 'catching up with changes';
  const { at, silence } = publisher.hearing;
  if (silence < HEALTHY_SILENCE_MS) return null;
  return `the database was last heard at ${new Date(at).toISOString()}`;
}

interface Organisers {
  readonly handle: Handler;
  start(): Promise<Desk>;
  close(): Promise<void>;
}

async function deskHere(config: Config, sequelize: Sequelize, front: Front): Promise<Organisers> {
  const desk = await startDesk(config, sequelize, front);
  return { handle: desk.app, start: () => Promise.resolve(desk), close: () => desk.close() };
}

/** The organisers' side in a thread of its own, behind a socket that only this user can open. */
function deskThread(config: Config, front: Front, folder: URL): Organisers {
  const place = socketFolder();
  const socketPath = join(place, 'desk.sock');
  const data: DeskData = { config: { ...config, threads: null }, socketPath };
  const thread = new Thread<Front, Desk>('desk', new URL('deskThread.js', folder), data, front, 2048);
  let handle: Handler = answerStarting;
  return {
    handle: (req, res) => handle(req, res),
    start: async () => {
      await thread.start();
      handle = forwardTo(socketPath, config.proxies);
      return {
        trouble: () => thread.call((desk) => desk.trouble()),
        tell: (news) => thread.call((desk) => desk.tell(news)),
        quiet: () => thread.call((desk) => desk.quiet()),
        close: () => thread.call((desk) => desk.close()),
      };
    },
    close: async () => {
      await thread.call((desk) => desk.close()).catch(() => undefined);
      await thread.close();
      rmSync(place, { recursive: true, force: true });
    },
  };
}

function listen(server: Server, { host, port }: Config): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, () => {
      server.off('error', reject);
      resolve();
    });
  });
}
