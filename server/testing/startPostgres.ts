import { resolve } from 'node:path';
import { ChildProcess } from 'node:child_process';
import { clusterUrl, prepareCluster, startPostgres, waitForEarlierEnd, waitUntilReady } from '../cli/cluster';
import { freePort } from '../cli/ports';

declare global {
  var crowTestPostgres: ChildProcess | undefined;
}

/** Before the integration tests: a real PostgreSQL of their own, with the settings that the program runs it with. */
export default async function setUp(): Promise<void> {
  const cluster = prepareCluster(resolve('.crow/test'));
  await waitForEarlierEnd(cluster);
  const port = await freePort();
  globalThis.crowTestPostgres = startPostgres(cluster, port);
  await waitUntilReady(cluster, port);
  process.env.CROW_TEST_POSTGRES = clusterUrl(cluster, port, 'postgres');
}
