import * as actors from './actors';
import * as blobs from './blobs';
import * as copyPlaces from './copyPlaces';
import * as devices from './devices';
import * as documents from './documents';
import * as folders from './folders';
import * as keeping from './keeping';
import * as ledger from './ledger';
import * as marks from './marks';
import * as parcels from './parcels';
import * as pages from './pages';
import * as program from './program';
import * as stacks from './stacks';

export * from './actors';
export * from './blobs';
export * from './copyPlaces';
export * from './devices';
export * from './documents';
export * from './folders';
export * from './keeping';
export * from './ledger';
export * from './marks';
export * from './pages';
export * from './parcels';
export * from './program';
export * from './stacks';

/** Every table has its entity: entities.test.ts compares them with the database, column by column. */
export const ENTITIES = [
  actors,
  blobs,
  copyPlaces,
  devices,
  documents,
  folders,
  keeping,
  ledger,
  marks,
  pages,
  parcels,
  program,
  stacks,
].flatMap((those) => Object.values(those));
