import { Socket } from 'node:net';
import { Sequelize } from 'sequelize';
import { initModels } from './models';

/** Milliseconds. */
export const STORE_TIMES = {
  /** A busy machine takes seconds to start a database process for a new connection. */
  connect: 10_000,
  /** A query waits this long for a free connection of its pool, or for a new one. */
  acquire: 15_000,
  /** A pool keeps an unused connection this long, so that a quiet minute does not cost a new connection. */
  unused: 20_000,
  /** A statement that takes longer is given up, by the store. */
  statement: 20_000,
  /** So long one waits for a lock: what holds it is slow, or fell silent. */
  lock: 12_000,
  /** A transaction whose process says nothing for so long is ended, and its locks are free. */
  idle: 10_000,
  /** A connection on which nothing at all comes for so long is cut: the other side may be gone without a word. */
  silence: 25_000,
} as const;

/** Settings by which PostgreSQL notices that a client is gone, and lets go of what it held. */
const SERVER_OPTIONS = [
  'tcp_keepalives_idle=5',
  'tcp_keepalives_interval=2',
  'tcp_keepalives_count=3',
  'tcp_user_timeout=10000',
  'client_connection_check_interval=2000',
]
  .map((setting) => `-c ${setting}`)
  .join(' ');

/** What every connection to the store is made with, so that nothing waits for ever. */
export function storeOptions({ patient = false } = {}) {
  return {
    connectionTimeoutMillis: STORE_TIMES.connect,
    keepAlive: true,
    ...(patient
      ? {}
      : {
          statement_timeout: STORE_TIMES.statement,
          lock_timeout: STORE_TIMES.lock,
          idle_in_transaction_session_timeout: STORE_TIMES.idle,
          options: SERVER_OPTIONS,
          stream: listeningSocket,
        }),
  };
}

/** Returns the settings of a library's own connection pool: the limits of all connections, except those in `changed`. */
export function poolOptions(databaseUrl: string, max: number, changed: { lock_timeout?: number } = {}) {
  return {
    connectionString: databaseUrl,
    max,
    idleTimeoutMillis: STORE_TIMES.unused,
    ...storeOptions(),
    ...changed,
  };
}

function listeningSocket(): Socket {
  const socket = new Socket();
  socket.setTimeout(STORE_TIMES.silence, () =>
    socket.destroy(new Error('Connection terminated: the store fell silent')),
  );
  return socket;
}

/**
 * Returns a Sequelize instance with all models initialised on it. A patient one, for migrations and seeds, waits as long
 * as a statement takes.
 */
export function connect(databaseUrl: string, options: { readonly patient?: boolean } = {}): Sequelize {
  const sequelize = new Sequelize(databaseUrl, {
    dialect: 'postgres',
    logging: false,
    pool: { max: 8, acquire: STORE_TIMES.acquire, idle: STORE_TIMES.unused },
    dialectOptions: storeOptions(options),
  });
  initModels(sequelize);
  return sequelize;
}
