import { connect } from '../db/connect';
import { offer } from '../threads/thread';
import { Counter } from './counter';
import type { CounterData } from './countingThread';
import type { Storing } from './pollLog';

/** The thread that counts polls: it makes out readers and stores what they fetched. */
offer<CounterData, object, Storing>(async ({ databaseUrl, proxies }) => {
  const sequelize = connect(databaseUrl);
  const counter = new Counter({ sequelize, proxies });
  return Promise.resolve({
    take: (batch) => counter.take(batch),
    close: async () => {
      await counter.close();
      await sequelize.close();
    },
  });
});
