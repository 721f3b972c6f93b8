import { scannerOf } from './findScanners';

const announced = {
  name: 'Scanner [a1b2]',
  port: 8080,
  addresses: ['fe80::1', '192.168.1.20'],
  txt: { rs: '/eSCL/', ty: 'Office' },
};

describe('a scanner that makes itself known', () => {
  it('is reached at its address and path', () =>
    expect(scannerOf(announced, ['192.168.1.5'])).toEqual({
      name: 'Office',
      address: 'http://192.168.1.20:8080/eSCL',
    }));

  it('is reached on loopback when it is on this machine', () =>
    expect(scannerOf(announced, ['192.168.1.20'])!.address).toBe('http://127.0.0.1:8080/eSCL'));

  it('is left out without an address, or with a path that is none', () => {
    expect(scannerOf({ ...announced, addresses: ['fe80::1'] }, [])).toBeUndefined();
    expect(scannerOf({ ...announced, txt: { rs: 'eSCL/../..?x' } }, [])).toBeUndefined();
  });
});
