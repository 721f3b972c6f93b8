import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Problem } from '@crow/contract/problems';
import { runChild } from './child';

/**
 * The given pages (from 1) of a PDF as a PDF of their own, repaired where that is possible.
 * @throws Problem 'file-broken'
 */
export async function extractPdfPages(path: string, name: string, pages: number[], folder: string): Promise<Buffer> {
  const out = join(folder, 'extracted.pdf');
  // What only other pages are drawn with stays behind.
  const args = [
    '--decrypt',
    '--warning-exit-0',
    '--remove-unreferenced-resources=yes',
    path,
    '--pages',
    '.',
    pages.join(','),
    '--',
    out,
  ];
  const { code } = await runChild('qpdf', args, {
    limits: { seconds: 120, megabytes: 3000 },
    what: `Taking pages out of “${name}”`,
  });
  if (code !== 0) throw new Problem('file-broken', { name, format: 'PDF' });
  return readFile(out);
}

/**
 * Writes a copy of a PDF that needs no password.
 * @param folder for what only the program that does it may read: the password is given to it in a file, since what stands in a command can
 * be seen by everybody on the machine
 * @throws Problem 'password-wrong', 'took-too-long'
 */
export async function unlockPdf(
  path: string,
  out: string,
  password: string,
  name: string,
  folder: string,
): Promise<void> {
  const secret = join(folder, 'secret');
  await writeFile(secret, `${password}\n`, { mode: 0o600 });
  const { code } = await runChild('qpdf', [`--password-file=${secret}`, '--decrypt', path, out], {
    limits: { seconds: 120, megabytes: 3000 },
    what: `Unlocking “${name}”`,
  });
  // 3: with warnings, but done.
  if (code !== 0 && code !== 3) throw new Problem('password-wrong', { name });
}
