export type Format = 'pdf' | 'jpeg' | 'png' | 'tiff' | 'heic' | 'webp';

export const FORMAT_NAMES: Record<Format, string> = {
  pdf: 'PDF',
  jpeg: 'JPEG',
  png: 'PNG',
  tiff: 'TIFF',
  heic: 'HEIC',
  webp: 'WebP',
};

/** How many bytes `detectFormat` wants to see. PDF readers look for the header in the first 1024. */
export const HEAD_BYTES = 1024;

const HEIC_BRANDS = ['heic', 'heix', 'heif', 'hevc', 'hevx', 'mif1', 'msf1', 'heim', 'heis'];

/** What a file is, from its first bytes; its name doesn't matter. */
export function detectFormat(head: Uint8Array): Format | undefined {
  const text = Buffer.from(head).toString('latin1');
  if (text.startsWith('\xff\xd8\xff')) return 'jpeg';
  if (text.startsWith('\x89PNG\r\n\x1a\n')) return 'png';
  if (/^(II\*\0|MM\0\*|II\+\0|MM\0\+)/.test(text)) return 'tiff';
  if (text.startsWith('RIFF') && text.slice(8, 12) === 'WEBP') return 'webp';
  if (text.slice(4, 8) === 'ftyp' && HEIC_BRANDS.includes(text.slice(8, 12))) return 'heic';
  if (text.slice(0, HEAD_BYTES).includes('%PDF-')) return 'pdf';
  return undefined;
}

/** What a file that can't be taken in looks like, for the sentence about it: begins with a comma, or is empty. */
export function looksLike(head: Uint8Array): string {
  const text = Buffer.from(head).toString('latin1');
  if (text.startsWith('PK\x03\x04')) return ', it looks like a ZIP archive or an office document';
  if (text.startsWith('\xd0\xcf\x11\xe0')) return ', it looks like an older office document';
  if (text.startsWith('GIF8')) return ', it looks like a GIF picture';
  if (text.startsWith('\x7fELF') || text.startsWith('MZ')) return ', it looks like a program';
  if (/^\s*<(!doctype|html|svg|\?xml)/i.test(text)) return ', it looks like a web page or XML';
  if (/^[\t\n\r\x20-\x7e\x80-\xff]+$/.test(text)) return ', it looks like plain text';
  return '';
}
