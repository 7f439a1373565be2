import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createApp } from './app';
import type { Config } from './config';
import { changeMaker } from './db/changes';
import { connect } from './db/connect';
import { migrate } from './db/migrate';
import { dropOldEdits } from './edits/editStore';
import { ChangeStream } from './http/changeStream';
import { log } from './log';
import { KeyUses } from './outward/keyUses';
import { followChanges } from './outward/changeListener';
import { pollPath } from './outward/pollPath';
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
  const sequelize = connect(config.databaseUrl);
  await migrate(sequelize);
  await dropOldEdits(sequelize);
  const stream = new ChangeStream();
  const publisher = new Publisher(sequelize, config.publicUrl, { tell: (news) => stream.tell(news) });
  await publisher.start();
  const uses = new KeyUses(sequelize);
  const { app, close: closeApp } = createApp(config, sequelize, publisher, stream, uses);
  const poll = pollPath(publisher, uses);
  const schedule = followSchedule({
    sequelize,
    publisher,
    publicUrl: config.publicUrl,
    change: changeMaker(sequelize, (made) => publisher.settle(made)),
  });
  const server = createServer((req, res) => {
    if (!poll(req, res)) app(req, res);
  });
  await listen(server, config);
  // What was worked out before is served already; what is new since is worked out meanwhile.
  await publisher.catchUp();
  const listener = followChanges(config.databaseUrl, publisher);
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
