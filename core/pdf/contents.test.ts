import { PDFDocument, PDFHexString, PDFName, PDFString } from '@cantoo/pdf-lib';
import { contentsOf } from './contents';

/** Two pages of 200 by 400 points, the second turned by a quarter. */
async function pdfWith(write: (pdf: PDFDocument) => void): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.addPage([200, 400]);
  pdf.addPage([200, 400]).node.set(PDFName.of('Rotate'), pdf.context.obj(90));
  write(pdf);
  return pdf.save();
}
const link = (pdf: PDFDocument, page: number, more: object) => {
  const { node } = pdf.getPage(page);
  const annotation = pdf.context.register(
    pdf.context.obj({ Type: 'Annot', Subtype: 'Link', Rect: [20, 300, 120, 340], ...more } as never),
  );
  const others = node.Annots()?.asArray() ?? [];
  node.set(PDFName.of('Annots'), pdf.context.obj([...others, annotation]));
};

it('links lead to addresses and to places, where the page is shown', async () => {
  const bytes = await pdfWith((pdf) => {
    const [, second] = pdf.getPages();
    link(pdf, 0, { A: { S: 'URI', URI: PDFString.of('https://books.example/a') } });
    link(pdf, 1, { Dest: [second.ref, 'XYZ', null, null, null] });
    link(pdf, 0, { A: { S: 'GoTo', D: [second.ref, 'Fit'] } });
  });
  const { links } = await contentsOf(bytes);
  expect(links.map(({ page, address, to }) => [page, address, to])).toEqual([
    [0, 'https://books.example/a', null],
    [0, null, { page: 1, top: 0 }],
    [1, null, { page: 1, top: 0 }],
  ]);
  const [first, , turned] = links.map(({ box }) => box.map((share) => Number(share.toFixed(3))));
  expect(first).toEqual([0.1, 0.15, 0.5, 0.1]);
  // Upright it is 400 wide: what lay high up is at the right.
  expect(turned).toEqual([0.75, 0.1, 0.1, 0.5]);
});

it('a link that would start something else does nothing', async () => {
  const bytes = await pdfWith((pdf) => {
    link(pdf, 0, { A: { S: 'URI', URI: PDFString.of('javascript:alert(1)') } });
    link(pdf, 0, { A: { S: 'URI', URI: PDFString.of('file:///etc/passwd') } });
    link(pdf, 0, { A: { S: 'Launch', F: PDFString.of('run.exe') } });
  });
  expect((await contentsOf(bytes)).links).toEqual([]);
});

it('the outline is given with its levels, by places and by names', async () => {
  const bytes = await pdfWith((pdf) => {
    const { context, catalog } = pdf;
    const [one, two] = pdf.getPages();
    const [root, a, b, c] = Array.from({ length: 4 }, () => context.nextRef());
    context.assign(root, context.obj({ Type: 'Outlines', First: a, Last: b }));
    context.assign(
      a,
      context.obj({ Title: PDFHexString.fromText('Größe'), Dest: [one.ref, 'XYZ', 0, 300, 0], Next: b, First: c }),
    );
    context.assign(b, context.obj({ Title: PDFString.of('Second'), Dest: PDFString.of('there') }));
    context.assign(c, context.obj({ Title: PDFString.of('Inside'), A: { S: 'GoTo', D: PDFName.of('old') } }));
    catalog.set(PDFName.of('Outlines'), root);
    catalog.set(PDFName.of('Dests'), context.obj({ old: [one.ref, 'Fit'] }));
    const names = { Names: [PDFString.of('there'), { D: [two.ref, 'Fit'] }] };
    catalog.set(PDFName.of('Names'), context.obj({ Dests: { Kids: [names] } } as never));
  });
  expect((await contentsOf(bytes)).outline).toEqual([
    { title: 'Größe', level: 0, page: 0, top: 0.25 },
    { title: 'Inside', level: 1, page: 0, top: 0 },
    { title: 'Second', level: 0, page: 1, top: 0 },
  ]);
});

it('an outline that bites its tail ends', async () => {
  const bytes = await pdfWith((pdf) => {
    const { context, catalog } = pdf;
    const [root, a] = [context.nextRef(), context.nextRef()];
    context.assign(root, context.obj({ First: a }));
    context.assign(
      a,
      context.obj({ Title: PDFString.of('Round'), Dest: [pdf.getPage(0).ref, 'Fit'], Next: a, First: a }),
    );
    catalog.set(PDFName.of('Outlines'), root);
  });
  expect((await contentsOf(bytes)).outline).toHaveLength(1);
});
