import { nameOf } from './keys';

const press = (key: string, held: Partial<Record<'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey', boolean>> = {}) =>
  nameOf({ key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held });

it.each([
  ['c', press('c')],
  ['Shift+R', press('R', { shiftKey: true })],
  ['?', press('?', { shiftKey: true })],
  ['Ctrl+z', press('z', { ctrlKey: true })],
  ['Ctrl+Shift+z', press('Z', { metaKey: true, shiftKey: true })],
  ['Ctrl+Enter', press('Enter', { ctrlKey: true })],
  ['Alt+ArrowLeft', press('ArrowLeft', { altKey: true })],
  ['Shift+ArrowDown', press('ArrowDown', { shiftKey: true })],
])('calls a key %s', (name, pressed) => {
  expect(pressed).toBe(name);
});
