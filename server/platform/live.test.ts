import { AddressInfo, createServer } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { LiveListener } from './live';

it('tries again steadily while the database is away, and never more than once at a time', async () => {
  let tries = 0;
  const refusing = createServer((socket) => {
    tries++;
    socket.destroy();
  });
  await new Promise<void>((done) => refusing.listen(0, '127.0.0.1', done));
  const { port } = refusing.address() as AddressInfo;
  const listener = new LiveListener(`postgres://nobody:x@127.0.0.1:${port}/nothing`, () => undefined);
  await expect(listener.start()).rejects.toThrow();
  await wait(4200);
  await listener.close();
  refusing.close();
  expect(tries).toBeGreaterThan(3);
  expect(tries).toBeLessThanOrEqual(10);
});
