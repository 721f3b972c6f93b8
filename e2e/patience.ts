/**
 * How long one wait may take before what it waits for is said not to happen. Waiting costs nothing when it does, and a machine
 * that does other work beside is several times slower than usual.
 */
export const PATIENCE_MS = 180_000;
