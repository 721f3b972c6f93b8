import { EntityManager, In } from 'typeorm';
import { Settings } from '@crow/contract/settings';
import { USUAL_MAIL, USUAL_WAY } from '@crow/core/filing/pattern';
import { TOLD_APART } from '@crow/core/reading/language';
import { Setting } from './entities';

const DEFAULTS: Settings = {
  languages: TOLD_APART,
  filing: [USUAL_WAY as Settings['filing'][number]],
  days: 'iso',
  ownKinds: [],
  mailForm: USUAL_MAIL,
};

export async function readSettings(manager: EntityManager): Promise<Settings> {
  const stored = await manager.findBy(Setting, { name: In(Object.keys(DEFAULTS)) });
  const settings: Settings = { ...DEFAULTS, ...Object.fromEntries(stored.map(({ name, value }) => [name, value])) };
  // Ways that were kept before there was anything beside the PDF.
  return { ...settings, filing: settings.filing.map((way) => ({ ...way, beside: way.beside ?? [] })) };
}

export async function writeSettings(manager: EntityManager, settings: Partial<Settings>): Promise<void> {
  for (const [name, value] of Object.entries(settings)) {
    if (value === undefined) continue;
    await manager.upsert(Setting, { name, value }, ['name']);
  }
}
