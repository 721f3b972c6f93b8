import { ImagingWorker } from './imagingWorker';
import type { Told } from './imaging';

/** A worker that does nothing until the test says what it tells. */
class SilentWorker {
  static last: SilentWorker;
  onmessage?: (event: { data: Told }) => void;
  onerror?: (event: { message: string }) => void;
  asked: { number: number }[] = [];

  constructor() {
    SilentWorker.last = this;
  }
  postMessage(asked: { number: number }) {
    this.asked.push(asked);
  }
  terminate() {}
}

beforeAll(() => {
  Object.assign(globalThis, { Worker: SilentWorker });
});

const picture = { width: 1, height: 1, channels: 4, data: new Uint8Array(4) } as const;
const open = { kind: 'open', picture } as const;

describe('asking the imaging worker', () => {
  it('gives each its own answer, in whatever order they come', async () => {
    const worker = new ImagingWorker();
    const [first, second] = [worker.ask<'opened'>(open), worker.ask<'signed'>({ kind: 'sign', picture })];
    const { last } = SilentWorker;
    last.onmessage!({ data: { number: last.asked[1].number, answer: { kind: 'signed', found: 'nothing' } as never } });
    last.onmessage!({ data: { number: last.asked[0].number, answer: { kind: 'opened' } } });
    expect((await second).kind).toBe('signed');
    expect((await first).kind).toBe('opened');
  });

  it('fails what could not be done, and goes on', async () => {
    const worker = new ImagingWorker();
    const [first, second] = [worker.ask<'opened'>(open), worker.ask<'opened'>(open)];
    const { last } = SilentWorker;
    last.onmessage!({ data: { number: last.asked[0].number, failed: 'Array buffer allocation failed' } });
    last.onmessage!({ data: { number: last.asked[1].number, answer: { kind: 'opened' } } });
    await expect(first).rejects.toThrow('allocation failed');
    expect((await second).kind).toBe('opened');
  });

  it('fails all that waits when the worker does not come, and all that is asked afterwards', async () => {
    const worker = new ImagingWorker();
    const waiting = worker.ask<'opened'>(open);
    SilentWorker.last.onerror!({ message: '' });
    await expect(waiting).rejects.toThrow('did not start');
    await expect(worker.ask<'opened'>(open)).rejects.toThrow('did not start');
  });
});
