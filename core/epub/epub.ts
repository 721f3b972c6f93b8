import { strToU8, zipSync, Zippable } from 'fflate';

/** A piece of the text of a chapter, or a picture in it. */
export type Block =
  | { text: string; heading: boolean }
  /** `width` in points as it is on the paper. */
  | { jpeg: Uint8Array; width: number };

/** What is told of a book. */
export interface BookMetadata {
  /** A UUID. */
  id: string;
  title: string;
  /** Who it is from, if that is known. */
  creator: string | null;
  /** BCP 47, such as `de`. */
  language: string;
  /** When it was made. */
  modified: Date;
}

/** A paper in a book: what it is called, and the blocks of each of its pages, in reading order. */
export interface BookPart {
  title: string;
  pages: readonly (readonly Block[])[];
}

const FOLDER = 'OEBPS';
const STYLE = `body { margin: 0; line-height: 1.4; }
h1 { font-size: 1.3em; } h2 { font-size: 1.1em; }
p { margin: 0 0 0.6em; }
img { max-width: 100%; }
`;

/**
 * A book for reading devices (EPUB 3.2): text that flows, with its headings and pictures, a chapter for each page of a paper, and a table
 * of contents, in which the pages of several papers stand below what these are called.
 */
export function epubOf(
  { id, title, creator, language, modified }: BookMetadata,
  parts: readonly BookPart[],
): Uint8Array {
  const files: Zippable = {};
  const items: string[] = [];
  const pages = parts.flatMap((part) => part.pages.map((blocks, place) => ({ blocks, part, place })));
  const chapters = pages.map(({ blocks, part, place: number }, at) => {
    const file = `page-${at + 1}.xhtml`;
    const name = part.pages.length === 1 ? part.title : (headingOf(blocks) ?? `Page ${number + 1}`);
    const body = blocks.map((block, place) => {
      if (!('jpeg' in block))
        return block.heading ? `<h2>${escaped(block.text)}</h2>` : `<p>${escaped(block.text)}</p>`;
      const picture = `picture-${at + 1}-${place + 1}.jpg`;
      files[`${FOLDER}/${picture}`] = [block.jpeg, { level: 0 }];
      items.push(`<item id="i${at + 1}-${place + 1}" href="${picture}" media-type="image/jpeg"/>`);
      return `<p><img src="${picture}" alt="A picture on the paper" width="${Math.max(1, Math.round((block.width * 96) / 72))}"/></p>`;
    });
    files[`${FOLDER}/${file}`] = strToU8(
      xhtml(name, language, `<h1>${escaped(name)}</h1>\n${body.join('\n') || '<p>Nothing was read on this page.</p>'}`),
    );
    items.push(`<item id="p${at + 1}" href="${file}" media-type="application/xhtml+xml"/>`);
    return { file, name, part };
  });
  const entry = (file: string, name: string, below = '') => `<li><a href="${file}">${escaped(name)}</a>${below}</li>`;
  const contents = parts
    .flatMap((part) => {
      const own = chapters.filter((each) => each.part === part);
      const entries = own.map(({ file, name }) => entry(file, name));
      if (parts.length === 1 || own.length === 0) return entries;
      return entry(own[0].file, part.title, own.length > 1 ? `<ol>\n${entries.join('\n')}\n</ol>` : '');
    })
    .join('\n');
  const nav = `<nav epub:type="toc"><h1>Contents</h1><ol>\n${contents}\n</ol></nav>`;
  files[`${FOLDER}/nav.xhtml`] = strToU8(xhtml(title, language, nav));
  files[`${FOLDER}/style.css`] = strToU8(STYLE);
  files[`${FOLDER}/book.opf`] = strToU8(`<?xml version="1.0" encoding="UTF-8"?>
<package xmlns="http://www.idpf.org/2007/opf" version="3.0" unique-identifier="id" xml:lang="${escaped(language)}">
<metadata xmlns:dc="http://purl.org/dc/elements/1.1/">
<dc:identifier id="id">urn:uuid:${escaped(id)}</dc:identifier>
<dc:title>${escaped(title)}</dc:title>
<dc:language>${escaped(language)}</dc:language>
${creator ? `<dc:creator>${escaped(creator)}</dc:creator>\n` : ''}<meta property="dcterms:modified">${modified.toISOString().slice(0, 19)}Z</meta>
</metadata>
<manifest>
<item id="nav" href="nav.xhtml" media-type="application/xhtml+xml" properties="nav"/>
<item id="style" href="style.css" media-type="text/css"/>
${items.join('\n')}
</manifest>
<spine>
${chapters.map((_, at) => `<itemref idref="p${at + 1}"/>`).join('\n')}
</spine>
</package>`);
  // The type comes first and as it is (EPUB open container format, 4.3).
  return zipSync({
    mimetype: [strToU8('application/epub+zip'), { level: 0 }],
    'META-INF/container.xml': strToU8(`<?xml version="1.0" encoding="UTF-8"?>
<container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container">
<rootfiles><rootfile full-path="${FOLDER}/book.opf" media-type="application/oebps-package+xml"/></rootfiles>
</container>`),
    ...files,
  });
}

function headingOf(blocks: readonly Block[]): string | undefined {
  const first = blocks.find((block) => 'heading' in block && block.heading);
  return first && 'text' in first ? first.text : undefined;
}

function xhtml(title: string, language: string, body: string): string {
  const tag = escaped(language);
  return `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE html>
<html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops" lang="${tag}" xml:lang="${tag}">
<head><title>${escaped(title || 'Paper')}</title><link rel="stylesheet" type="text/css" href="style.css"/></head>
<body>
${body}
</body>
</html>`;
}

const ENTITIES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Text as XML has it; what XML can't hold at all is left out. */
function escaped(text: string): string {
  return text
    .replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, '')
    .replace(/[&<>"]/g, (sign) => ENTITIES[sign]);
}
