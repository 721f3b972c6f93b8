import { constants, setPriority } from 'node:os';
import { openContext } from './assembly';
import { ownScratch } from './engines/scratch';
import { Jobs, WORKER_QUEUES } from './platform/jobs';
import { workerHandlers } from './handlers';
import { Worker } from './platform/worker';
import { openLog } from './platform/log';
import { connect } from './platform/database';
import { SourceShelf } from './capture/sources';

/** A worker process: reads pages and binds PDFs for the database that CROW_DATABASE names, until told to stop. */
async function main(): Promise<void> {
  const url = process.env.CROW_DATABASE;
  if (!url) throw new Error('CROW_DATABASE is not set: the address of the database');
  // Whoever is at the screen comes first: the picture of a camera stays smooth while pages are read.
  setPriority(constants.priority.PRIORITY_LOW);
  ownScratch();
  const log = openLog('worker');
  const database = await connect(url, { poolSize: 3 });
  const context = openContext({ database, jobs: await Jobs.open(url, { supervise: false }), log });
  const sources = new SourceShelf(database);
  const worker = new Worker(context, WORKER_QUEUES, workerHandlers(context, sources));
  worker.start();
  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    // A page under way is left for later rather than waited for: it counts as work of a worker that ended.
    setTimeout(() => process.exit(0), 1500).unref();
    await worker.stop();
    await sources.close();
    await context.jobs.close();
    await database.source.destroy();
    process.exit(0);
  };
  process.on('SIGTERM', () => void stop());
  process.on('SIGINT', () => void stop());
  process.on('disconnect', () => void stop());
}

main().catch((error) => {
  openLog('worker').error({ error }, 'could not start');
  process.exit(1);
});
