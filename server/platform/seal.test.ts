import { statSync } from 'node:fs';
import { join } from 'node:path';
import { scratchFolder } from '../testing/made';
import { Seal } from './seal';

it('opens what it sealed, also after a new start, and nothing that was touched or sealed elsewhere', () => {
  const file = join(scratchFolder(), 'home/key');
  const sealed = new Seal(file).seal('Hafen über See');
  expect(sealed).not.toContain(Buffer.from('Hafen').toString('base64').slice(0, 6));
  expect(new Seal(file).open(sealed)).toBe('Hafen über See');
  expect(statSync(file).mode & 0o077).toBe(0);
  const touched = Buffer.from(sealed, 'base64');
  touched[14] ^= 1;
  expect(new Seal(file).open(touched.toString('base64'))).toBeUndefined();
  expect(new Seal(join(scratchFolder(), 'key')).open(sealed)).toBeUndefined();
  expect(new Seal(file).open('short')).toBeUndefined();
});
