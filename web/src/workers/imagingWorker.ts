import { Raster } from '@crow/core/imaging/raster';
import type { Answer, Ask } from './imaging';

/** The imaging worker as something to ask and wait for. */
export class ImagingWorker {
  private readonly worker = new Worker(new URL('./imaging.ts', import.meta.url), { type: 'module' });
  private readonly waiting = new Map<number, (answer: Answer) => void>();
  private next = 0;

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<{ number: number; answer: Answer }>) => {
      this.waiting.get(data.number)?.(data.answer);
      this.waiting.delete(data.number);
    };
  }

  ask<Kind extends Answer['kind']>(ask: Ask, transfer: Transferable[] = []): Promise<Extract<Answer, { kind: Kind }>> {
    const number = this.next++;
    return new Promise((resolve) => {
      this.waiting.set(number, (answer) => resolve(answer as Extract<Answer, { kind: Kind }>));
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
