import { Sequelize } from 'sequelize';
import { CONNECTIONS, partConnections } from './busy';
import { followNodes, readPlace } from './nodes';

/**
 * Connects to MariaDB. Transactions read what is committed at each statement, so that an entry that commits late
 * is seen by the next look, and rows claimed elsewhere do not block ranges.
 * @param acquireMs how long one waits for a connection; longer where nobody waits for a page
 */
export function connect(databaseUrl: string, acquireMs = 2_500): Sequelize {
  const place = readPlace(databaseUrl);
  const sequelize = new Sequelize({
    dialect: 'mariadb',
    ...place.hosts[0],
    username: place.username,
    password: place.password,
    database: place.database,
    logging: false,
    pool: { max: CONNECTIONS.pages + CONNECTIONS.background, min: 0, idle: 30_000, acquire: acquireMs },
    dialectOptions: {
      connectTimeout: 2_000,
      // No column holds what Sequelize would read in its own way (instants are numbers); asking it for each value
      // costs a third of reading them.
      typeCast: undefined,
      initSql: [
        'SET SESSION TRANSACTION ISOLATION LEVEL READ COMMITTED',
        'SET SESSION innodb_lock_wait_timeout = 10',
      ],
    },
  });
  followNodes(sequelize, place);
  partConnections(sequelize, acquireMs);
  return sequelize;
}
