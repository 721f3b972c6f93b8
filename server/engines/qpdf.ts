import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Problem } from '@crow/contract/problems';
import { runChild } from './child';

/**
 * The given pages (from 1) of a PDF as a PDF of their own, repaired where that is possible.
 * @throws Problem 'file-broken'
 */
export async function extractPdfPages(path: string, name: string, pages: number[], folder: string): Promise<Buffer> {
  const out = join(folder, 'extracted.pdf');
  const args = ['--decrypt', '--warning-exit-0', path, '--pages', '.', pages.join(','), '--', out];
  const { code } = await runChild('qpdf', args, {
    limits: { seconds: 120, megabytes: 3000 },
    what: `Taking pages out of “${name}”`,
  });
  if (code !== 0) throw new Problem('file-broken', { name, format: 'PDF' });
  return readFile(out);
}
