/** A picture to be encoded, and what comes of it. */
export interface ToEncode {
  number: number;
  picture: ImageBitmap;
  quality: number;
}
export type Encoded = 'ready' | { number: number; jpeg: Blob } | { number: number; failed: string };

self.onmessage = async ({ data: { number, picture, quality } }: MessageEvent<ToEncode>) => {
  const canvas = new OffscreenCanvas(picture.width, picture.height);
  canvas.getContext('bitmaprenderer')!.transferFromImageBitmap(picture);
  const answer = (message: Encoded) => self.postMessage(message);
  await canvas.convertToBlob({ type: 'image/jpeg', quality }).then(
    (jpeg) => answer({ number, jpeg }),
    (error: unknown) => answer({ number, failed: String(error) }),
  );
};
self.postMessage('ready' satisfies Encoded);
