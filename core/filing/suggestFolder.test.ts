import { FiledBefore, folderFromScratch, newFolderFor, suggestFolder } from './suggestFolder';

const filed = (folderId: string, vendor?: string, words = '', kind = 'invoice'): FiledBefore => ({
  folderId,
  vendor,
  kind,
  words: words.split(' ').filter(Boolean),
});

it('suggests where the last papers of the sender went, and says so', () => {
  const before = [
    filed('dyeing', 'Marlowe Dye Works'),
    filed('dyeing', 'MARLOWE DYE WORKS'),
    filed('yarn', 'Saltgate Yarns'),
    filed('yarn', 'Marlowe Dye Works'),
  ];
  expect(suggestFolder({ vendor: 'Marlowe Dye Works' }, before).suggestion).toMatchObject({
    folderId: 'dyeing',
    reason: 'The last two from Marlowe Dye Works went here',
  });
  expect(suggestFolder({ vendor: 'Saltgate Yarns' }, before).suggestion?.reason).toBe(
    'The last one from Saltgate Yarns went here',
  );
});

it('tells two folders of one sender apart by the words on the paper', () => {
  const before = [
    filed('home', 'Tarn Power', 'electricity supply flat rosehill terrace'),
    filed('workshop', 'Tarn Power', 'electricity supply unit netmakers yard'),
    filed('home', 'Tarn Power', 'electricity supply flat rosehill terrace'),
    filed('workshop', 'Tarn Power', 'electricity supply unit netmakers yard'),
  ];
  const paper = { vendor: 'Tarn Power', kind: 'invoice', words: ['electricity', 'unit', 'netmakers', 'yard'] };
  expect(suggestFolder(paper, before).suggestion).toMatchObject({
    folderId: 'workshop',
    reason: '2 of 4 papers from Tarn Power went here',
  });
});

it('knows a new sender by what its papers are about', () => {
  const before = [
    filed('vet', 'Bramble Vets', 'vaccination cat kitten dose practice'),
    filed('vet', 'Harbour Animal Clinic', 'cat vaccination wormer practice'),
    filed('yarn', 'Saltgate Yarns', 'skein warp weft lambswool cone'),
    filed('yarn', 'Loomcraft', 'warp cone cotton skein'),
  ];
  const paper = { vendor: 'Dr Finch', kind: 'invoice', words: ['cat', 'vaccination', 'practice', 'claw'] };
  expect(suggestFolder(paper, before).suggestion).toMatchObject({
    folderId: 'vet',
    reason: 'Papers with “cat” and “vaccination” went here',
  });
});

it('does not go by two words alone, nor by what addresses are made of', () => {
  const before = [
    filed('vet', 'Bramble Vets', 'vaccination cat market place street practice'),
    filed('vet', 'Harbour Animal Clinic', 'cat vaccination wormer market place street'),
    filed('yarn', 'Saltgate Yarns', 'skein warp weft lambswool cone'),
    filed('yarn', 'Loomcraft', 'warp cone cotton skein'),
  ];
  const said = (...words: string[]) => suggestFolder({ vendor: 'Dr Finch', words }, before);
  expect(said('cat', 'vaccination').suggestion).toBeUndefined();
  expect(said('market', 'place', 'street').suggestion).toBeUndefined();
  expect(said('cat', 'vaccination', 'market').likely[0]).toBe('vet');
});

it('says nothing when nothing is alike', () => {
  const before = [filed('yarn', 'Saltgate Yarns', 'skein warp weft', 'receipt')];
  expect(suggestFolder({ vendor: 'New', kind: 'letter', words: ['school', 'trip'] }, before)).toEqual({
    likely: ['yarn'],
  });
  expect(suggestFolder({}, before).suggestion).toBeUndefined();
  expect(suggestFolder({ vendor: 'New' }, [])).toEqual({ likely: [] });
});

