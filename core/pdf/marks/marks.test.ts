import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { degrees, PDFArray, PDFDict, PDFDocument, PDFName, PDFString } from '@cantoo/pdf-lib';
import { Turn } from '../../geometry';
import { unpackWoff } from '../woff';
import { changedAs, changedMarks } from './changedMarks';
import { flattenMarks, markPdf, PageMark } from './markPdf';
import { readAnnotated, readMarks } from './readMarks';
import { areSameButForMarks } from './samePages';

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

describe('what another program did to a file', () => {
  const written = async () => markPdf(await blank(0), [MARKS], FONTS);
  async function edited(bytes: Uint8Array, work: (pdf: PDFDocument) => void): Promise<Uint8Array> {
    const pdf = await PDFDocument.load(bytes);
    work(pdf);
    return pdf.save();
  }
  const changes = async (now: Uint8Array, was?: Uint8Array) =>
    changedMarks(await readAnnotated(was ?? (await written())), await readAnnotated(now));
  const annotation = (pdf: PDFDocument, at: number) => pdf.getPage(0).node.Annots()!.lookup(at, PDFDict);

  it('is nothing when it only packs it otherwise', async () => {
    const was = await written();
    const now = await edited(was, () => undefined);
    expect(Buffer.from(now).equals(Buffer.from(was))).toBe(false);
    expect(await areSameButForMarks(was, now)).toBe(true);
    expect(await changes(now, was)).toEqual({ added: [], changed: [], removed: [], answered: [] });
  });

  it('is told apart: moved, removed, new, answered', async () => {
    const now = await edited(await written(), (pdf) => {
      const { context } = pdf;
      const list = pdf.getPage(0).node.Annots()!;
      const stamp = annotation(pdf, list.size() - 1);
      const rect = stamp.lookup(PDFName.of('Rect'), PDFArray).asArray() as unknown as { asNumber(): number }[];
      stamp.set(PDFName.of('Rect'), context.obj(rect.map((value, at) => value.asNumber() + (at % 2 ? 0 : 30))));
      const answer = {
        Type: 'Annot',
        Subtype: 'Text',
        Rect: [0, 0, 9, 9],
        Contents: PDFString.of('Soon.'),
        T: PDFString.of('Una'),
      };
      list.push(context.register(context.obj({ ...answer, IRT: list.get(5) })));
      list.push(
        context.register(
          context.obj({ Type: 'Annot', Subtype: 'Text', Rect: [20, 20, 38, 38], Contents: PDFString.of('new') }),
        ),
      );
      list.remove(0);
    });
    const found = (await changes(now))!;
    expect(found.removed).toEqual(['a']);
    expect(found.added.map(({ page, mark: { text } }) => [page, text])).toEqual([[0, 'new']]);
    expect(found.answered.map(({ id, replies }) => [id, replies[0].text])).toEqual([['e', 'Soon.']]);
    expect(found.changed.map(({ id }) => id)).toEqual(['f']);
    // Moved by as much, and not larger by the lines that a PDF counts in.
    expect(near(changedAs(MARKS[5], found.changed[0]).boxes)).toEqual([[210, 180, 80, 40]]);
  });

  it.each<[string, (pdf: PDFDocument) => void]>([
    [
      'a shape was drawn that there is no mark like',
      (pdf) =>
        pdf
          .getPage(0)
          .node.Annots()!
          .push(pdf.context.register(pdf.context.obj({ Type: 'Annot', Subtype: 'Square', Rect: [10, 10, 60, 60] }))),
    ],
    [
      'a stamp was put there that looks as only that program knows',
      (pdf) =>
        pdf
          .getPage(0)
          .node.Annots()!
          .push(
            pdf.context.register(
              pdf.context.obj({
                Type: 'Annot',
                Subtype: 'Stamp',
                Rect: [10, 10, 60, 60],
                Contents: PDFString.of('Seen'),
              }),
            ),
          ),
    ],
  ])('is more than marks when %s', async (_, work) => {
    expect(await changes(await edited(await written(), work))).toBeUndefined();
  });

  it.each<[string, (pdf: PDFDocument) => void]>([
    ['its title', (pdf) => pdf.setTitle('another')],
    ['an attachment', (pdf) => void pdf.attach(new Uint8Array([1, 2, 3]), 'more.bin')],
    ['what is drawn', (pdf) => pdf.getPage(0).drawRectangle({ x: 10, y: 10, width: 20, height: 20 })],
    ['a turned page', (pdf) => pdf.getPage(0).setRotation(degrees(90))],
  ])('is more than marks when it changed %s', async (_, work) => {
    const was = await written();
    expect(await areSameButForMarks(was, await edited(was, work))).toBe(false);
  });

  it('is more than marks when a picture is another, though it is drawn by the same operators', async () => {
    const of = async (shade: number) => {
      const pdf = await PDFDocument.create();
      const page = pdf.addPage([100, 100]);
      const pixels = new Uint8Array(12).fill(shade);
      const dict = {
        Type: 'XObject',
        Subtype: 'Image',
        Width: 2,
        Height: 2,
        ColorSpace: 'DeviceRGB',
        BitsPerComponent: 8,
      };
      page.node.setXObject(PDFName.of('Im'), pdf.context.register(pdf.context.flateStream(pixels, dict)));
      page.node.addContentStream(pdf.context.register(pdf.context.stream('q 90 0 0 90 5 5 cm /Im Do Q')));
      return pdf.save();
    };
    expect(await areSameButForMarks(await of(10), await of(10))).toBe(true);
    expect(await areSameButForMarks(await of(10), await of(11))).toBe(false);
  });
});
