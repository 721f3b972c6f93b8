import { resolve } from 'node:path';
import { ChildProcess } from 'node:child_process';
import { clusterUrl, prepareCluster, startPostgres, waitForEarlierEnd, waitUntilReady } from '../cli/cluster';
import pg from 'pg';
import { Jobs } from '../platform/jobs';
import { connect, migrate } from '../platform/database';
import { databaseUrl, TEMPLATE } from './databases';
import { freePort } from '../cli/ports';

declare global {
  var crowTestPostgres: ChildProcess | undefined;
}

/** Before the integration tests: a real PostgreSQL of their own, as the program runs it but for waiting for the disk. */
export default async function setUp(): Promise<void> {
  const cluster = prepareCluster(resolve('.crow/test'));
  await waitForEarlierEnd(cluster);
  const port = await freePort();
  globalThis.crowTestPostgres = startPostgres(cluster, port, { lasting: false });
  await waitUntilReady(cluster, port);
  process.env.CROW_TEST_POSTGRES = clusterUrl(cluster, port, 'postgres');
  await prepareTemplate();
}

/** The database that each test's own is a copy of: quicker than the migrations every time. */
async function prepareTemplate(): Promise<void> {
  const admin = new pg.Client({ connectionString: process.env.CROW_TEST_POSTGRES });
  await admin.connect();
  await dropEarlier(admin);
  await admin.query(`create database ${TEMPLATE}`);
  await admin.end();
  const url = databaseUrl(TEMPLATE);
  const database = await connect(url);
  await migrate(database);
  await database.source.destroy();
  const jobs = await Jobs.open(url, { supervise: false });
  await jobs.prepare();
  await jobs.close();
}

/** Databases of earlier runs go. */
async function dropEarlier(admin: pg.Client): Promise<void> {
  const { rows } = await admin.query<{ datname: string }>(`select datname from pg_database where datname ~ '^test_'`);
  for (const { datname } of rows) await admin.query(`drop database "${datname}" with (force)`);
}
