import { endpoints } from '@crow/contract/endpoints';
import { textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeEach(async () => void (room = await TestRoom.open()));
afterEach(() => room.close());

const read = (id: string) => room.ask(endpoints.readDocument, { params: { id } });
const paper = async (
  name: string,
  text = `Marlowe Dye Works Ltd\nDelivery note\nThe paper called ${name}\nDyeing to shade, madder, twelve skeins`,
) => {
  const id = await room.documentOf(`${name}.pdf`, await textPdf(text));
  await room.file(id, name, 'A');
  return id;
};
const change = async (changes: { id: string; name?: string; folderId?: string; binned?: boolean }[]) => {
  const changed = await room.ask(endpoints.changeDocuments, { body: { changes } });
  await room.work();
  return changed;
};

describe('several documents at once', () => {
  it('are moved and moved back, names that collide numbered and given back', async () => {
    const ids = [await paper('One'), await paper('Two')];
    await room.file(
      await room.documentOf(
        'x.pdf',
        await textPdf('Oakum Ropewalk\nInvoice\nNot the same paper at all\nHemp, three ply, forty metres'),
      ),
      'Two',
      'B',
    );
    const folders = await room.ask(endpoints.listFolders, {});
    const [a, b] = ['A', 'B'].map((path) => folders.find((folder) => folder.path === path)!.id);
    const changed = await change(ids.map((id) => ({ id, folderId: b })));
    expect(changed.map(({ name, folderPath }) => `${folderPath}/${name}`).sort()).toEqual(['B/One', 'B/Two (2)']);
    expect([room.onDisk('B/One.pdf'), room.onDisk('B/Two (2).pdf'), room.onDisk('A/One.pdf')]).toEqual([
      true,
      true,
      false,
    ]);
    await change([
      { id: ids[0], folderId: a, name: 'One' },
      { id: ids[1], folderId: a, name: 'Two' },
    ]);
    expect([room.onDisk('A/One.pdf'), room.onDisk('A/Two.pdf'), room.onDisk('B/Two.pdf')]).toEqual([true, true, true]);
  });

  it('go into the bin and come out of it together', async () => {
    const ids = [await paper('One'), await paper('Two')];
    await change(ids.map((id) => ({ id, binned: true })));
    expect((await room.ask(endpoints.listBin, {})).documents).toHaveLength(2);
    expect(room.onDisk('A/One.pdf')).toBe(false);
    await change(ids.map((id) => ({ id, binned: false })));
    expect([room.onDisk('A/One.pdf'), room.onDisk('A/Two.pdf')]).toEqual([true, true]);
  });

  it('stay as they are, all of them, when one can’t be changed', async () => {
    const filed = await paper('One');
    const waiting = await room.documentOf(
      'two.pdf',
      await textPdf('Oakum Ropewalk\nInvoice\nNot filed yet\nHemp, three ply, forty metres'),
    );
    const refused = await room.refusal(endpoints.changeDocuments, {
      body: {
        changes: [
          { id: filed, name: 'Renamed' },
          { id: waiting, name: 'Renamed' },
        ],
      },
    });
    expect(refused).toMatchObject({ code: 'document-elsewhere' });
    expect((await read(filed)).name).toBe('One');
  });

  it('are given the names that the ways of filing make for them', async () => {
    const id = await paper('scan0001', 'Marlowe Dye Works Ltd\nInvoice\nDate 11 November 2026\nTotal 186.60');
    const proposals = await room.ask(endpoints.proposedNames, { body: { ids: [id] } });
    expect(proposals).toEqual([{ id, name: 'scan0001', proposed: '2026-11-11 Marlowe Dye Works Ltd Invoice' }]);
    await change([{ id, name: proposals[0].proposed }]);
    expect(room.onDisk('A/2026-11-11 Marlowe Dye Works Ltd Invoice.pdf')).toBe(true);
  });
});
