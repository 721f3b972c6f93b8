import { serveUntilStopped } from './start';

export async function main(): Promise<number> {
  return serveUntilStopped('.crow/demo', async () => undefined);
}