it('never takes words that stand in every text for a reason', () => {
  const texts = [
    'we are glad that you have been our guest',
    'there are some who have been with us',
    'these are what has been agreed',
  ];
  const before = [
    ...texts.map((text) => filed('school', 'Weaver Street School', text, 'letter')),
    ...Array.from({ length: 6 }, () => filed('yarn', 'Saltgate Yarns', 'skein warp weft')),
  ];
  const paper = { vendor: 'Dr Finch', kind: 'notice', words: ['are', 'been', 'have', 'that', 'claw'] };
  const { suggestion, likely } = suggestFolder(paper, before);
  expect(suggestion).toBeUndefined();
  expect(likely).toContain('school');
});

it('starts with kind and year on an empty shelf', () => {
  expect(folderFromScratch({ kind: 'invoice', date: '2026-03-05' })).toBe('Invoices/2026');
  expect(folderFromScratch({ kind: 'letter' })).toBe('Letters');
  expect(folderFromScratch({ kind: 'reminder', date: '2026-03-05' })).toBe('Invoices/2026');
  expect(folderFromScratch({ kind: 'other', date: '2025-01-01' })).toBe('Papers/2025');
});

it('takes a folder for one of a kind only where papers of that kind came to it from many', () => {
  const from = (...vendors: string[]) => [
    ...vendors.map((vendor) => filed('slips', vendor, '', 'receipt')),
    ...['Quay Power', 'Tarn Power', 'Orrin Power', 'Ness Power'].map((vendor) =>
      filed('energy', vendor, '', 'invoice'),
    ),
  ];
  const said = (...vendors: string[]) =>
    suggestFolder({ vendor: 'Tea Rooms', kind: 'receipt' }, from(...vendors)).suggestion;
  expect(said('Post Office', 'Post Office', 'Post Office', 'Post Office')).toBeUndefined();
  expect(said('Post Office', 'Ironmonger', 'Bakery', 'Kiosk')).toMatchObject({
    folderId: 'slips',
    reason: 'Most papers of the kind “receipt” went here',
  });
});

describe('folders that are called after what a paper is about', () => {
  const folders = ['Home/School', 'Home/Energy', 'Workshop/Yarn'].map((path) => ({ id: path, path }));
  const before = [
    filed('Workshop/Yarn', 'Saltgate Yarns', 'skein warp weft'),
    filed('Home/Energy', 'Tarn Power', 'kwh'),
  ];
  const canteen = {
    vendor: 'Ville de Guérande',
    kind: 'notice',
    words: ['scolaire', 'cantine', 'garderie', 'montant'],
  };

  it('are suggested though nothing lies in them yet, with the words that say so', () =>
    expect(suggestFolder(canteen, before, folders).suggestion).toMatchObject({
      folderId: 'Home/School',
      reason: 'It is about school: “scolaire”, “cantine”',
    }));

  it('are none where two are called alike', () => {
    const two = [...folders, { id: 'Workshop/School', path: 'Workshop/School' }];
    const { suggestion, likely } = suggestFolder(canteen, before, two);
    expect(suggestion).toBeUndefined();
    expect(likely.slice(0, 2).sort()).toEqual(['Home/School', 'Workshop/School']);
  });

  it('give way to where papers of the sender went', () => {
    const lessons = filed('Workshop/Yarn', 'Ville de Guérande', 'scolaire cantine garderie');
    expect(suggestFolder(canteen, [lessons, lessons, ...before], folders).suggestion).toMatchObject({
      folderId: 'Workshop/Yarn',
      reason: 'The last two from Ville de Guérande went here',
    });
  });

  it('are not suggested for what one word says', () =>
    expect(suggestFolder({ words: ['pupils', 'montant'] }, before, folders).suggestion).toBeUndefined());

  it('may be new ones, where none is called so', () => {
    const slip = { vendor: 'Parkhaus Seegarten AG', words: ['einfahrt', 'ausfahrt'] };
    expect(newFolderFor(slip, folders)).toBe('Travel');
    expect(newFolderFor(slip, [...folders, { path: 'Reisen/2026' }])).toBeUndefined();
    expect(newFolderFor(canteen, folders)).toBeUndefined();
    expect(newFolderFor({ words: ['montant'] }, folders)).toBeUndefined();
  });
});
