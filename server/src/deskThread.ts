import type { Config } from './config';
import { connect } from './db/connect';
import { sealWith } from './db/sealed';
import { listeningDesk, type Desk, type Front } from './desk';
import { offer } from './threads/thread';

/** What the desk's thread is started with. */
export interface DeskData {
  readonly config: Config;
  readonly socketPath: string;
}

/** The thread of the organisers' side: what people write is checked, planned and searched there, away from readers. */
offer<DeskData, Front, Desk>(async ({ config, socketPath }, front) => {
  sealWith(config.keysSecret);
  const sequelize = connect(config.databaseUrl);
  const desk = await listeningDesk(config, sequelize, front as unknown as Front, socketPath);
  return {
    ...desk,
    close: async () => {
      await desk.close();
      await sequelize.close();
    },
  };
});
