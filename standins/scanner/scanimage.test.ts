import { execFile } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { blankSide } from './sheet';
import { startScanner, StandInScanner } from './scanner';

/** The stand-in is worth something when a client that others wrote can scan with it: Debian's sane-airscan. */
const run = promisify(execFile);
const DEVICE = 'airscan:e0:Stand-in';
let standIn: StandInScanner;
let folder: string;

beforeAll(async () => {
  standIn = await startScanner({ hurry: 20, announced: false });
  folder = mkdtempSync(join(tmpdir(), 'crow-sane-'));
  writeFileSync(join(folder, 'dll.conf'), 'airscan\n');
  writeFileSync(
    join(folder, 'airscan.conf'),
    `[devices]\n"Stand-in" = ${standIn.address}/eSCL, eSCL\n[options]\ndiscovery = disable\n`,
  );
});
afterAll(async () => {
  await standIn.close();
  rmSync(folder, { recursive: true, force: true });
});

const scanimage = (...args: string[]) =>
  run('scanimage', ['-d', DEVICE, ...args], {
    cwd: folder,
    env: { ...process.env, SANE_CONFIG_DIR: folder },
    encoding: 'buffer',
    maxBuffer: 64e6,
  });
async function load(count: number): Promise<void> {
  const side = await blankSide(595, 842);
  for (let at = 0; at < count; at++) standIn.machine.feeder.push({ name: `${at}`, front: side, back: side });
}
const batch = async (...args: string[]) => {
  readdirSync(folder)
    .filter((name) => name.endsWith('.png'))
    .forEach((name) => rmSync(join(folder, name)));
  // It ends with 7, “out of documents”, as it should.
  await scanimage(...args, '--format=png', '--batch=page%d.png').catch((error: { code: number }) => {
    if (error.code !== 7) throw error;
  });
  const names = readdirSync(folder).filter((name) => name.endsWith('.png'));
  return Promise.all(names.map((name) => sharp(join(folder, name)).metadata()));
};

it('is found by scanimage with its sources and resolutions', async () => {
  const { stdout } = await scanimage('--help');
  expect(stdout.toString()).toMatch(/--source Flatbed\|ADF\|ADF Duplex/);
  expect(stdout.toString()).toMatch(/--resolution 75\|100\|150\|200\|300\|600dpi/);
});

it('scans the feeder, one side and both', async () => {
  await load(2);
  const oneSided = await batch('--source', 'ADF', '--mode', 'Gray', '--resolution', '100');
  expect(oneSided.map(({ channels }) => channels)).toEqual([1, 1]);
  await load(2);
  expect(await batch('--source', 'ADF Duplex', '--mode', 'Color', '--resolution', '75')).toHaveLength(4);
});

it('scans an area of the glass in each resolution', async () => {
  for (const dpi of [75, 150, 300]) {
    const { stdout } = await scanimage(
      ...['--source', 'Flatbed', '--mode', 'Gray', '--resolution', String(dpi), '--format=png'],
      ...['-l', '20', '-t', '10', '-x', '101.6', '-y', '50.8'],
    );
    const { width, height } = await sharp(stdout).metadata();
    expect([width, height].map((pixels) => Math.round(pixels / dpi))).toEqual([4, 2]);
  }
});

it('is refused when the feeder is empty or a sheet is stuck', async () => {
  await expect(scanimage('--source', 'ADF', '--format=png')).rejects.toThrow(/out of documents/i);
  await load(1);
  standIn.machine.trouble = 'jam';
  await expect(scanimage('--source', 'ADF', '--format=png')).rejects.toThrow(/jam/i);
  standIn.machine.clear();
});
