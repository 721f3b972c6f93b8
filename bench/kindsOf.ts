import { readSheets } from '@crow/server/cli/sheets';
import { inspectFile } from '@crow/server/engines/sourceFile';
import { findFacts } from '@crow/core/reading/facts/findFacts';
import { rowsOf } from '@crow/core/reading/facts/rows';
for (const path of process.argv.slice(2)) {
  const info = await inspectFile(path, path);
  const sheets = await readSheets(info, 0, ['eng', 'deu', 'fra']);
  const pages = sheets.map(({ text }) => text);
  console.log(path);
  for (const r of rowsOf(pages)) console.log('   ', r.cells.map((c) => c.text).join(' ¦ '));
  for (const [n, f] of Object.entries(findFacts(pages)))
    if (f && n !== 'lines')
      console.log('  ', n, JSON.stringify(f.value), f.confidence.toFixed(2), JSON.stringify(f.why));
}
