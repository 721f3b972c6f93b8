import { Logger } from 'pino';
import { Jobs } from './jobs/jobs';
import { Disks } from './services/disks';
import { Database } from './store/database';

/** What services work with. */
export interface Context {
  database: Database;
  jobs: Jobs;
  log: Logger;
  /** Where it is known which disks things lie on. */
  disks?: Disks;
}
