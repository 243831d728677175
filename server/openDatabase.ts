import { openConnection, type Database } from './database/database';
import { createTables } from './tables';

/** The database with the tables of all subjects. @param acquireMs as in `openConnection` */
export function openDatabase(databaseUrl: string, acquireMs?: number): Database {
  const connection = openConnection(databaseUrl, acquireMs);
  return { ...connection, tables: createTables(connection.sequelize) };
}
