import { callsItselfDivider, Divider, dividerCode, readDividerCode } from './divider';

it.each<Divider>([
  { folder: null, kind: null },
  { folder: 'Household/Energy & heat', kind: 'invoice' },
  { folder: 'Maison/Électricité?kind=letter', kind: null },
  { folder: null, kind: 'receipt' },
])('says in its code what stands on the sheet: %j', (divider) => {
  const code = dividerCode(divider);
  expect(code).not.toMatch(/\s/);
  expect(readDividerCode(code)).toEqual(divider);
  expect(readDividerCode(`printed below: ${code} .`)).toMatchObject({ kind: divider.kind });
});

it('takes no other code for its own, and leaves out what makes no sense', () => {
  expect(readDividerCode('https://parcels.example/track?kind=invoice')).toBeUndefined();
  expect(readDividerCode('crow-shelf:divider?kind=poem')).toEqual({ folder: null, kind: null });
  expect(readDividerCode(`crow-shelf:divider?folder=${'x'.repeat(500)}`)).toEqual({ folder: null, kind: null });
});

it('knows a divider sheet by its words, and a letter about dividers is none', () => {
  expect(callsItselfDivider('Divider sheet A new document begins behind this sheet'.split(' '))).toBe(true);
  expect(callsItselfDivider('Trennblatt'.split(' '))).toBe(true);
  expect(callsItselfDivider(['Invoice', 'for', 'sheets'])).toBe(false);
  const letter = 'Dear Mr Castellane, thank you for your order of a divider sheet for the loom room.'.split(' ');
  expect(callsItselfDivider([...letter, ...letter, ...letter, ...letter, ...letter])).toBe(false);
});

describe('the label of a box or binder', () => {
  const place = { id: '3e6c9b65-1be4-4aa1-a721-646c67a7dd4c', name: 'Binder & box, 2026 / ½' };
  it('says which it is, and what it is called', () =>
    expect(readDividerCode(dividerCode({ folder: null, kind: null, place }))).toEqual({
      folder: null,
      kind: null,
      place,
    }));
  it.each([
    'place=1&name=Binder',
    `place=${place.id}`,
    `place=${place.id}&name=${'x'.repeat(61)}`,
    `place=${place.id.toUpperCase()}'--&name=Binder`,
  ])('names none that it can’t be: %s', (said) =>
    expect(readDividerCode(`crow-shelf:divider?${said}`)).toEqual({ folder: null, kind: null }),
  );
});
