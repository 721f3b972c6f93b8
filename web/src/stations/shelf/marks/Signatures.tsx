import { Image } from 'lucide-react';
import { PointerEvent, useRef, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { Signature, THINNEST_STROKE } from '@crow/contract/marks';
import { Stroke } from '@crow/core/pdf/marks/mark';
import { DialogFrame } from '../../../parts/AskText';
import { Button, FileButton, inputLook } from '../../../parts/controls';
import { useChange } from '../../../queries';
import { ImagingWorker, pixelsOf } from '../../../workers/imagingWorker';
import { MarkShapes } from './MarkShapes';
import { measure } from './look';

/** A signature on a page is so high at first, in points. */
export const SIGNATURE_HEIGHT = 34;
/** How high it is shown, in units of its drawing. */
const HEIGHT = 100;
/** The lines of a signature are so wide on paper, in points. */
const PEN = 1.4;
const PAD = { width: 420, height: 150 };
const LETTERS = 24;
/** A picture of a signature is looked at no larger than this, longer side, in pixels. */
const LARGEST_PICTURE = 3000;
const NO_SIGNATURE = {
  empty: 'Nothing is written in that picture, as far as can be seen.',
  'too-much': 'There is more in that picture than a signature. Cut it down to the signature and choose it again.',
};

/** A signature as it will be, small or as large as its room. */
export function SignaturePicture({ signature, fills = false }: { signature: Signature; fills?: boolean }) {
  const { id, text, strokes, shape } = signature;
  const mark = {
    ...{ id, text, ink: 'sea' as const, kind: 'signature' as const },
    boxes: [[0, 0, HEIGHT * shape, HEIGHT] as [number, number, number, number]],
    strokes: strokes.map((stroke) =>
      stroke.map(([x, y, width]): Stroke[number] => [x, y, (width * HEIGHT) / SIGNATURE_HEIGHT]),
    ),
  };
  return (
    <svg
      viewBox={`-4 -4 ${HEIGHT * shape + 8} ${HEIGHT + 8}`}
      className={fills ? 'absolute inset-0 size-full p-3' : 'h-9 max-w-52 bg-paper'}
      role="img"
    >
      <title>{text || 'Signature'}</title>
      <MarkShapes mark={mark} />
    </svg>
  );
}

/** Makes a signature: drawn with pen, finger or mouse, from a picture of one, or in letters. */
export function MakeSignature({ onMade, onClose }: { onMade: (signature: Signature) => void; onClose: () => void }) {
  const [strokes, setStrokes] = useState<Stroke[]>([]);
  const [text, setText] = useState('');
  const [traced, setTraced] = useState<Signature>();
  const [looking, setLooking] = useState(false);
  const [wrong, setWrong] = useState('');
  const drawing = useRef(false);
  const keep = useChange(endpoints.keepSignature, ['signature']);
  const pointAt = (event: PointerEvent<HTMLElement>): Stroke[number] => {
    const frame = event.currentTarget.getBoundingClientRect();
    const width = event.pointerType === 'pen' ? PEN * (0.5 + 1.1 * event.pressure) : PEN;
    return [
      ((event.clientX - frame.left) / frame.width) * PAD.width,
      ((event.clientY - frame.top) / frame.height) * PAD.height,
      width,
    ];
  };
  const make = async () => {
    const made = traced ?? (strokes.length > 0 ? drawnSignature(strokes) : lettersSignature(text.trim()));
    await keep.mutateAsync({ body: made });
    onMade(made);
    onClose();
  };
  const look = async (picture: Blob | null | undefined) => {
    if (!picture) return;
    setLooking(true);
    setWrong('');
    setStrokes([]);
    setTraced(undefined);
    const found = await signatureIn(picture);
    if (typeof found === 'string') setWrong(found);
    else setTraced(found);
    setLooking(false);
  };
  const empty = () => {
    setStrokes([]);
    setTraced(undefined);
    setWrong('');
  };
  const isBegun = strokes.length > 0 || traced !== undefined;
  const picturesIn = ({ files }: DataTransfer) => [...files].find(({ type }) => type.startsWith('image/'));
  return (
    <DialogFrame wide title="A signature" onClose={onClose}>
      <div
        className="max-h-[74dvh] overflow-y-auto"
        onPaste={(event) => void look(picturesIn(event.clipboardData))}
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          event.stopPropagation();
          void look(picturesIn(event.dataTransfer));
        }}
      >
        <p className="mb-2">Draw it here, with a pen, a finger or the mouse:</p>
        <div
          className="relative touch-none border border-rule bg-paper"
          style={{ aspectRatio: `${PAD.width} / ${PAD.height}` }}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            drawing.current = true;
            setTraced(undefined);
            setStrokes([...strokes, [pointAt(event)]]);
          }}
          onPointerMove={(event) => {
            if (!drawing.current) return;
            const place = pointAt(event);
            setStrokes((now) => [...now.slice(0, -1), [...now.at(-1)!, place]]);
          }}
          onPointerUp={() => (drawing.current = false)}
        >
          <svg viewBox={`0 0 ${PAD.width} ${PAD.height}`} className="pointer-events-none absolute inset-0 size-full">
            <line x1={20} x2={PAD.width - 20} y1={115} y2={115} stroke="#d6d0c3" />
            {strokes.map((stroke, at) => (
              <polyline
                key={at}
                points={stroke.map(([x, y]) => `${x},${y}`).join(' ')}
                fill="none"
                stroke="#121a52"
                strokeWidth={2}
                strokeLinecap="round"
                strokeLinejoin="round"
              />
            ))}
          </svg>
          {traced && <SignaturePicture signature={traced} fills />}
          {looking && <p className="absolute inset-0 grid place-content-center text-quiet">Looking for the ink …</p>}
        </div>
        <div className="mt-3 flex flex-wrap items-center gap-x-3 gap-y-1">
          or
          <FileButton accept="image/*" onFile={(file) => void look(file)}>
            <Image size={15} aria-hidden /> take it from a picture …
          </FileButton>
          <span className="text-sm text-quiet">
            A photo or a scan of it, also dropped or pasted here; its paper is left out.
          </span>
        </div>
        {wrong && (
          <p role="alert" className="mt-1 border-l-4 border-attention px-3">
            {wrong}
          </p>
        )}
        <label className="mt-3 block">
          or in letters:
          <input
            className={`${inputLook} mt-1`}
            value={text}
            disabled={isBegun}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <div className="mt-4 flex justify-end gap-2">
          {isBegun && <Button onClick={empty}>Begin again</Button>}
          <Button onClick={onClose}>Cancel</Button>
          <Button main disabled={looking || (!isBegun && !text.trim())} onClick={() => void make()}>
            Keep it
          </Button>
        </div>
      </div>
    </DialogFrame>
  );
}

