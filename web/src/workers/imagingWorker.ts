import { Raster } from '@crow/core/imaging/raster';
import type { Answer, Ask, Told } from './imaging';

/** The imaging worker as something to ask and wait for. */
export class ImagingWorker {
  private readonly worker = new Worker(new URL('./imaging.ts', import.meta.url), { type: 'module' });
  private readonly waiting = new Map<number, { resolve: (answer: Answer) => void; reject: (error: Error) => void }>();
  private next = 0;
  /** Why it can't be asked anything: it didn't come, as without a line. */
  private broken: Error | undefined;

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<Told>) => {
      const asked = this.waiting.get(data.number);
      this.waiting.delete(data.number);
      if ('answer' in data) asked?.resolve(data.answer);
      else asked?.reject(new Error(data.failed));
    };
    this.worker.onerror = ({ message }) => {
      this.broken = new Error(message || 'The imaging worker did not start.');
      for (const { reject } of this.waiting.values()) reject(this.broken);
      this.waiting.clear();
    };
  }

  /** @throws Error when it can't be done: there is no room for the picture, or the worker didn't come */
  ask<Kind extends Answer['kind']>(ask: Ask, transfer: Transferable[] = []): Promise<Extract<Answer, { kind: Kind }>> {
    if (this.broken) return Promise.reject(this.broken);
    const number = this.next++;
    return new Promise((resolve, reject) => {
      this.waiting.set(number, {
        resolve: (answer) => resolve(answer as Extract<Answer, { kind: Kind }>),
        reject,
      });
      this.worker.postMessage({ number, ask }, transfer);
    });
  }

  end(): void {
    this.worker.terminate();
  }
}

/** The pixels of whatever the browser can draw. */
export function pixelsOf(source: CanvasImageSource, width: number, height: number): Raster {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(source, 0, 0, width, height);
  return { width, height, channels: 4, data: context.getImageData(0, 0, width, height).data };
}
