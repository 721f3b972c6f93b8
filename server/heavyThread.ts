import { doHeavy } from './engines/heavy';

/** A thread of the server that does heavy work; see engines/heavy.ts. */
export default doHeavy;
