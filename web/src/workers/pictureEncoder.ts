import type { Encoded, ToEncode } from './encoder';

/**
 * Encodes pictures as JPEG in a worker: on a page’s own thread browsers put it off until nothing else is to be done. As long as the worker is not
 * there, as without a line, the page does it.
 */
export class PictureEncoder {
  private readonly worker = new Worker(new URL('./encoder.ts', import.meta.url), { type: 'module' });
  private readonly waiting = new Map<number, { resolve: (jpeg: Blob) => void; reject: (error: Error) => void }>();
  private ready = false;
  private ending = false;
  private next = 0;

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<Encoded>) => {
      if (data === 'ready') {
        this.ready = true;
        return;
      }
      const { resolve, reject } = this.waiting.get(data.number)!;
      this.waiting.delete(data.number);
      if (this.ending) this.end();
      if ('jpeg' in data) resolve(data.jpeg);
      else reject(new Error(data.failed));
    };
  }

  /** @param picture is empty afterwards @param quality from 0 to 1 @throws Error when the browser has no room for it */
  encode(picture: OffscreenCanvas, quality: number): Promise<Blob> {
    if (!this.ready) return picture.convertToBlob({ type: 'image/jpeg', quality });
    const ask: ToEncode = { number: this.next++, picture: picture.transferToImageBitmap(), quality };
    return new Promise((resolve, reject) => {
      this.waiting.set(ask.number, { resolve, reject });
      this.worker.postMessage(ask, [ask.picture]);
    });
  }

  /** Ends the worker once nothing waits for it. */
  end(): void {
    this.ending = true;
    if (this.waiting.size === 0) this.worker.terminate();
  }
}
