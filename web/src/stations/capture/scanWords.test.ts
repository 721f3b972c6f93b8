import { Scanner } from '@crow/contract/scanning';
import { paperOf, SCAN_PAPERS, usualSettings } from './scanWords';

const scanner = (capabilities: Partial<Scanner['capabilities']>): Scanner => ({
  id: '00000000-0000-4000-8000-000000000001',
  name: 'Harbour',
  address: 'http://127.0.0.1:1/eSCL',
  last: null,
  capabilities: {
    model: 'Harbour',
    glass: { width: 612, height: 842 },
    feeder: { width: 612, height: 1008 },
    bothSides: true,
    colours: ['colour', 'grey', 'blackAndWhite'],
    resolutions: [75, 200, 300, 600],
    ...capabilities,
  },
});

it('scans at first what text is read best in, from whichever has paper', () => {
  expect(usualSettings(scanner({}))).toMatchObject({ source: 'whichever', colour: 'grey', resolution: 300 });
});

it('asks a scanner for no more than it can', () => {
  expect(usualSettings(scanner({ feeder: null, colours: ['colour'], resolutions: [100, 200] }))).toMatchObject({
    source: 'glass',
    colour: 'colour',
    resolution: 200,
  });
  expect(usualSettings(scanner({ glass: null }))).toMatchObject({ source: 'feeder' });
});

it('knows a paper by its size, and an area that was drawn as none', () => {
  for (const { name, width, height } of SCAN_PAPERS) expect(paperOf({ x: 0, y: 0, width, height })).toBe(name);
  expect(paperOf({ x: 20, y: 0, width: 595, height: 842 })).toBeUndefined();
  expect(paperOf({ x: 0, y: 0, width: 300, height: 300 })).toBeUndefined();
  expect(paperOf(null)).toBeUndefined();
});
