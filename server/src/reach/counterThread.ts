import { connect } from '../db/connect';
import { offer } from '../threads/thread';
import type { CounterData } from './countingThread';
import type { Storing } from './pollLog';
import { startCounting } from './startCounting';

/** The thread that counts polls: it makes out readers, stores what they fetched, and forecasts. */
offer<CounterData, object, Storing>(async ({ databaseUrl, proxies }) => {
  const sequelize = connect(databaseUrl);
  const counter = startCounting({ sequelize, proxies });
  return Promise.resolve({
    take: (batch) => counter.take(batch),
    close: async () => {
      await counter.close();
      await sequelize.close();
    },
  });
});
