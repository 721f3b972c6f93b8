import { PointerEvent, useRef, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { Signature } from '@crow/contract/marks';
import { Stroke } from '@crow/core/pdf/marks/mark';
import { DialogFrame } from '../../../parts/AskText';
import { Button, inputLook } from '../../../parts/controls';
import { useChange } from '../../../queries';
import { MarkShapes } from './MarkShapes';
import { measure } from './look';

const HEIGHT = 100;
/** The lines of a signature are so wide on paper, in points. */
const PEN = 1.4;
const PAD = { width: 420, height: 150 };
const LETTERS = 24;

/** A signature, small. */
export function SignaturePicture({ signature: { id, text, strokes, shape } }: { signature: Signature }) {
  const mark = {
    ...{ id, text, ink: 'sea' as const, kind: 'signature' as const },
    boxes: [[0, 0, HEIGHT * shape, HEIGHT] as [number, number, number, number]],
    strokes: strokes.map((stroke) => stroke.map(([x, y, width]): Stroke[number] => [x, y, 2 * width])),
  };
  return (
    <svg viewBox={`-4 -4 ${HEIGHT * shape + 8} ${HEIGHT + 8}`} className="h-9 max-w-52 bg-paper" role="img">
      <title>{text || 'Signature'}</title>
      <MarkShapes mark={mark} />
    </svg>
  );
}

/** Makes a signature: drawn with pen, finger or mouse, or in letters. */
export function MakeSignature({ onMade, onClose }: { onMade: (signature: Signature) => void; onClose: () => void }) {
  const [strokes, setStrokes] = useState<Stroke[]>([]);
  const [text, setText] = useState('');
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
    const made = strokes.length > 0 ? drawnSignature(strokes) : lettersSignature(text.trim());
    await keep.mutateAsync({ body: made });
    onMade(made);
    onClose();
  };
  return (
    <DialogFrame title="A signature" onClose={onClose}>
      <p className="mb-2">Draw it here, with a pen, a finger or the mouse:</p>
      <div
        className="relative touch-none border border-rule bg-paper"
        style={{ aspectRatio: `${PAD.width} / ${PAD.height}` }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          drawing.current = true;
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
      </div>
      <label className="mt-3 block">
        or in letters:
        <input
          className={`${inputLook} mt-1`}
          value={text}
          disabled={strokes.length > 0}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <div className="mt-4 flex justify-end gap-2">
        {strokes.length > 0 && <Button onClick={() => setStrokes([])}>Draw it again</Button>}
        <Button onClick={onClose}>Cancel</Button>
        <Button main disabled={strokes.length === 0 && !text.trim()} onClick={() => void make()}>
          Keep it
        </Button>
      </div>
    </DialogFrame>
  );
}

/** Cut to what was drawn, its places as shares of that. */
function drawnSignature(strokes: Stroke[]): Signature {
  const [xs, ys] = [0, 1].map((axis) => strokes.flat().map((place) => place[axis]));
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const [width, height] = [Math.max(8, Math.max(...xs) - left), Math.max(8, Math.max(...ys) - top)];
  const share = (value: number) => Math.round(value * 10_000) / 10_000;
  return {
    id: crypto.randomUUID(),
    text: '',
    strokes: strokes.map((stroke) =>
      stroke.map(([x, y, wide]): Stroke[number] => [share((x - left) / width), share((y - top) / height), wide]),
    ),
    shape: Math.max(0.1, Math.min(30, width / height)),
  };
}

function lettersSignature(text: string): Signature {
  const shape = measure(text, LETTERS, false) / (LETTERS / 0.7);
  return { id: crypto.randomUUID(), text, strokes: [], shape: Math.max(0.1, Math.min(30, shape)) };
}
