import { randomUUID } from 'node:crypto';
import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { endpoints } from '@crow/contract/endpoints';
import { Page } from '@crow/contract/pages';
import { Stack } from '@crow/contract/stacks';
import { BATCH } from '@crow/demo/papers';
import { pagesAsPdf } from '@crow/demo/pagesAsPdf';
import { scanPaper } from '@crow/demo/capture';
import {
  acceptCut,
  Arrangement,
  arrangementOf,
  asProposed,
  keepWhole,
  movePages,
  setDropped,
  toggleCut,
} from '@crow/core/sorting/arrangement';
import { blackAndWhite, drawn, scanned, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
let pile: Buffer;
/** The same papers as they were printed, with their text. */
let printed: Buffer;
let blank: Buffer;
beforeAll(async () => {
  room = await TestRoom.open();
  // An invoice, a letter of two sheets, an invoice in German, as one scanned PDF.
  const sheets: Buffer[] = [];
  for (const [index, paper] of BATCH.slice(0, 3).entries())
    sheets.push(...(await scanPaper(await paper.draw(), paper.pages, index)));
  pile = Buffer.from(await pagesAsPdf(sheets));
  printed = await together(await Promise.all(BATCH.slice(0, 3).map((paper) => paper.draw())));
  blank = await scanned(' ');
});
afterAll(() => room.close());

/** The pages of all of these as one PDF. */
async function together(pdfs: Uint8Array[]): Promise<Buffer> {
  const all = await PDFDocument.create();
  for (const pdf of pdfs) {
    const one = await PDFDocument.load(pdf);
    for (const page of await all.copyPages(one, one.getPageIndices())) all.addPage(page);
  }
  return Buffer.from(await all.save());
}

const read = (id: string) => room.ask(endpoints.readStack, { params: { id } });
const cuts = (pages: Page[]) =>
  pages.map(({ cutBefore, dropped }) => `${cutBefore ? '|' : ''}p${dropped ? '-' : ''}`).join('');
async function change(stack: Stack, alter: (before: Arrangement) => Arrangement): Promise<Stack> {
  const pages = alter(arrangementOf(stack.pageList));
  return room.ask(endpoints.arrangeStack, { params: { id: stack.id }, body: { base: stack.step, pages } });
}

describe('where documents begin', () => {
  it('is proposed once pages are read, with the reasons', async () => {
    const stack = await room.takeInAndRead({ 'post.pdf': pile });
    expect(cuts(stack.pageList)).toBe('p|pp|p');
    const [first, second, third] = stack.pageList;
    expect(first.proposal).toBeNull();
    expect(second.proposal).toMatchObject({ sure: true });
    expect(second.proposal!.why.length).toBeGreaterThan(0);
    expect(third.proposal!.why.join()).toContain('page number');
    expect(second.glance).toMatchObject({ kind: 'letter', who: 'Brack & Pell Insurance plc' });
  });

  it('is left open while nothing is read', async () => {
    const id = await room.takeIn({ 'post.pdf': printed });
    await room.work(['take-in']);
    const { pageList } = await read(id);
    expect(cuts(pageList)).toBe('pppp');
    expect(pageList.some(({ proposal }) => proposal?.sure)).toBe(false);
    await room.work();
  });

  it('stays as a person decided it, while pages are read and after', async () => {
    const id = await room.takeIn({ 'post.pdf': printed });
    await room.work(['take-in']);
    const before = await read(id);
    await change(before, (pages) => acceptCut(toggleCut(pages, before.pageList[2].id), before.pageList[1].id));
    await room.work();
    const after = await read(id);
    expect(cuts(after.pageList)).toBe('pp|p|p');
    const taken = await change(after, asProposed);
    expect(cuts(taken.pageList)).toBe('p|pp|p');
    const whole = await change(taken, keepWhole);
    expect(cuts(whole.pageList)).toBe('pppp');
    const undone = await room.ask(endpoints.undoStack, { params: { id } });
    expect(cuts(undone.pageList)).toBe('p|pp|p');
  });

  it('is proposed anew for what stands beside each other after a move', async () => {
    const stack = await room.takeInAndRead({ 'post.pdf': printed });
    const [first, , , last] = stack.pageList.map(({ id }) => id);
    const moved = await change(stack, (pages) => movePages(pages, new Set([last]), first));
    expect(moved.pageList[0].proposal).toBeNull();
    expect(moved.pageList.map(({ id }) => id)[0]).toBe(last);
    expect(cuts(moved.pageList).startsWith('p')).toBe(true);
  });

  it('is nowhere in a stack that was said to be one document', async () => {
    const stack = await room.takeInAndRead({ 'post.pdf': printed });
    await room.context.database.source.query('update stack set whole = true where id = $1', [stack.id]);
    const again = await change(stack, asProposed);
    expect(cuts(again.pageList)).toBe('pppp');
    expect(again.pageList.every(({ proposal }) => proposal === null)).toBe(true);
  });
});

describe('blank pages', () => {
  it('are dropped, not read, and read when a person has them back', async () => {
    const id = randomUUID();
    const stack = await room
      .takeIn({ '1.jpg': await scanned('Marlowe Dye Works\nInvoice 771\nDate 3 November 2026'), '2.jpg': blank }, id)
      .then(async () => (await room.work(), read(id)));
    expect(cuts(stack.pageList)).toBe('pp-');
    expect(stack.pageList[1]).toMatchObject({ blank: true, proposal: null });
    const back = await change(stack, (pages) => setDropped(pages, new Set([stack.pageList[1].id]), false));
    expect(back.pageList[1]).toMatchObject({ blank: false, dropped: false, reading: 'waiting' });
    await room.work();
    expect((await read(id)).pageList[1]).toMatchObject({ dropped: false, reading: 'read' });
  });
});

describe('divider sheets', () => {
  const sheet = async (query: Record<string, string>) => {
    const { raw, headers } = await room.request('GET', `/api/dividers?${new URLSearchParams(query)}`);
    expect(headers['content-type']).toBe('application/pdf');
    return raw;
  };
  /** As a feeder set to black and white delivers it: askew, upside down. */
  const fed = async (pdf: Buffer, angle: number) =>
    blackAndWhite(
      await sharp(await drawn(pdf, { dpi: 200 }))
        .rotate(angle, { background: '#fff' })
        .png()
        .toBuffer(),
      200,
    );
  const letter = (text: string) => scanned(`Dear Mr Castellane\n${text}\nin the same words on each page`);

  it('begin documents, are taken out, and say where these go and what they are', async () => {
    const named = await fed(await sheet({ folder: 'Household/Energy', kind: 'statement' }), 184);
    const plain = await fed(await sheet({}), 87);
    const stack = await room.takeInAndRead({
      '1.jpg': await letter('first'),
      '2.tif': named,
      '3.jpg': await letter('second'),
      '4.jpg': await letter('third'),
      '5.tif': plain,
      '6.jpg': await letter('fourth'),
    });
    expect(stack.pageList.map(({ dropped }) => (dropped ? '-' : 'p')).join('')).toBe('p-pp-p');
    expect(stack.pageList[1].divider).toEqual({ folder: 'Household/Energy', kind: 'statement' });
    expect(stack.pageList[2].proposal).toMatchObject({
      chance: 1,
      sure: true,
      why: [expect.stringMatching(/divider/)],
    });
    expect(stack.pageList[5].cutBefore).toBe(true);
    const { documents } = await room.ask(endpoints.sortStack, { params: { id: stack.id } });
    const [before, behind] = await Promise.all(
      documents.slice(0, 2).map((id) => room.ask(endpoints.readDocument, { params: { id } })),
    );
    expect(behind).toMatchObject({
      kind: 'statement',
      suggestion: { path: 'Household/Energy', reason: 'Its divider sheet, or the place where it lay, says so' },
    });
    expect(behind.facts.find(({ name }) => name === 'kind')).toMatchObject({
      confirmed: true,
      by: null,
      why: 'as its divider sheet says',
    });
    expect(before.suggestion).toBeNull();
    expect(before.likely).toEqual(['Letters']);
  });

  it('are known by their words in a PDF that keeps its text, and by a person who wants one back as a page', async () => {
    const stack = await room.takeInAndRead({
      '1.pdf': await textPdf('A letter'),
      '2.pdf': await sheet({ folder: 'Wickford Loom/Fairs' }),
      '3.pdf': await textPdf('Another letter'),
    });
    expect(stack.pageList[1]).toMatchObject({ dropped: true, divider: { folder: 'Wickford Loom/Fairs', kind: null } });
    const back = await change(stack, (pages) => setDropped(pages, new Set([stack.pageList[1].id]), false));
    expect(back.pageList[1].dropped).toBe(false);
    expect(back.pageList[2].proposal?.why.join()).not.toMatch(/divider/);
  });

  it('come in as many copies as asked for, within reason', async () => {
    const pdf = await sheet({ copies: '12', kind: 'receipt' });
    expect((await PDFDocument.load(pdf)).getPageCount()).toBe(12);
    const { status, body } = await room.request('GET', '/api/dividers?copies=5000');
    expect([status, body]).toEqual([400, expect.objectContaining({ code: 'not-valid' })]);
  });
});

it('gets on while pages are read, whatever is done to the stack meanwhile: nobody waits for each other in a circle', async () => {
  const texts = Array.from(
    { length: 12 },
    (_, at) => `Firm ${at} Ltd\nInvoice\nDate ${at + 1} March 2026\nwords on each`,
  );
  for (let round = 0; round < 5; round++) {
    const id = await room.takeIn({ 'post.pdf': await textPdf(...texts) });
    await room.work(['take-in']);
    await room.work(['picture']);
    const reading = [1, 2, 3].map(() => room.work());
    await new Promise((done) => setTimeout(done, 20 + 60 * round));
    await change(await read(id), (pages) => toggleCut(pages, pages[3].id));
    await room.ask(endpoints.sortStack, { params: { id } });
    await Promise.all(reading);
    expect((await read(id)).read).toBe(texts.length);
  }
});
