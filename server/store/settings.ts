import { EntityManager } from 'typeorm';
import { Settings } from '@crow/contract/shapes';
import { rows } from './database';

const DEFAULTS: Settings = { languages: ['eng', 'deu', 'fra'] };

export async function readSettings(manager: EntityManager): Promise<Settings> {
  const stored = await rows<{ name: string; value: unknown }>(manager, 'select name, value from setting');
  return { ...DEFAULTS, ...Object.fromEntries(stored.map(({ name, value }) => [name, value])) };
}

export async function writeSettings(manager: EntityManager, settings: Settings): Promise<void> {
  for (const [name, value] of Object.entries(settings)) {
    await manager.query(
      'insert into setting (name, value) values ($1, $2) on conflict (name) do update set value = excluded.value',
      [name, JSON.stringify(value)],
    );
  }
}
