import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { degrees, PDFDocument, PDFName, PDFString } from '@cantoo/pdf-lib';
import { Turn } from '../../geometry';
import { unpackWoff } from '../woff';
import { flattenMarks, markPdf, PageMark } from './markPdf';
import { readMarks } from './readMarks';

const folder = dirname(
  createRequire(join(process.cwd(), 'package.json')).resolve('@fontsource/atkinson-hyperlegible-next/package.json'),
);
const font = (weight: number) =>
  unpackWoff(readFileSync(join(folder, 'files', `atkinson-hyperlegible-next-latin-${weight}-normal.woff`)));
const FONTS = { plain: font(400), bold: font(700) };

async function blank(...turns: Turn[]): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  for (const turn of turns) {
    const page = pdf.addPage([400, 300]);
    page.setRotation(degrees(turn));
    page.setCropBox(10, 20, 380, 260);
  }
  return pdf.save();
}

const about = { by: 'Ida', at: '2027-02-03T10:00:00.000Z', replies: [] };
const mark = (id: string, part: Partial<PageMark>): PageMark => ({
  id,
  kind: 'highlight',
  ink: 'amber',
  boxes: [[40, 44, 120, 18]],
  strokes: [],
  text: '',
  ...about,
  ...part,
});
const MARKS = [
  mark('a', {
    ink: 'plum',
    boxes: [
      [40, 44, 120, 18],
      [40, 64, 60, 18],
    ],
    text: 'two lines',
  }),
  mark('b', { kind: 'strike' }),
  mark('c', {
    kind: 'drawing',
    ink: 'sea',
    strokes: [
      [
        [40, 150, 2],
        [80, 170, 2],
        [90, 120, 2],
      ],
    ],
  }),
  mark('d', {
    kind: 'text',
    boxes: [[40, 180, 120, 40]],
    text: 'Größe – bitte prüfen',
    replies: [{ by: 'Una', at: '2027-02-04T08:00:00.000Z', text: 'Done.' }],
  }),
  mark('e', { kind: 'comment', boxes: [[200, 44, 16, 16]], text: 'why?' }),
  mark('f', { kind: 'stamp', ink: 'sea', boxes: [[180, 180, 80, 40]], text: 'PAID\n2027-02-03' }),
];

const near = (boxes: number[][]) => boxes.map((box) => box.map((value) => Math.round(value)));

describe.each<Turn>([0, 90, 180, 270])('on a page that is shown turned by %i°', (turn) => {
  it('marks lie where they were put, and come back as they were', async () => {
    const bytes = await markPdf(await blank(turn), [MARKS], FONTS);
    const [found] = await readMarks(bytes);
    expect(found.map(({ id, kind, ink, text, by, at }) => [id, kind, ink, text, by, at])).toEqual(
      MARKS.map(({ id, kind, ink, text, by, at }) => [id, kind, ink, text, by, at]),
    );
    expect(near(found[0].boxes)).toEqual(MARKS[0].boxes);
    expect(near(found[2].strokes[0])).toEqual(MARKS[2].strokes[0]);
    expect(
      near(found[4].boxes)[0]
        .slice(0, 2)
        .map((value, at) => Math.abs(value - [200, 44][at]) <= 2),
    ).toEqual([true, true]);
    expect(found[3].replies).toEqual(MARKS[3].replies);
  });
});

it('leaves the bytes of the PDF as they are, and what follows them can be taken off again', async () => {
  const base = await blank(0, 90);
  const marked = await markPdf(base, [[MARKS[0]], []], FONTS);
  expect(Buffer.from(marked).subarray(0, base.length).equals(Buffer.from(base))).toBe(true);
  expect(await readMarks(base)).toEqual([[], []]);
});

it('keeps the annotations that are there, on every page that shares a list of them', async () => {
  const pdf = await PDFDocument.load(await blank(0, 0));
  const link = pdf.context.register(
    pdf.context.obj({
      Type: 'Annot',
      Subtype: 'Link',
      Rect: [0, 0, 9, 9],
      A: { S: 'URI', URI: PDFString.of('https://weir.example') },
    }),
  );
  const list = pdf.context.register(pdf.context.obj([link]));
  for (const page of pdf.getPages()) page.node.set(PDFName.of('Annots'), list);
  const marked = await PDFDocument.load(await markPdf(await pdf.save(), [[MARKS[0]]], FONTS));
  expect(marked.getPages().map((page) => page.node.Annots()!.size())).toEqual([2, 1]);
});

it('takes in what other programs mark, in the ink that is most like theirs', async () => {
  const pdf = await PDFDocument.load(await blank(0));
  const { context } = pdf;
  const [page] = pdf.getPages();
  const ref = context.register(
    context.obj({
      Type: 'Annot',
      Subtype: 'Highlight',
      Rect: [50, 200, 90, 215],
      // As the standard has them, round about; most programs write them otherwise.
      QuadPoints: [50, 200, 90, 200, 90, 215, 50, 215],
      C: [0.6, 0.9, 0.85],
      Contents: PDFString.of('from elsewhere'),
    }),
  );
  page.node.set(PDFName.of('Annots'), context.obj([ref]));
  const [[found]] = await readMarks(await pdf.save());
  expect(found).toMatchObject({ id: '', kind: 'highlight', ink: 'sea', text: 'from elsewhere' });
  expect(near(found.boxes)).toEqual([[40, 65, 40, 15]]);
});

it('makes marks part of the page, so that no annotation is left', async () => {
  const flat = await flattenMarks(await blank(0), [MARKS], FONTS);
  const [page] = (await PDFDocument.load(flat)).getPages();
  expect(page.node.Annots()?.size() ?? 0).toBe(0);
  expect(await readMarks(flat)).toEqual([[]]);
  expect(flat.length).toBeGreaterThan((await blank(0)).length + 500);
});
