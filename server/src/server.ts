import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Sequelize } from 'sequelize';
import { createApp } from './app';
import type { Config } from './config';
import { changeMaker, dropOldChanges } from './db/changes';
import { connect } from './db/connect';
import { migrate } from './db/migrate';
import { dropOldEdits } from './edits/editStore';
import { ChangeStream } from './http/changeStream';
import { log } from './log';
import { KeyUses } from './outward/keyUses';
import { followChanges } from './outward/changeListener';
import { pollPath } from './outward/pollPath';
import { Presence } from './outward/presence';
import { Publisher } from './outward/publisher';
import { followSchedule } from './windows/schedule';

export interface RunningServer {
  readonly port: number;
  readonly publisher: Publisher;
  readonly stream: ChangeStream;
  close(): Promise<void>;
}

/** Migrates the database, compiles everything that is shown, and listens. */
export async function startServer(config: Config): Promise<RunningServer> {
  const patient = connect(config.databaseUrl, { patient: true });
  await migrate(patient);
  await patient.close();
  const sequelize = connect(config.databaseUrl);
  const daily = await keepTidy(sequelize);
  const stream = new ChangeStream();
  const publisher = new Publisher(sequelize, config.publicUrl, {
    tell: (news) => stream.tell(news),
    unheard: config.unheard,
  });
  await publisher.start();
  const uses = new KeyUses(sequelize);
  const presence = new Presence(sequelize, {
    get taken() {
      return publisher.taken;
    },
    unheard: config.unheard,
  });
  const change = changeMaker(
    sequelize,
    (made) => publisher.settle(made),
    (made) => presence.confirm(made),
  );
  const { app, close: closeApp } = createApp(config, sequelize, publisher, stream, uses, change);
  const poll = pollPath(publisher, uses);
  const schedule = followSchedule({
    sequelize,
    publisher,
    publicUrl: config.publicUrl,
    change,
  });
  const server = createServer((req, res) => {
    if (!poll(req, res)) app(req, res);
  });
  await listen(server, config);
  // What was worked out before is served already; what is new since is worked out meanwhile.
  await publisher.catchUp();
  await presence.start();
  const told = () => void presence.announce().catch(() => undefined);
  const listener = followChanges(config.databaseUrl, publisher, told);
  const { port } = server.address() as AddressInfo;
  log.info({ port, publicUrl: config.publicUrl }, 'listening');
  return {
    port,
    publisher,
    stream,
    close: async () => {
      stream.close();
      server.closeIdleConnections();
      await new Promise((resolve) => {
        server.close(resolve);
        setTimeout(() => server.closeAllConnections(), 1000).unref();
      });
      await schedule.close();
      await uses.close();
      await listener.close();
      clearInterval(daily);
      await presence.close();
      await closeApp();
      await sequelize.close();
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

/** Drops what is too old, at once and then daily. */
async function keepTidy(sequelize: Sequelize): Promise<NodeJS.Timeout> {
  const tidy = async () => {
    await dropOldEdits(sequelize);
    await dropOldChanges(sequelize);
  };
  await tidy();
  const note = (error: unknown) => log.warn({ err: error }, 'old edits could not be dropped');
  return setInterval(() => void tidy().catch(note), 24 * 3600 * 1000).unref();
}
