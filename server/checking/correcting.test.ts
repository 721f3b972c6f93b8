import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { endpoints } from '@crow/contract/endpoints';
import { rows } from '../platform/database';
import { scanned, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
let id: string;
let pageId: string;
beforeAll(async () => {
  room = await TestRoom.open();
  id = await room.documentOf('a.jpg', await scanned('Saltgate Yarns\nInvoice\nTwo skeins of lambswool\nTotal 58.20'));
  pageId = (await room.ask(endpoints.readDocument, { params: { id } })).pageList[0].id;
});
afterAll(() => room.close());

const text = async () => (await room.ask(endpoints.pageText, { params: { id: pageId } })).words;
const correct = (was: string, now: string, index: number) =>
  room.ask(endpoints.correctWords, { params: { id: pageId }, body: { changes: [{ index, was, text: now }] } });
const place = async (word: string) => (await text()).findIndex(([each]) => each === word);
const found = async (q: string) => (await room.ask(endpoints.find, { query: { q } })).found.length;
const settled = () => room.workOnAll();

describe('correcting what was read', () => {
  it('lists what is doubtful, in its line, until it is settled', async () => {
    const doubt = (word: string) =>
      rows(
        room.context.database.source.manager,
        `update reading set words = (select jsonb_agg(case when w->>0 = $2 then jsonb_set(w, '{5}', '0.5') else w end order by n)
           from jsonb_array_elements(words) with ordinality e(w, n)) where page_id = $1`,
        [pageId, word],
      );
    await doubt('skeins');
    const list = () => room.ask(endpoints.doubtfulWords, { params: { id } });
    const index = await place('skeins');
    expect(await list()).toMatchObject([{ pageId, index, text: 'skeins', before: 'Two', after: 'of lambswool' }]);
    await correct('skeins', 'skeins', index);
    expect(await list()).toEqual([]);
  });

  it('changes the facts and what is found', async () => {
    await correct('58.20', '68.20', await place('58.20'));
    const { facts } = await room.ask(endpoints.readDocument, { params: { id } });
    expect(facts.find(({ name }) => name === 'total')?.value).toBe('68.20');
    await correct('lambswool', 'alpaca', await place('lambswool'));
    expect([await found('alpaca'), await found('"of lambswool"')]).toEqual([1, 0]);
  });

  it('changes the PDF that is filed, and keeps the one before', async () => {
    await room.file(id, 'Yarn', 'Workshop');
    const pdfText = () =>
      execFileSync('pdftotext', [join(room.shelf.root, 'Workshop/Yarn.pdf'), '-'], { encoding: 'utf8' });
    expect(pdfText()).toContain('alpaca');
    const bytes = room.diskBytes('Workshop/Yarn.pdf').length;
    const index = await place('alpaca');
    await correct('alpaca', 'mohair', index);
    await correct('Two', '', await place('Two'));
    await settled();
    expect(pdfText()).toContain('mohair');
    expect(pdfText()).not.toContain('Two');
    const versions = await room.ask(endpoints.listVersions, { params: { id } });
    expect(versions).toMatchObject([{ number: 1, bytes }]);
    const { raw } = await room.request('GET', `/api/documents/${id}/versions/1/pdf`);
    expect(raw.length).toBe(bytes);
  });

  it('refuses what is not there any more, and text that a page brought along', async () => {
    const params = { id: pageId };
    const refused = await room.refusal(endpoints.correctWords, {
      params,
      body: { changes: [{ index: 0, was: 'Peppergate', text: 'x' }] },
    });
    expect(refused).toMatchObject({ status: 409, code: 'text-changed' });
    const own = await room.documentOf('own.pdf', await textPdf('A letter with text of its own\nthat is long enough'));
    const [page] = (await room.ask(endpoints.readDocument, { params: { id: own } })).pageList;
    const body = { changes: [{ index: 0, was: 'A', text: 'B' }] };
    expect(await room.refusal(endpoints.correctWords, { params: { id: page.id }, body })).toMatchObject({
      code: 'text-own',
    });
  });
});
