import fc from 'fast-check';
import { compareNames, freeName, nameKey, safeName } from './names';

describe('names for every file system', () => {
  it.each([
    ['Invoice: March/April', 'Invoice. March-April'],
    ['What? "This" <one>*', 'What This one'],
    ['  .hidden. ', 'hidden'],
    ['CON', 'CON -'],
    ['lpt1.2025', 'lpt1.2025 -'],
    ['a\u202Egpj.exe\u0000b', 'a gpj.exe b'],
    ['Gro\u0308ße', 'Größe'],
    ['..', 'Untitled'],
    ['', 'Untitled'],
  ])('makes “%s” into “%s”', (name, safe) => {
    expect(safeName(name)).toBe(safe);
  });

  it('makes any text into one path part that it leaves alone the second time', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 300 }), (name) => {
        const safe = safeName(name);
        expect(safe).not.toMatch(/[/\\:*?"<>|\u0000-\u001f]/);
        expect(safe).not.toMatch(/^[\s.]|[\s.]$/);
        expect(Buffer.byteLength(safe)).toBeLessThanOrEqual(190);
        expect(safe.length).toBeGreaterThan(0);
        expect(safeName(safe)).toBe(safe);
      }),
    );
  });

  it('never cuts a character in two', () => {
    expect(safeName('👩‍👩‍👧'.repeat(40))).toMatch(/^(👩‍👩‍👧)+$/u);
  });
});

it('gives a taken name the first free number, whatever its case', () => {
  expect(freeName('Rent', new Set(['water']))).toBe('Rent');
  expect(freeName('Rent', new Set([nameKey('RENT'), nameKey('Rent (2)')]))).toBe('Rent (3)');
  expect(freeName('Rent (2)', new Set([nameKey('Rent'), nameKey('Rent (2)')]))).toBe('Rent (3)');
});

it('counts numbers in names as numbers', () => {
  expect(['page10.jpg', 'page9.jpg', 'Page1.jpg'].sort(compareNames)).toEqual(['Page1.jpg', 'page9.jpg', 'page10.jpg']);
});
