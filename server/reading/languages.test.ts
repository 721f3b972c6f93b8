import { chmodSync, mkdirSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { endpoints } from '@crow/contract/endpoints';
import { forgetLanguages } from '../engines/languageData';
import { scratchFolder } from '../testing/made';
import { TestRoom } from '../testing/room';

const TESSDATA = '/usr/share/tesseract-ocr/5/tessdata';
let room: TestRoom;
let folder: string;
beforeEach(async () => {
  room = await TestRoom.open();
  folder = scratchFolder();
  // A recogniser that has English only, and a package manager that “installs” what it is told to, or fails.
  mkdirSync(join(folder, 'data'));
  symlinkSync(join(TESSDATA, 'eng.traineddata'), join(folder, 'data/eng.traineddata'));
  process.env.TESSDATA_PREFIX = join(folder, 'data');
  process.env.CROW_PACKAGE_MANAGER = join(folder, 'packages');
  forgetLanguages();
});
afterEach(async () => {
  delete process.env.TESSDATA_PREFIX;
  delete process.env.CROW_PACKAGE_MANAGER;
  forgetLanguages();
  await room.close();
});

const packageManager = (script: string) => {
  const path = join(folder, 'packages');
  writeFileSync(path, `#!/bin/sh\necho "$@" > ${join(folder, 'asked')}\n${script}\n`);
  chmodSync(path, 0o755);
};
const named = (list: { name: string }[]) => list.map(({ name }) => name);

describe('languages', () => {
  it('are listed by name: those that can be read, and those that can be added', async () => {
    const { installed, addable } = await room.ask(endpoints.listLanguages, {});
    expect(installed).toEqual([{ code: 'eng', name: 'English', toldApart: true }]);
    expect(named(addable)).toEqual(expect.arrayContaining(['German', 'Swedish', 'Greek', 'Chinese (simplified)']));
    expect(named(addable)).not.toContain('English');
  });

  it('are added through the package manager, and chosen', async () => {
    packageManager(`cp ${join(TESSDATA, 'eng.traineddata')} ${join(folder, 'data/chi_sim.traineddata')}`);
    const { installed } = await room.ask(endpoints.addLanguage, { body: { code: 'chi_sim' } });
    expect(installed).toContainEqual({ code: 'chi_sim', name: 'Chinese (simplified)', toldApart: false });
    expect(readFileSync(join(folder, 'asked'), 'utf8').trim()).toMatch(
      /^install --yes --no-install-recommends tesseract-ocr-chi-sim$/,
    );
    expect((await room.ask(endpoints.readSettings, {})).languages.at(-1)).toBe('chi_sim');
  });

  it('that can’t be installed are told with what to do, and nothing is chosen', async () => {
    packageManager('exit 100');
    const before = await room.ask(endpoints.readSettings, {});
    const refused = await room.refusal(endpoints.addLanguage, { body: { code: 'swe' } });
    expect(refused).toMatchObject({
      code: 'language-not-added',
      happened: expect.stringContaining('Swedish'),
      todo: expect.stringContaining('sudo apt install tesseract-ocr-swe'),
    });
    expect(await room.ask(endpoints.readSettings, {})).toEqual(before);
  });

  it('without a package manager are told the same way', async () => {
    process.env.CROW_PACKAGE_MANAGER = join(folder, 'there is none');
    expect(await room.refusal(endpoints.addLanguage, { body: { code: 'swe' } })).toMatchObject({
      code: 'language-not-added',
    });
  });

  it.each(['xxx', 'eng; rm -rf', '--help'])('that nobody knows are refused: %s', async (code) => {
    packageManager('exit 0');
    const { status } = await room.refusal(endpoints.addLanguage, { body: { code } });
    expect(status).toBe(400);
  });
});
