import { strToU8, zipSync } from 'fflate';
import { endpoints } from '@crow/contract/endpoints';
import { ProblemReport } from '@crow/contract/problems';
import { scanned, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeEach(async () => void (room = await TestRoom.open()));
afterEach(() => room.close());

const read = (id: string) => room.ask(endpoints.readDocument, { params: { id } });
const paper = (name: string) =>
  textPdf(`Saltgate Yarns\nDelivery note\nThe paper called ${name}\nTwelve skeins of madder`);
const archive = async () => (await room.request('GET', '/api/shelf/archive')).raw;
const bringIn = (to: TestRoom, bytes: Uint8Array, name = 'Crow Shelf.zip') =>
  to.request('PUT', `/api/shelf/archive?name=${encodeURIComponent(name)}`, {
    body: Buffer.from(bytes),
    headers: { 'content-type': 'application/octet-stream' },
  });
const shelfOf = async (in_: TestRoom) => {
  const found = await in_.ask(endpoints.find, { query: { q: 'madder' } });
  return found.found.map(({ document }) => `${document.folderPath}/${document.name}`).sort();
};

describe('an archive of the shelf', () => {
  it('brings everything back to an empty shelf: PDFs to the byte, names, folders, facts', async () => {
    const bill =
      'Saltgate Yarns\nInvoice\nInvoice no. 1302\nDate 11 November 2026\nMadder, two cones\nNet £ 155.50\nVAT 20 % £ 31.10\nTotal £ 186.60';
    const first = await room.documentOf('a.pdf', await textPdf(bill));
    await room.file(first, 'The bill', 'Workshop/Yarn');
    const second = await room.documentOf('b.jpg', await scanned('A letter about madder\nfrom the school'));
    await room.file(second, 'A letter', 'Home');
    const bytes = await archive();
    const pdf = room.diskBytes('Workshop/Yarn/The bill.pdf');
    const { facts } = await read(first);

    const other = await TestRoom.open();
    try {
      expect((await bringIn(other, bytes)).body).toEqual({ brought: 2, known: 0, missing: 0 });
      await other.work();
      expect(other.diskBytes('Workshop/Yarn/The bill.pdf').equals(pdf)).toBe(true);
      expect(await shelfOf(other)).toEqual(['Home/A letter', 'Workshop/Yarn/The bill']);
      const { found } = await other.ask(endpoints.find, { query: { q: 'cones' } });
      const restored = await other.ask(endpoints.readDocument, { params: { id: found[0].document.id } });
      const values = (list: typeof facts) => Object.fromEntries(list.map(({ name, value }) => [name, value]));
      expect(values(restored.facts)).toEqual(values(facts));
      expect(restored).toMatchObject({ state: 'filed', problem: null });
      expect(await other.ask(endpoints.listStacks, {})).toEqual([]);
    } finally {
      await other.close();
    }
  });

  it('adds nothing that is there, and only what is missing', async () => {
    const ids = [];
    for (const name of ['One', 'Two']) {
      ids.push(await room.documentOf(`${name}.pdf`, await paper(name)));
      await room.file(ids.at(-1)!, name, 'A');
    }
    const bytes = await archive();
    expect((await bringIn(room, bytes)).body).toEqual({ brought: 0, known: 2, missing: 0 });
    await room.ask(endpoints.binDocument, { params: { id: ids[0] } });
    await room.work();
    expect((await bringIn(room, bytes)).body).toEqual({ brought: 1, known: 1, missing: 0 });
    await room.work();
    expect(await shelfOf(room)).toEqual(['A/One', 'A/Two']);
  });

  it('may be changed by hand: wicked folders and names are made safe', async () => {
    const entry = {
      file: 'x.pdf',
      name: '../../etc/passwd',
      folder: '../..//up/./here',
      filed: 'soon',
      facts: { kind: 'letter' },
    };
    const bytes = zipSync({ 'x.pdf': await paper('x'), 'facts.json': strToU8(JSON.stringify([entry])) });
    expect((await bringIn(room, bytes)).body).toEqual({ brought: 1, known: 0, missing: 0 });
    await room.work();
    expect(await shelfOf(room)).toEqual(['up/here/-..-etc-passwd']);
    expect(room.onDisk('up/here/-..-etc-passwd.pdf')).toBe(true);
  });

  it('tells of what is not in it, shows what is broken, and binds what is no PDF', async () => {
    const entry = (file: string, folder = 'A') => ({
      file,
      name: file,
      folder,
      filed: '2026-01-02T03:04:05Z',
      facts: { kind: 'letter' },
    });
    const told = [entry('gone.pdf'), entry('broken.pdf'), entry('photo.jpg'), entry('astray.pdf', '../..')];
    const bytes = zipSync({
      'broken.pdf': strToU8('%PDF-1.4 and then nothing'),
      'photo.jpg': await scanned('A letter about madder'),
      'astray.pdf': await paper('x'),
      'facts.json': strToU8(JSON.stringify(told)),
    });
    expect((await bringIn(room, bytes)).body).toEqual({ brought: 3, known: 0, missing: 1 });
    await room.work();
    expect(await shelfOf(room)).toEqual(['A/photo.jpg', 'Brought in/astray.pdf']);
    expect(room.diskBytes('A/photo.jpg.pdf').subarray(0, 5).toString()).toBe('%PDF-');
    const [stack] = await room.ask(endpoints.listStacks, {});
    expect(stack.files).toMatchObject([{ name: 'broken.pdf.pdf', state: 'refused', problem: { code: 'file-broken' } }]);
  });

  it.each<[string, () => Promise<Uint8Array> | Uint8Array, string]>([
    ['that is cut off', async () => (await archive()).subarray(0, 3000), 'archive-broken'],
    ['without facts', async () => zipSync({ 'x.pdf': await paper('x') }), 'archive-strange'],
    [
      'whose facts are nonsense',
      async () => zipSync({ 'x.pdf': await paper('x'), 'facts.json': strToU8('{') }),
      'archive-broken',
    ],
    ['that is no archive', () => strToU8('hello'), 'archive-broken'],
  ])('%s is refused with a sentence, and nothing comes', async (_what, bytes, code) => {
    await room.file(await room.documentOf('a.pdf', await paper('a')), 'a', 'A');
    const { status, body } = await bringIn(room, await bytes(), 'mine.zip');
    expect(status).toBe(422);
    expect(body).toMatchObject({ code, happened: expect.stringContaining('mine.zip') });
    expect(await room.work()).toBe(0);
  });
});

describe('papers in an archive', () => {
  it('become files of the stack in the order of their names, among the other files', async () => {
    const zip = zipSync({
      'batch/page 10.jpg': await scanned('Ten'),
      'batch/page 9.jpg': await scanned('Nine'),
      '__MACOSX/batch/._page 9.jpg': strToU8('nothing'),
      'notes.txt': strToU8('only text'),
    });
    const stack = await room.takeInAndRead({
      'first.pdf': await paper('first'),
      'all.zip': zip,
      'last.pdf': await paper('last'),
    });
    expect(stack.pageList.map(({ fileName }) => fileName)).toEqual([
      'first.pdf',
      'page 9.jpg',
      'page 10.jpg',
      'last.pdf',
    ]);
    const refused = stack.files.filter(({ state }) => state === 'refused');
    expect(refused).toMatchObject([{ name: 'notes.txt', problem: { code: 'file-unknown' } }]);
    expect(stack.files.some(({ name }) => name === 'all.zip')).toBe(false);
  });

  it('are not looked for in an archive inside it, nor in an office document', async () => {
    const inner = zipSync({ 'a.jpg': await scanned('Inside') });
    const stack = await room.takeInAndRead({
      'outer.zip': zipSync({ 'inner.zip': inner }),
      'text.docx': zipSync({ '[Content_Types].xml': strToU8('<x/>') }),
      'empty.zip': zipSync({}),
    });
    const problems = stack.files.map(({ name, problem }) => [name, (problem as ProblemReport).code]);
    expect(problems).toEqual([
      ['inner.zip', 'file-unknown'],
      ['text.docx', 'file-unknown'],
      ['empty.zip', 'file-unknown'],
    ]);
    expect(stack.pages).toBe(0);
  });

  it('go to the shelf when the archive is one of the shelf, and the stack is gone', async () => {
    await room.file(await room.documentOf('a.pdf', await paper('One')), 'One', 'A');
    const bytes = await archive();
    const other = await TestRoom.open();
    try {
      await other.takeIn({ 'Crow Shelf.zip': bytes });
      await other.work();
      expect(await shelfOf(other)).toEqual(['A/One']);
      expect(await other.ask(endpoints.listStacks, {})).toEqual([]);
    } finally {
      await other.close();
    }
  });
});
