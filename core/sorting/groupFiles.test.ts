import { groupFiles } from './groupFiles';

const file = (name: string, type = '') => ({ name, type });
const grouped = (...files: { name: string; type: string }[]) =>
  groupFiles(files).map(({ name, files: those }) => [name, those.map((each) => each.name)]);

it('makes one stack of pictures, in the order of their names, numbers counted as numbers', () => {
  expect(grouped(file('10.jpg'), file('9.JPEG'), file('scan', 'image/heic'))).toEqual([
    ['9.JPEG and 2 more', ['9.JPEG', '10.jpg', 'scan']],
  ]);
});

it('makes a stack of each other file', () => {
  expect(grouped(file('b.pdf'), file('only.png'), file('a.pdf'))).toEqual([
    ['b.pdf', ['b.pdf']],
    ['a.pdf', ['a.pdf']],
    ['only.png', ['only.png']],
  ]);
});
