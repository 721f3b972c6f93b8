import { PATIENCE_MS } from './patience';

// A test is many waits.
jest.setTimeout(3 * PATIENCE_MS);
