import { randomBytes } from 'node:crypto';
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

/** Several PDFs as one, in their order, with what is annotated on them. @throws Problem 'file-broken', 'took-too-long' */
export async function mergePdfs(paths: readonly string[], out: string): Promise<void> {
  const { code } = await runChild('qpdf', ['--empty', '--warning-exit-0', '--pages', ...paths, '--', out], {
    limits: { seconds: 300, megabytes: 4000 },
    what: 'Making one PDF of several',
  });
  if (code !== 0) throw new Problem('file-broken', { name: 'One of the papers', format: 'PDF' });
}

/**
 * A PDF that needs a password to be opened, or must not be printed (AES with 256 bits, ISO 32000-2).
 * @param password what opens it; '' for nothing
 * @param folder for what only the program that does it may read
 * @throws Problem 'file-broken', 'took-too-long'
 */
export async function lockPdf(
  path: string,
  out: string,
  { password, mayPrint, folder }: { password: string; mayPrint: boolean; folder: string },
): Promise<void> {
  // What stands in a command can be seen by everybody on the machine.
  const job = join(folder, 'job.json');
  const encrypt = {
    userPassword: password,
    ownerPassword: randomBytes(24).toString('base64url'),
    '256bit': { print: mayPrint ? 'full' : 'none' },
  };
  await writeFile(job, JSON.stringify({ inputFile: path, outputFile: out, encrypt, warningExit0: '' }), {
    mode: 0o600,
  });
  const { code } = await runChild('qpdf', [`--job-json-file=${job}`], {
    limits: { seconds: 120, megabytes: 3000 },
    what: 'Locking a copy',
  });
  if (code !== 0) throw new Problem('file-broken', { name: 'The copy', format: 'PDF' });
}
