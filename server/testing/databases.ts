import { randomUUID } from 'node:crypto';
import pg from 'pg';

export const TEMPLATE = 'test_template';

/** The address of a database in the PostgreSQL of the tests. */
export function databaseUrl(name: string): string {
  return process.env.CROW_TEST_POSTGRES!.replace(/\/postgres$/, `/${name}`);
}

/** Makes a database with all tables and queues, and nothing in it. @returns its address */
export async function newDatabase(): Promise<string> {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const admin = new pg.Client({ connectionString: process.env.CROW_TEST_POSTGRES });
  await admin.connect();
  await admin.query(`create database ${name} template ${TEMPLATE} strategy file_copy`);
  await admin.end();
  return databaseUrl(name);
}
