import { Logger } from 'pino';
import { Jobs } from './jobs/jobs';
import { Database } from './store/database';

/** What services work with. */
export interface Context {
  database: Database;
  jobs: Jobs;
  log: Logger;
}
