import { suggestFolder } from './suggestFolder';

const filed = (folderId: string, vendor?: string, kind?: string) => ({ folderId, vendor, kind });

it('suggests where most papers of the sender went, and says so', () => {
  const before = [
    filed('dyeing', 'Marlowe Dye Works'),
    filed('yarn', 'Marlowe Dye Works'),
    filed('dyeing', 'MARLOWE DYE WORKS'),
  ];
  expect(suggestFolder({ vendor: 'Marlowe Dye Works' }, before)).toEqual({
    folderId: 'dyeing',
    reason: '2 of 3 papers from Marlowe Dye Works went here',
  });
});

it('takes the folder used last when there are as many in another', () => {
  expect(suggestFolder({ vendor: 'A' }, [filed('new', 'A'), filed('old', 'A')])?.folderId).toBe('new');
});

it('falls back on the kind when that says something', () => {
  const receipts = [filed('post', 'x', 'receipt'), filed('post', 'y', 'receipt'), filed('fairs', 'z', 'receipt')];
  expect(suggestFolder({ vendor: 'New', kind: 'receipt' }, receipts)?.folderId).toBe('post');
  expect(suggestFolder({ vendor: 'New', kind: 'receipt' }, receipts.slice(0, 2))).toBeUndefined();
  expect(suggestFolder({}, receipts)).toBeUndefined();
});
