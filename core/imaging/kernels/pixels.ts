import { PIXELS } from './pixelsWasm';

/** What `assembly/index.ts` exports; the files beside it say what the numbers are. Addresses are bytes of its memory. */
interface Pixels {
  memory: WebAssembly.Memory;
  reserve(bytes: number): void;
  warp: (...numbers: number[]) => void;
  shrink: (...numbers: number[]) => void;
  grey: (...numbers: number[]) => void;
  darker: (...numbers: number[]) => void;
  smooth: (...numbers: number[]) => void;
  likeMeans: (...numbers: number[]) => void;
  evenGrey: (...numbers: number[]) => void;
  evenColour: (...numbers: number[]) => void;
  paperCells: (...numbers: number[]) => void;
  gradients: (...numbers: number[]) => void;
  sharpInk: (...numbers: number[]) => void;
  bareSums: (...numbers: number[]) => void;
  tonesOfPrint: (...numbers: number[]) => void;
  binarise: (...numbers: number[]) => void;
  below: (...numbers: number[]) => void;
  curve: (...numbers: number[]) => void;
  onlyGrey: (...numbers: number[]) => number;
  resample: (...numbers: number[]) => void;
  runs: (...numbers: number[]) => number;
  transpose: (...numbers: number[]) => void;
}

/** A memory larger than this is not kept for the next picture. */
const MOST_KEPT = 64 * 2 ** 20;
/** What the module itself keeps in its memory ends before this. */
const FIRST = 4096;
/** What is read at a picture's end may reach so many bytes beyond it. */
const BEYOND = 16;

let compiled: WebAssembly.Module | null | undefined;
let kept: Pixels | undefined;

/** Compiled once; null where WebAssembly has no SIMD, or may not be used. */
function moduleOf(): WebAssembly.Module | null {
  if (compiled === undefined) {
    try {
      compiled = new WebAssembly.Module(Uint8Array.from(atob(PIXELS), (letter) => letter.charCodeAt(0)));
    } catch {
      compiled = null;
    }
  }
  return compiled;
}

/** The bytes of numbers, as they are laid into the kernels' memory. */
export const bytesIn = ({ buffer, byteOffset, byteLength }: Int32Array | Float32Array | Uint16Array): Uint8Array =>
  new Uint8Array(buffer, byteOffset, byteLength);

/**
 * Lays blocks of bytes into the kernels' memory, one behind the other, has something done with them, and gives back what then stands in the
 * last one; undefined where the kernels can't be used: the caller has the same in TypeScript.
 * @param blocks bytes to be laid in, or how many are wanted
 * @param run is told where each block begins; it may say how many bytes of the last one are wanted
 */
export function withPixels(
  blocks: readonly (Uint8Array | number)[],
  run: (pixels: Omit<Pixels, 'memory' | 'reserve'>, places: number[]) => number | void,
): Uint8Array | undefined {
  const module = moduleOf();
  if (!module) return undefined;
  const pixels = kept ?? (new WebAssembly.Instance(module).exports as unknown as Pixels);
  let end = FIRST;
  const places = blocks.map((block) => {
    const place = Math.ceil(end / BEYOND) * BEYOND;
    end = place + (typeof block === 'number' ? block : block.length) + BEYOND;
    return place;
  });
  try {
    pixels.reserve(end);
    if (pixels.memory.buffer.byteLength < end) return undefined;
  } catch {
    return undefined;
  }
  const memory = new Uint8Array(pixels.memory.buffer);
  blocks.forEach((block, at) => typeof block !== 'number' && memory.set(block, places[at]));
  const wanted = run(pixels, places);
  const last = blocks[blocks.length - 1];
  const from = places[places.length - 1];
  kept = pixels.memory.buffer.byteLength <= MOST_KEPT ? pixels : undefined;
  return memory.slice(from, from + (wanted ?? (typeof last === 'number' ? last : last.length)));
}
