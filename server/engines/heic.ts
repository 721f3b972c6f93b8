import { Problem } from '@crow/contract/problems';

interface HeifImage {
  get_width(): number;
  get_height(): number;
  display(target: { data: Uint8ClampedArray; width: number; height: number }, done: (result: unknown) => void): void;
  free?(): void;
}
interface HeifLibrary {
  HeifDecoder: new () => { decode(bytes: Uint8Array): HeifImage[] };
}

export interface RawPicture {
  data: Buffer;
  width: number;
  height: number;
  channels: 4;
}

/**
 * Decodes the first picture of a HEIC file, already upright (the format turns pictures itself). Keeps this thread busy for
 * about a second with a phone's picture, so it is for workers.
 * @throws Problem 'file-broken', 'picture-too-large'
 */
export async function decodeHeic(bytes: Uint8Array, name: string, mostMegapixels: number): Promise<RawPicture> {
  // Loaded when first needed: the decoder is a large piece of WebAssembly.
  const { default: load } = (await import('libheif-js/wasm-bundle.js')) as unknown as { default: HeifLibrary };
  const broken = () => new Problem('file-broken', { name, format: 'HEIC' });
  let images: HeifImage[];
  try {
    images = new load.HeifDecoder().decode(bytes);
  } catch {
    throw broken();
  }
  const [image] = images;
  if (!image) throw broken();
  const [width, height] = [image.get_width(), image.get_height()];
  if (width * height > mostMegapixels * 1e6) {
    throw new Problem('picture-too-large', { name, width, height, most: mostMegapixels });
  }
  const data = new Uint8ClampedArray(width * height * 4);
  const shown = await new Promise<unknown>((resolve) => image.display({ data, width, height }, resolve));
  images.forEach((each) => each.free?.());
  if (!shown) throw broken();
  return { data: Buffer.from(data.buffer), width, height, channels: 4 };
}
