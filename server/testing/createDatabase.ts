import { openDatabase } from '../openDatabase';

/** An empty database on the tests' server, in place of one of that name. @returns its address */
export async function createDatabase(server: string, name: string): Promise<string> {
  const root = openDatabase(server);
  await root.run(`DROP DATABASE IF EXISTS ${name}`);
  await root.run(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  await root.close();
  return server.replace(/\/[^/]*$/, `/${name}`);
}
