import { PDFDocument, PDFName, PDFString, StandardFonts } from '@cantoo/pdf-lib';
import { endpoints } from '@crow/contract/endpoints';
import { scanned } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeAll(async () => void (room = await TestRoom.open()));
afterAll(() => room.close());

it('a paper gives the links of its PDF, on its pages as they are turned here, and none that leads out of it', async () => {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const pages = ['Lease of the boat house', 'Signed at the quay'].map((text) => {
    const page = pdf.addPage([400, 400]);
    page.drawText(text, { x: 40, y: 300, size: 14, font });
    return page;
  });
  const link = pdf.context.obj({
    ...{ Type: 'Annot', Subtype: 'Link', Rect: [40, 300, 240, 320] },
    A: { S: 'URI', URI: PDFString.of('https://books.example') },
  });
  const within = pdf.context.obj({ Type: 'Annot', Subtype: 'Link', Rect: [0, 0, 40, 40], Dest: [pages[1].ref, 'Fit'] });
  pages[0].node.set(PDFName.of('Annots'), pdf.context.obj([link, within]));
  const id = await room.documentOf('lease.pdf', await pdf.save(), { whole: true });
  const { pageList } = await room.ask(endpoints.readDocument, { params: { id } });
  const { links, outline } = await room.ask(endpoints.documentContents, { params: { id } });
  expect(outline).toEqual([]);
  expect(links).toEqual([
    { pageId: pageList[0].id, box: [0.1, 0.2, 0.5, 0.05], address: 'https://books.example', to: null },
    { pageId: pageList[0].id, box: [0, 0.9, 0.1, 0.1], address: null, to: { pageId: pageList[1].id, top: 0 } },
  ]);
});

it('a picture has neither', async () => {
  const id = await room.documentOf('scan.jpg', await scanned('Nothing to follow'));
  expect(await room.ask(endpoints.documentContents, { params: { id } })).toEqual({ outline: [], links: [] });
});
