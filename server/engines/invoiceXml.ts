import { readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { XMLParser } from 'fast-xml-parser';
import { InvoiceData, readInvoiceXml } from '@crow/core/reading/facts/invoiceData';
import { ChildLimits, runChild } from './child';
import { withScratch } from './scratch';

/** For all attachments of a file together. */
const SECONDS = 20;
const MEGABYTES = 1000;
const MOST_BYTES = 5_000_000;
const MOST_ATTACHMENTS = 20;

const parser = new XMLParser({
  ignoreAttributes: true,
  removeNSPrefix: true,
  // Numbers and dates as they are written; nothing that the document itself defines is put in.
  parseTagValue: false,
  processEntities: false,
});

/** The electronic invoice that a PDF carries (Factur-X, ZUGFeRD and the like); null where there is none, or none that can be read. */
export async function embeddedInvoice(path: string): Promise<InvoiceData | null> {
  const until = performance.now() + SECONDS * 1000;
  const limits = (): ChildLimits => ({
    seconds: Math.max(1, (until - performance.now()) / 1000),
    megabytes: MEGABYTES,
  });
  const listed = await runChild('pdfdetach', ['-list', path], { limits: limits(), what: 'Looking for attachments' });
  const { code, output } = listed;
  if (code !== 0) return null;
  const attached = [...output.toString().matchAll(/^(\d+): .*\.xml\s*$/gim)].map(([, number]) => number);
  for (const number of attached.slice(0, MOST_ATTACHMENTS)) {
    if (performance.now() > until) return null;
    const data = await withScratch(async (folder) => {
      // The name that it has in the PDF is not used.
      const out = join(folder, 'invoice.xml');
      await runChild('pdfdetach', ['-save', number, '-o', out, path], {
        limits: limits(),
        what: 'Taking out an attachment',
      });
      const size = await stat(out).then(
        (found) => found.size,
        () => Infinity,
      );
      return size <= MOST_BYTES ? readInvoice(await readFile(out, 'utf8')) : null;
    });
    if (data) return data;
  }
  return null;
}

function readInvoice(xml: string): InvoiceData | null {
  try {
    return readInvoiceXml(parser.parse(xml));
  } catch {
    return null;
  }
}