/** The signature in a picture of one, or a sentence that says why there is none. */
async function signatureIn(picture: Blob): Promise<Signature | string> {
  const image = await createImageBitmap(picture).catch(() => undefined);
  if (!image) return 'That file is no picture that this browser can open. A JPEG or PNG would do.';
  const scale = Math.min(1, LARGEST_PICTURE / Math.max(image.width, image.height));
  const pixels = pixelsOf(image, Math.round(image.width * scale), Math.round(image.height * scale));
  image.close();
  const worker = new ImagingWorker();
  const found = await worker
    .ask<'signed'>({ kind: 'sign', picture: pixels }, [pixels.data.buffer as ArrayBuffer])
    .then((answer) => answer.found)
    .catch(() => undefined);
  worker.end();
  if (!found) return 'This browser could not look at that picture. A smaller one may do, or draw the signature.';
  if (typeof found === 'string') return NO_SIGNATURE[found];
  const strokes = found.lines.map((line) =>
    line.map(([x, y, width]): Stroke[number] => [
      // As finely as a printer draws, and no finer: there are many places.
      Math.round((x / found.shape) * 1000) / 1000,
      Math.round(y * 1000) / 1000,
      Math.max(THINNEST_STROKE, Math.round(width * SIGNATURE_HEIGHT * 100) / 100),
    ]),
  );
  return { id: crypto.randomUUID(), text: '', strokes, shape: inReach(found.shape) };
}

const share = (value: number) => Math.round(value * 10_000) / 10_000;
const inReach = (shape: number) => Math.max(0.1, Math.min(30, shape));

/** Cut to what was drawn, its places as shares of that. */
function drawnSignature(strokes: Stroke[]): Signature {
  const [xs, ys] = [0, 1].map((axis) => strokes.flat().map((place) => place[axis]));
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const [width, height] = [Math.max(8, Math.max(...xs) - left), Math.max(8, Math.max(...ys) - top)];
  return {
    id: crypto.randomUUID(),
    text: '',
    strokes: strokes.map((stroke) =>
      stroke.map(([x, y, wide]): Stroke[number] => [share((x - left) / width), share((y - top) / height), wide]),
    ),
    shape: inReach(width / height),
  };
}

function lettersSignature(text: string): Signature {
  const shape = measure(text, LETTERS, false) / (LETTERS / 0.7);
  return { id: crypto.randomUUID(), text, strokes: [], shape: inReach(shape) };
}
