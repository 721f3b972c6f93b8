import sharp from 'sharp';
import { endpoints } from '@crow/contract/endpoints';
import { USUAL_WAY } from '@crow/core/filing/pattern';
import { scanned, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeAll(async () => {
  room = await TestRoom.open();
});
afterAll(() => room.close());

const bill = (who: string, more: string) =>
  textPdf(`${who}\n12 Quay Street\nInvoice\nInvoice number: 4711\nDate: 5 March 2026\n${more}\nTotal: £ 58.20`);

async function setWays(...filing: (typeof USUAL_WAY)[]) {
  const { filing: kept } = await room.ask(endpoints.changeSettings, {
    body: { filing: filing as never, languages: undefined },
  });
  return kept;
}

describe('where a paper goes', () => {
  it('is told by kind and year at first, and by what was filed before at once', async () => {
    const first = await room.documentOf('a.pdf', await bill('Marlowe Dye Works', 'Indigo vat, madder, mordant bath'));
    const read = () => room.ask(endpoints.readDocument, { params: { id: first } });
    // Nothing like it was filed before: that is no more than one to choose from.
    expect(await read()).toMatchObject({ suggestion: null, likely: ['Invoices/2026'] });
    await room.file(first, 'A', 'Workshop/Dyeing');
    const second = await room.documentOf('b.pdf', await bill('Marlowe Dye Works', 'Weld, madder and one mordant bath'));
    const { suggestion } = await room.ask(endpoints.readDocument, { params: { id: second } });
    expect(suggestion).toEqual({
      path: 'Workshop/Dyeing',
      reason: 'The last one from Marlowe Dye Works went here',
    });
  });

  it('is told by what folders are called after, and may be a new one', async () => {
    const read = async (name: string, text: string) => {
      const id = await room.documentOf(name, await textPdf(text));
      return room.ask(endpoints.readDocument, { params: { id } });
    };
    const slip = 'Parkhaus Seegarten\nQuittung\nEinfahrt 11.11.2026\nAusfahrt 11.11.2026\nTotal EUR 18.00';
    const before = await read('p.pdf', slip);
    expect(before).toMatchObject({ suggestion: null });
    expect(before.likely).toContain('Travel');
    await room.file(before.id, 'Parking', 'Travel');
    expect(
      await read('f.pdf', 'Isles Ferries\nSailing 13 Nov 2026\nPassengers 2\nBoarding 09:20\nTotal £ 148.20'),
    ).toMatchObject({
      suggestion: { path: 'Travel', reason: expect.stringContaining('It is about travel: ') as string },
    });
  });

  it('and what it is called, is told by the way of filing that fits', async () => {
    const bills = {
      ...USUAL_WAY,
      name: 'Bills',
      pattern: '{who}[ no. {number}] {amount:,}',
      folder: 'Bills/{date:YYYY}',
      kinds: ['invoice'],
    };
    await setWays(USUAL_WAY, bills);
    const id = await room.documentOf('c.pdf', await bill('Saltgate Yarns', 'Two cones of warp'));
    const { suggestion, proposedName } = await room.ask(endpoints.readDocument, { params: { id } });
    expect(suggestion).toEqual({ path: 'Bills/2026', reason: 'Papers filed as “Bills” go here' });
    expect(proposedName).toBe('Saltgate Yarns no. 4711 58,20');
    const examples = await room.ask(endpoints.filingExamples, {});
    expect(examples.find((each) => each.id === id)?.values).toMatchObject({
      who: 'Saltgate Yarns',
      number: '4711',
      amount: '58.20',
      pages: '1',
    });
  });

  it('refuses a pattern that can’t be understood, in the words that the editor uses', async () => {
    const { status, happened } = await room.refusal(endpoints.changeSettings, {
      body: { filing: [{ ...USUAL_WAY, pattern: '{whom} x' }] as never, languages: undefined },
    });
    expect(status).toBe(400);
    expect(happened).toContain('“whom” is not known');
  });
});

it('tells how large a document would be in each size, and files it in the one chosen', async () => {
  const text = Array.from({ length: 12 }, (_, row) => `Row ${row} of the yarn list: weft, warp and selvedge`).join(
    '\n',
  );
  const slip = sharp(await scanned(text, { dpi: 300 })).extract({ left: 0, top: 0, width: 1800, height: 1000 });
  const id = await room.documentOf('d.jpg', await slip.withDensity(300).jpeg({ quality: 85 }).toBuffer());
  const sizes = () => room.ask(endpoints.documentSizes, { params: { id } });
  expect(await sizes()).toEqual(['full', 'balanced', 'small'].map((size) => ({ size, bytes: null })));
  // Looking is no asking; asked for twice, it is done once.
  expect(await room.work()).toBe(0);
  await room.ask(endpoints.weighDocument, { params: { id } });
  await room.ask(endpoints.weighDocument, { params: { id } });
  expect(await room.work()).toBe(1);
  const [full, balanced, small] = (await sizes()).map(({ bytes }) => bytes!);
  expect(small).toBeLessThan(balanced);
  expect(balanced).toBeLessThan(full);
  const filed = await room.ask(endpoints.fileDocument, {
    params: { id },
    body: { name: 'Yarn list', folderPath: 'Workshop', size: 'small' },
  });
  await room.work();
  const bytes = room.diskBytes('Workshop/Yarn list.pdf').length;
  // The title is another one.
  expect(Math.abs(bytes - small)).toBeLessThan(300);
  await room.ask(endpoints.changeDocument, { params: { id: filed.id }, body: { size: 'full' } });
  await room.work();
  expect(Math.abs(room.diskBytes('Workshop/Yarn list.pdf').length - full)).toBeLessThan(300);
});
