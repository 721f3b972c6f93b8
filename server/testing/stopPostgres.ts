import { once } from 'node:events';

export default async function tearDown(): Promise<void> {
  const postgres = globalThis.crowTestPostgres;
  if (!postgres || postgres.exitCode !== null) return;
  postgres.kill('SIGINT');
  await once(postgres, 'exit');
}
