import { Sequelize } from 'sequelize';
import { initModels } from './models';

/** Returns a Sequelize instance with all models initialised on it. */
export function connect(databaseUrl: string): Sequelize {
  const sequelize = new Sequelize(databaseUrl, {
    dialect: 'postgres',
    logging: false,
    pool: { max: 8, acquire: 5000 },
    dialectOptions: { connectionTimeoutMillis: 3000 },
  });
  initModels(sequelize);
  return sequelize;
}
