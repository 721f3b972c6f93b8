import { Logger } from 'pino';
import { Database } from './database';
import { Disks } from './disks';
import { Happenings } from './happenings';
import { Jobs } from './jobs';

/** What services work with. */
export interface Context {
  database: Database;
  jobs: Jobs;
  log: Logger;
  happenings: Happenings;
  /** Where it is known which disks things lie on. */
  disks?: Disks;
}
