import { Logger } from 'pino';
import { Heavy } from '../engines/heavy';
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
  heavy: Heavy;
  /** Where it is known which disks things lie on. */
  disks?: Disks;
}
