import { strFromU8, unzipSync } from 'fflate';
import { Block, epubOf } from './epub';

const book = {
  id: '00000000-0000-4000-8000-000000000001',
  title: 'Rates & dues <2026>',
  creator: 'Orrin Harbour Council',
  language: 'en',
  modified: new Date('2026-11-29T01:02:03Z'),
};
const PAGES: Block[][] = [
  [
    { text: 'Street parking', heading: true },
    { text: 'It costs 3 < 4 pounds & more.\u0000\u0007', heading: false },
    { jpeg: new Uint8Array([0xff, 0xd8, 0xff, 0xd9]), width: 72 },
  ],
  [{ text: 'No heading here', heading: false }],
  [],
];
const filesIn = (epub: Uint8Array): Record<string, string> =>
  Object.fromEntries(Object.entries(unzipSync(epub)).map(([name, each]) => [name, strFromU8(each)]));
const bytes = epubOf(book, [{ title: book.title, pages: PAGES }]);
const files = filesIn(bytes);

it('says what it is in its first bytes, unpacked', () => {
  expect(Buffer.from(bytes.subarray(30, 58)).toString('latin1')).toBe('mimetypeapplication/epub+zip');
});

it('has a chapter for each page, named by its heading, and a table of contents', () => {
  expect(
    [...files['OEBPS/nav.xhtml'].matchAll(/href="(page[^"]+)">([^<]+)/g)].map(([, file, name]) => [file, name]),
  ).toEqual([
    ['page-1.xhtml', 'Street parking'],
    ['page-2.xhtml', 'Page 2'],
    ['page-3.xhtml', 'Page 3'],
  ]);
  expect(files['OEBPS/page-1.xhtml']).toContain('<h2>Street parking</h2>');
  expect(files['OEBPS/page-3.xhtml']).toContain('Nothing was read on this page.');
});

it('binds several papers, each with its pages below its name', () => {
  const parts = [
    { title: 'Rates', pages: PAGES },
    { title: 'A note', pages: [PAGES[1]] },
  ];
  const nav = filesIn(epubOf(book, parts))['OEBPS/nav.xhtml'];
  const [, list] = /<ol>([\s\S]*)<\/ol>/.exec(nav)!;
  expect(list.replace(/\s+/g, ' ').trim()).toBe(
    '<li><a href="page-1.xhtml">Rates</a><ol> <li><a href="page-1.xhtml">Street parking</a></li> <li><a href="page-2.xhtml">Page 2</a></li> <li><a href="page-3.xhtml">Page 3</a></li> </ol></li> <li><a href="page-4.xhtml">A note</a></li>',
  );
});

it('lists everything that it has, and nothing that it has not', () => {
  const listed = [...files['OEBPS/book.opf'].matchAll(/href="([^"]+)"/g)].map(([, file]) => `OEBPS/${file}`).sort();
  expect(listed).toEqual(
    Object.keys(files)
      .filter((name) => name.startsWith('OEBPS/') && !name.endsWith('.opf'))
      .sort(),
  );
});

it('writes text as XML can hold it', () => {
  expect(files['OEBPS/page-1.xhtml']).toContain('<p>It costs 3 &lt; 4 pounds &amp; more.</p>');
  expect(files['OEBPS/book.opf']).toContain('<dc:title>Rates &amp; dues &lt;2026&gt;</dc:title>');
  expect(files['OEBPS/book.opf']).toContain('2026-11-29T01:02:03Z');
});
