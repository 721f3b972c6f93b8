import { arrival } from './stacks';

const told = {
  stack: '00000000-0000-4000-8000-000000000001',
  file: '00000000-0000-4000-8000-000000000002',
  stackName: 'Camera',
  name: 'Photo.jpg',
  position: 0,
};

describe('what is said of a file that is sent', () => {
  it('names the side at which a book is bound', () => {
    expect(arrival.validateSync({ ...told, bound: 'right' }).bound).toBe('right');
    expect(() => arrival.validateSync({ ...told, bound: 'above' })).toThrow();
  });

  it('is still understood from pictures that waited since books were bound at the left only', () => {
    expect(arrival.validateSync({ ...told, bound: 'true' }).bound).toBe('left');
    expect(arrival.validateSync(told).bound).toBeUndefined();
  });
});
