import { open, readFile, stat, writeFile } from 'node:fs/promises';
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

/** What XML begins with: a byte order mark, blanks, a declaration or an element. */
const XML = /^(?:\ufeff)?\s*<(?:\?xml\s|!--|[A-Za-z][\w.-]*(?::[\w.-]+)?[\s>])/;

/**
 * Draws a file that is an electronic invoice by itself (UBL or CII, EN 16931) as a PDF, in which it is attached.
 * @param name what the attachment is called
 * @param folderFor where to draw it
 * @returns where it was drawn; undefined when the file is none
 */
export async function drawInvoice(
  path: string,
  name: string,
  folderFor: () => Promise<string> | string,
): Promise<string | undefined> {
  const { size } = await stat(path);
  if (size > MOST_BYTES || !XML.test(await headOf(path))) return undefined;
  const bytes = await readFile(path);
  const data = readInvoice(textOf(bytes));
  if (!data) return undefined;
  // Few files are one: what draws PDFs is loaded when it is needed.
  const { invoicePdf } = await import('@crow/core/pdf/invoicePdf');
  const out = join(await folderFor(), 'invoice.pdf');
  await writeFile(out, await invoicePdf(data, { name, bytes }));
  return out;
}

async function headOf(path: string): Promise<string> {
  const handle = await open(path);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(512), 0, 512, 0);
    return textOf(buffer.subarray(0, bytesRead));
  } finally {
    await handle.close();
  }
}

/** XML is in UTF-8 unless a mark at its beginning, or its declaration, says otherwise. */
function textOf(bytes: Uint8Array): string {
  const start = Buffer.from(bytes.subarray(0, 100)).toString('latin1');
  const said = start.startsWith('\xff\xfe')
    ? 'utf-16le'
    : start.startsWith('\xfe\xff')
      ? 'utf-16be'
      : (/^<\?xml[^>]*encoding=["']([\w-]+)["']/.exec(start)?.[1] ?? 'utf-8');
  try {
    return new TextDecoder(said).decode(bytes);
  } catch {
    return new TextDecoder().decode(bytes);
  }
}

function readInvoice(xml: string): InvoiceData | null {
  try {
    return readInvoiceXml(parser.parse(xml));
  } catch {
    return null;
  }
}
