import { readdirSync, unlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { endpoints } from '@crow/contract/endpoints';
import { Beside } from '@crow/core/filing/pattern';
import { textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeEach(async () => void (room = await TestRoom.open()));
afterEach(() => room.close());

const PAGES = [
  'Saltgate Yarns\nDelivery note\nTwelve skeins of madder',
  'Saltgate Yarns\nThe second page\nand six of weld',
];
const fileWith = async (beside: Beside[], pages = PAGES, name = 'Paper') => {
  const id = await room.documentOf('a.pdf', await textPdf(...pages));
  await room.ask(endpoints.fileDocument, { params: { id }, body: { name, folderPath: 'A', beside } });
  await room.work();
  return id;
};
const onDisk = (folder = 'A') => readdirSync(join(room.shelf.root, folder)).sort();

describe('what is kept beside a PDF', () => {
  it('is text, text for a small screen, and a picture a page, under the same name', async () => {
    await fileWith(['text', 'text-pdf', 'jpeg', 'png']);
    expect(onDisk()).toEqual([
      'Paper (text).pdf',
      'Paper 1.jpg',
      'Paper 1.png',
      'Paper 2.jpg',
      'Paper 2.png',
      'Paper.pdf',
      'Paper.txt',
    ]);
    expect(room.diskBytes('A/Paper.txt').toString()).toMatch(/Twelve skeins of madder[^]*and six of weld/);
    expect((await sharp(room.diskBytes('A/Paper 2.png')).metadata()).format).toBe('png');
  });

  it('is not numbered when there is one page', async () => {
    await fileWith(['jpeg'], PAGES.slice(0, 1));
    expect(onDisk()).toEqual(['Paper.jpg', 'Paper.pdf']);
  });

  it('goes along when the document is renamed and moved, and goes with it', async () => {
    const id = await fileWith(['text']);
    await room.ask(endpoints.changeDocument, { params: { id }, body: { name: 'Renamed' } });
    await room.work();
    expect(onDisk()).toEqual(['Renamed.pdf', 'Renamed.txt']);
    await room.ask(endpoints.binDocument, { params: { id } });
    await room.work();
    expect(() => onDisk()).toThrow('ENOENT');
  });

  it('follows when the text is corrected', async () => {
    const id = await room.documentOf(
      'a.jpg',
      await sharp(
        Buffer.from(
          '<svg xmlns="http://www.w3.org/2000/svg" width="900" height="500"><rect width="900" height="500" fill="#fff"/><text x="60" y="200" font-size="64" font-family="sans-serif">Madder and weld</text></svg>',
        ),
      )
        .withMetadata({ density: 100 })
        .jpeg()
        .toBuffer(),
    );
    await room.ask(endpoints.fileDocument, {
      params: { id },
      body: { name: 'Paper', folderPath: 'A', beside: ['text'] },
    });
    await room.work();
    const { pageList } = await room.ask(endpoints.readDocument, { params: { id } });
    await room.ask(endpoints.correctWords, {
      params: { id: pageList[0].id },
      body: { changes: [{ index: 0, was: 'Madder', text: 'Woad' }] },
    });
    await room.workOnAll();
    expect(room.diskBytes('A/Paper.txt').toString()).toBe('Woad and weld\n');
  });

  it('never overwrites a file of somebody else: document and all get a number', async () => {
    await fileWith(['text'], PAGES, 'First');
    writeFileSync(join(room.shelf.root, 'A/Paper.txt'), 'mine');
    await fileWith(['text']);
    expect(onDisk()).toEqual(['First.pdf', 'First.txt', 'Paper (2).pdf', 'Paper (2).txt', 'Paper.txt']);
    expect(room.diskBytes('A/Paper.txt').toString()).toBe('mine');
  });

  it('is told when somebody changed or took it away, and is kept no more if that is wished', async () => {
    const id = await fileWith(['text', 'jpeg'], PAGES.slice(0, 1));
    writeFileSync(join(room.shelf.root, 'A/Paper.txt'), 'changed');
    await room.changes.inspect();
    await room.work();
    const read = () => room.ask(endpoints.readDocument, { params: { id } });
    expect((await read()).problem).toMatchObject({
      code: 'shelf-file-changed',
      happened: expect.stringContaining('.txt'),
    });
    await room.ask(endpoints.settleOnDisk, { body: { ids: [id], choice: 'as-on-disk' } });
    await room.work();
    expect(await read()).toMatchObject({ problem: null, beside: ['jpeg'], state: 'filed' });
    expect(onDisk()).toContain('Paper.jpg');
    expect(room.diskBytes('A/Paper.txt').toString()).toBe('changed');

    const other = await fileWith(['text'], PAGES, 'Other');
    unlinkSync(join(room.shelf.root, 'A/Other.txt'));
    await room.changes.inspect();
    await room.ask(endpoints.settleOnDisk, { body: { ids: [other], choice: 'as-filed' } });
    await room.work();
    expect(onDisk()).toContain('Other.txt');
  });

  it('can be part of a way of filing', async () => {
    const { filing } = await room.ask(endpoints.readSettings, {});
    expect(filing[0].beside).toEqual([]);
    const ways = [{ ...filing[0], beside: ['text' as const] }];
    const { filing: kept } = await room.ask(endpoints.changeSettings, { body: { filing: ways, languages: undefined } });
    expect(kept[0].beside).toEqual(['text']);
  });
});
