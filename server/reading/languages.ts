import { Problem } from '@crow/contract/problems';
import { LanguageList } from '@crow/contract/settings';
import { TOLD_APART } from '@crow/core/reading/language';
import { languageName, OTHER_LANGUAGES } from '@crow/core/reading/otherLanguages';
import { runChild } from '../engines/child';
import { dataPath, forgetLanguages, installedLanguages } from '../engines/languageData';
import { Context } from '../platform/context';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { readSettings, writeSettings } from '../platform/settings';

/** Fetching and unpacking a language may take so long, in seconds. */
const SECONDS = 600;

/** The languages that can be read, and those that can be added. */
export async function listLanguages(): Promise<LanguageList> {
  const installed = await installedLanguages();
  return {
    installed: [
      ...TOLD_APART.filter((code) => installed.includes(code)),
      ...installed.filter((code) => !TOLD_APART.includes(code)),
    ].map((code) => ({ code, name: languageName(code), toldApart: TOLD_APART.includes(code) })),
    addable: [...TOLD_APART.map((code) => ({ code, name: languageName(code) })), ...OTHER_LANGUAGES].filter(
      ({ code }) => !installed.includes(code),
    ),
  };
}

/** Makes sure that languages can be read. @throws Problem 'language-unknown' */
export async function insistOnLanguages(codes: string[]): Promise<void> {
  const installed = await installedLanguages();
  const unknown = codes.find((code) => !installed.includes(code) && !TOLD_APART.includes(code));
  if (unknown) throw new Problem('language-unknown', { name: unknown });
}

/**
 * Adds a language by way of the system's package manager, and chooses it.
 * @throws Problem 'language-unknown', 'language-not-added' with the command to be run by hand
 */
export async function addLanguage({ database }: Context, actor: ActingAs, code: string): Promise<void> {
  const { installed, addable } = await listLanguages();
  const language = [...installed, ...addable].find((each) => each.code === code);
  if (!language) throw new Problem('language-unknown', { name: code });
  if (!installed.some((each) => each.code === code)) await install(code, language.name);
  await database.source.transaction(async (manager) => {
    const { languages } = await readSettings(manager);
    if (!languages.includes(code)) await writeSettings(manager, { languages: [...languages, code] });
    await record(manager, actor, 'added a language', 'settings', null, { code });
    await announce(manager, 'settings', null);
  });
}

async function install(code: string, name: string): Promise<void> {
  const wanted = `tesseract-ocr-${code.replaceAll('_', '-')}`;
  const [command, ...args] = [...packageManager(), 'install', '--yes', '--no-install-recommends', wanted];
  const { code: failed } = await runChild(command, args, {
    limits: { seconds: SECONDS, megabytes: 4000 },
    what: `Adding ${name}`,
    environment: { DEBIAN_FRONTEND: 'noninteractive', ...dataPath() },
    mostOutput: 10_000_000,
  }).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return { code: 127 };
    throw error;
  });
  forgetLanguages();
  if (failed || !(await installedLanguages()).includes(code))
    throw new Problem('language-not-added', { name, command: `sudo apt install ${wanted}` });
}

/** Who may not install asks whether they may without a password; there is nobody to type one. CROW_PACKAGE_MANAGER names another one. */
function packageManager(): string[] {
  const { CROW_PACKAGE_MANAGER: other } = process.env;
  if (other) return [other];
  return process.getuid?.() === 0 ? ['apt-get'] : ['sudo', '--non-interactive', 'apt-get'];
}
