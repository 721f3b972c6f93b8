import { liveBookOutline } from '@crow/core/imaging/bend/spread';
import { findOutlines } from '@crow/core/imaging/outline/findOutlines';
import { scaleQuad } from '@crow/core/imaging/quad';
import { quarterTurned, Raster } from '@crow/core/imaging/raster';
import { finishPage, flatten, glimpseOf, Recipe } from '@crow/core/imaging/recipe';
import { lookAt, Sight } from '@crow/core/imaging/shutter';
import { NoSignature, signatureFrom, TracedSignature } from '@crow/core/imaging/signature/signatureFrom';
import { Turn } from '@crow/core/geometry';

/** What the imaging worker can be asked. A picture is opened once; pages are then made of it as often as wanted. */
export type Ask =
  | { kind: 'open'; picture: Raster }
  | { kind: 'make'; recipe: Recipe; turn: Turn; longSide: number }
  /** Look at a frame of a live picture, of a bound book or of loose sheets. */
  | { kind: 'look'; picture: Raster; glimpse: boolean; bound: boolean }
  /** Find the signature in a picture of one. */
  | { kind: 'sign'; picture: Raster };

export type Answer =
  | { kind: 'opened' }
  /** The page as shot and as it will be, both RGBA. */
  | { kind: 'made'; before: ImageData; after: ImageData }
  /** What is seen, and when asked for, the sheet as it will be, once its outline is likely. */
  | { kind: 'seen'; sight: Sight; flat: ImageData | null }
  | { kind: 'signed'; found: TracedSignature | NoSignature };

/** What the worker tells of what it was asked: the answer, or why there is none. */
export type Told = { number: number; answer: Answer } | { number: number; failed: string };

/** How sure an outline is of which it is shown what it would make, and how large, in pixels. */
const LIKELY = 0.4;
const GLIMPSE = 360;

let opened: Raster | undefined;

self.onmessage = ({ data: { number, ask } }: MessageEvent<{ number: number; ask: Ask }>) => {
  let answer: Answer;
  try {
    answer = answerTo(ask);
  } catch (error) {
    self.postMessage({ number, failed: error instanceof Error ? error.message : String(error) } satisfies Told);
    return;
  }
  const made = answer.kind === 'made' ? [answer.before, answer.after] : answer.kind === 'seen' ? [answer.flat] : [];
  const transfer = made.flatMap((picture) => picture?.data.buffer ?? []);
  self.postMessage({ number, answer } satisfies Told, { transfer });
};

function answerTo(ask: Ask): Answer {
  if (ask.kind === 'look') {
    const { width, height } = ask.picture;
    const best = ask.bound ? liveBookOutline(ask.picture) : findOutlines(ask.picture, { quick: true, most: 1 })[0];
    const corners = best ? scaleQuad(best.corners, 1 / width, 1 / height) : null;
    const sight = lookAt(ask.picture, corners, best?.confidence ?? 0);
    const isLikely = ask.glimpse && best && best.confidence >= LIKELY;
    const flat = isLikely ? imageData(glimpseOf(ask.picture, best.corners, { longSide: GLIMPSE })) : null;
    return { kind: 'seen', sight, flat };
  }
  if (ask.kind === 'sign') return { kind: 'signed', found: signatureFrom(ask.picture) };
  if (ask.kind === 'open') {
    opened = ask.picture;
    return { kind: 'opened' };
  }
  const flat = flatten(opened!, ask.recipe, { longSide: ask.longSide });
  const finished = finishPage(flat, ask.recipe);
  return {
    kind: 'made',
    before: imageData(quarterTurned(flat, ask.turn)),
    after: imageData(quarterTurned(finished, ask.turn)),
  };
}

function imageData({ width, height, channels, data }: Raster): ImageData {
  const rgba = new Uint8ClampedArray(width * height * 4);
  for (let from = 0, to = 0; to < rgba.length; from += channels, to += 4) {
    rgba[to] = data[from];
    rgba[to + 1] = data[channels === 1 ? from : from + 1];
    rgba[to + 2] = data[channels === 1 ? from : from + 2];
    rgba[to + 3] = 255;
  }
  return new ImageData(rgba, width, height);
}
