import { stat, writeFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { BINDING_SIZES, BindingSize } from '../engines/bindingPictures';
import { bindPages, PageToBind } from '../shelf/binding';
import { openFile, parseArguments, parseLanguages, sentence } from './files';
import { readSheets } from './sheets';

/** `./crow bind`: all files into one searchable PDF, photos cut to their sheets, without server or database. Files that
 * can't be opened are left out. */
export async function main(args: string[]): Promise<number> {
  const { files, given } = parseArguments(args, ['out', 'size', 'languages']);
  const { out, size = 'full' } = given;
  if (!out) throw new Error('Say where the PDF goes: --out OUT.pdf');
  if (!BINDING_SIZES.includes(size as BindingSize))
    throw new Error(`“${size}” is not a size: ${BINDING_SIZES.join(', ')}.`);
  const languages = await parseLanguages(given.languages);
  const pages: PageToBind[] = [];
  let failed = false;
  let language = '';
  for (const file of files) {
    try {
      const info = await openFile(file);
      const read: PageToBind[] = [];
      for (let number = 0; number < info.pages.length; number++) {
        console.error(`${file}: page ${number + 1} of ${info.pages.length}`);
        for (const { recipe, turn, text, own } of await readSheets(info, number, languages)) {
          language ||= text.language;
          read.push({ info, number, turn, text, own, recipe, asIs: info.format === 'pdf' && !recipe });
        }
      }
      pages.push(...read);
    } catch (error) {
      failed = true;
      console.log(JSON.stringify({ file, error: sentence(error) }));
    }
  }
  if (pages.length === 0) return 1;
  const title = basename(out).replace(/\.pdf$/i, '');
  const { bytes } = await bindPages(pages, { title, created: new Date(), language, size: size as BindingSize });
  await writeFile(out, bytes);
  console.log(JSON.stringify({ out, pages: pages.length, bytes: (await stat(out)).size }));
  return failed ? 1 : 0;
}
