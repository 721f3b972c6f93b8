import { join, resolve } from 'node:path';

/** The folder of the project: the built program lies three folders down in it. */
const ROOT = join(import.meta.dirname, '../../..');

/** Where a shelf is kept: what CROW_HOME names, from where the program was called, or a folder in the project. */
export const homeOf = (which: 'own' | 'demo'): string => resolve(process.env.CROW_HOME || join(ROOT, '.crow', which));
