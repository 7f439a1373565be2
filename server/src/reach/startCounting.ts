import type { Sequelize } from 'sequelize';
import { log } from '../log';
import { Counter, type CounterOptions } from './counter';
import { makeForecasts } from './forecasting';
import type { Storing } from './pollLog';

/** So often, in milliseconds, it is looked whether there are revisions of which nothing is expected yet. */
const EVERY = 2_000;

/** Starts what stores polls, and says of each new revision what is expected of it. */
export function startCounting(options: CounterOptions): Storing {
  const counter = new Counter(options);
  let making: Promise<void> | null = null;
  const timer = setInterval(() => {
    making ??= forecastAll(options.sequelize).finally(() => (making = null));
  }, EVERY).unref();
  return {
    take: (batch) => counter.take(batch),
    close: async () => {
      clearInterval(timer);
      await making;
      await counter.close();
    },
  };
}

async function forecastAll(sequelize: Sequelize): Promise<void> {
  try {
    while (await makeForecasts(sequelize)) {
      // As long as there are more.
    }
  } catch (error) {
    log.warn({ err: error }, 'forecasts could not be made; trying again later');
  }
}
