import { Flashlight, FlashlightOff } from 'lucide-react';
import { ReactNode, Ref, useCallback, useEffect, useRef, useState } from 'react';
import { Binding, BINDINGS } from '@crow/contract/stacks';
import { Hint, hintFor, isSame, Shutter, Sight } from '@crow/core/imaging/shutter';
import { Point, Quad } from '@crow/core/imaging/quad';
import { Button, IconButton, Key } from '../../parts/controls';
import { isEngaged, nameOf, takesKey } from '../../parts/keys';
import { useNotices } from '../../parts/notices';
import { useSize } from '../../parts/useSize';
import { ImagingWorker, pixelsOf } from '../../workers/imagingWorker';
import { PictureEncoder } from '../../workers/pictureEncoder';
import { useCamera, useVideo } from './useCamera';

const ADVICE: Record<Hint, string> = {
  none: 'Hold still: the picture is taken by itself.',
  noSheet: 'Lay a page under the camera.',
  dark: 'Too dark: switch on the light, or go nearer to a window.',
  contrast: 'Not sure where the page ends: lay it on something darker, or take it by hand.',
  small: 'The page is small in the picture: go closer.',
  slanted: 'Too slanted: hold the camera more from above.',
  blurred: 'Blurred: hold still, or wait until it has focused.',
  cut: 'A corner is outside the picture: go a little further away.',
};
const BY_HAND = 'Ready: take it.';
/** Frames are looked at with this longer side, in pixels. */
const LOOKED_AT = 1280;
/** How often it looks while nothing moves, and how often at most the sheet is shown as it will be; in milliseconds. */
const RESTING_MS = 200;
/** How long it waits after a frame that could not be looked at. */
const FAILED_MS = 1000;
const GLIMPSE_MS = 300;
const JPEG_QUALITY = 0.93;
const SETTINGS_KEY = 'crow.camera';

interface Settings {
  camera: string;
  byItself: boolean;
  /** At which side the book is bound that lies under it, of which an open one gives two pages. */
  bound: Binding | null;
  /** The key that takes a page, besides the space bar: a pedal sends one. */
  key: string;
}

function readSettings(): Settings {
  const usual: Settings = { camera: '', byItself: true, bound: null, key: '' };
  try {
    const kept = JSON.parse(localStorage.getItem(SETTINGS_KEY) ?? '{}') as Partial<Settings>;
    // Before there was a choice, a bound book was kept as "true".
    const bound = (kept.bound as unknown) === true ? 'left' : kept.bound;
    return { ...usual, ...kept, bound: BINDINGS.find((binding) => binding === bound) ?? null };
  } catch {
    return usual;
  }
}

interface CameraProps {
  onTake: (picture: Blob, bound: Binding | null) => void;
  /** On a narrow screen, what stands before and behind the button that takes a page: those taken, and going on with them. */
  taken?: ReactNode;
  onward?: ReactNode;
}

/** The camera's picture with the sheet found in it; pages are taken by themselves or by hand, one after the other. */
export function CameraSource({ onTake, taken, onward }: CameraProps) {
  const [settings, setSettings] = useState(readSettings);
  const { stream, choices, trouble, hasLight, lit, setLit } = useCamera(settings.camera);
  const { ref: video, size } = useVideo(stream);
  const [box, space] = useSize<HTMLDivElement>();
  const [sight, setSight] = useState<Sight>();
  const glimpse = useRef<HTMLCanvasElement>(null);
  const [countdown, setCountdown] = useState(0);
  const [flash, setFlash] = useState(0);
  /** Pictures that are taken and not yet handed on. */
  const [encoding, setEncoding] = useState(0);
  const [learning, setLearning] = useState(false);
  const shutter = useRef(new Shutter());
  const change = (part: Partial<Settings>) => {
    const next = { ...settings, ...part };
    setSettings(next);
    localStorage.setItem(SETTINGS_KEY, JSON.stringify(next));
  };

  const { bound } = settings;
  useEffect(() => {
    shutter.current = new Shutter(bound !== null);
  }, [bound]);
  const { tell } = useNotices();
  const encoder = useRef<PictureEncoder>(undefined);
  useEffect(() => {
    encoder.current = new PictureEncoder();
    return () => encoder.current?.end();
  }, []);
  const takeFrame = useCallback(
    (frame: OffscreenCanvas) => {
      setEncoding((before) => before + 1);
      void encoder
        .current!.encode(frame, JPEG_QUALITY)
        .then(
          (picture) => onTake(picture, bound),
          () => tell({ text: 'That picture could not be kept: take it again.' }),
        )
        .finally(() => setEncoding((before) => before - 1));
      shutter.current.took();
      setCountdown(0);
      setFlash((before) => before + 1);
    },
    [onTake, bound, tell],
  );
  const take = useCallback(() => {
    // The frame is copied at once; encoding and sending it keep nobody waiting.
    if (video.current && video.current.videoWidth > 0) takeFrame(copyOf(video.current));
  }, [takeFrame, video]);

  const stop = () => {
    shutter.current.cancel();
    setCountdown(0);
  };

  const latest = useRef({ takeFrame, bound, byItself: settings.byItself });
  useEffect(() => {
    latest.current = { takeFrame, bound, byItself: settings.byItself };
  });
  useEffect(() => {
    if (!size) return;
    const worker = new ImagingWorker();
    let over = false;
    let counting = false;
    let last: Sight | undefined;
    /** When the sheet was last shown as it will be, and whether it was as it lies there now. */
    let glimpsed = { at: -Infinity, still: false };
    const watch = async () => {
      while (!over) {
        const began = performance.now();
        const source = video.current;
        if (!source || source.readyState < 2) {
          await new Promise((resolve) => setTimeout(resolve, 100));
          continue;
        }
        const scale = Math.min(1, LOOKED_AT / Math.max(size.width, size.height));
        // While it counts down, what is looked at is what will be taken, however long looking takes.
        const held = counting ? copyOf(source) : undefined;
        const frame = pixelsOf(held ?? source, Math.round(size.width * scale), Math.round(size.height * scale));
        // Making the sheet flat and legible takes longer than finding it.
        const book = latest.current.bound !== null;
        const wanted = !book && !glimpsed.still && began - glimpsed.at >= GLIMPSE_MS;
        const seen = await worker
          .ask<'seen'>({ kind: 'look', picture: frame, glimpse: wanted, bound: book }, [
            frame.data.buffer as ArrayBuffer,
          ])
          .catch(() => undefined);
        if (over) return;
        // A frame that can't be looked at is passed over; pages can be taken by hand all the while.
        if (!seen) {
          await new Promise((resolve) => setTimeout(resolve, FAILED_MS));
          continue;
        }
        setSight(seen.sight);
        const still = last !== undefined && isSame(last, seen.sight);
        last = seen.sight;
        if (wanted) draw(glimpse.current, seen.flat);
        glimpsed = { at: wanted ? began : glimpsed.at, still: still && (wanted || glimpsed.still) };
        const counted = latest.current.byItself ? shutter.current.see(seen.sight, began) : 0;
        setCountdown(counted);
        counting = counted > 0;
        if (counted >= 1 && held) latest.current.takeFrame(held);
        // As long as nothing moves it looks now and then only: a phone's battery and its shutter have better use for the time.
        if (still && !counting)
          await new Promise((resolve) => setTimeout(resolve, began + RESTING_MS - performance.now()));
        await new Promise((resolve) => requestAnimationFrame(resolve));
      }
    };
    void watch();
    return () => {
      over = true;
      worker.end();
    };
  }, [size, video]);

  useEffect(() => {
    const hear = (event: KeyboardEvent) => {
      if (takesKey(event.target, nameOf(event)) || event.repeat) return;
      if (learning) {
        if (event.key !== 'Escape') change({ key: event.key });
        setLearning(false);
      } else if (event.key === ' ' || event.key === 'Enter' || (settings.key && event.key === settings.key)) take();
      else if (event.key === 'Escape' && countdown > 0) {
        stop();
      } else return;
      event.preventDefault();
      event.stopPropagation();
    };
    window.addEventListener('keydown', hear, { capture: true });
    return () => window.removeEventListener('keydown', hear, { capture: true });
  });

  // The keys that fire are for the picture now, not for the button that brought it here.
  useEffect(() => {
    if (!isEngaged()) document.querySelector<HTMLElement>('[data-camera]')?.focus({ preventScroll: true });
  }, []);
  const scale = size ? Math.min(space.width / size.width, space.height / size.height) : 0;
  const [width, height] = size ? [size.width * scale, size.height * scale] : [0, 0];
  const hint = sight ? hintFor(sight) : undefined;
  const sure = hint !== undefined && hint !== 'contrast' && hint !== 'noSheet' && hint !== 'dark';
  return (
    <div
      data-camera
      tabIndex={-1}
      className="flex min-h-0 flex-1 flex-col bg-[#141318] text-[#ebe7de] outline-none short:flex-row"
    >
      <div ref={box} className="relative flex min-h-0 min-w-0 flex-1 items-center justify-center overflow-hidden">
        {trouble && (
          <div className="flex flex-col items-center gap-4 p-6">
            <p role="alert" className="max-w-[46ch] text-center text-lg">
              {trouble}
            </p>
            {/* Taken by the device's own camera: that needs no permission, and no trust in the certificate of the line. */}
            <label className="flex h-14 cursor-pointer items-center border border-[#6fbcc0] px-5 text-lg focus-within:outline-2 pointer-fine:hidden">
              Take a picture with this device
              <input
                type="file"
                accept="image/*"
                capture="environment"
                className="sr-only"
                onChange={(event) => {
                  for (const file of event.target.files ?? []) onTake(file, bound);
                  event.target.value = '';
                }}
              />
            </label>
          </div>
        )}
        {/* A tap on the picture takes it, as the shutter and the space key do. */}
        <div role="presentation" className="relative" style={{ width, height }} onClick={take}>
          <video ref={video} muted playsInline className="block h-full w-full" aria-label="What the camera sees" />
          {sight?.corners && hint !== 'noSheet' && (
            <Dimmed corners={sight.corners} width={width} height={height} sure={sure} />
          )}
          {flash > 0 && <span key={flash} className="shutter-flash pointer-events-none absolute inset-0 bg-paper" />}
        </div>
        <Glimpse canvas={glimpse} shown={!bound && Boolean(sight?.corners) && hint !== 'noSheet'} />
        {countdown > 0 && (
          <button
            className="absolute bottom-4 left-1/2 w-56 -translate-x-1/2 bg-[#141318]/85 px-3 py-2 text-center"
            onClick={stop}
          >
            <div className="h-1 bg-[#3a3842]">
              <div className="h-1 bg-[#6fbcc0]" style={{ width: `${countdown * 100}%` }} />
            </div>
            Taking it … <span className="underline">stop</span> <Key>Esc</Key>
          </button>
        )}
      </div>
      <div className="flex shrink-0 flex-wrap items-center gap-3 border-t border-[#3a3842] px-4 py-2 short:w-60 short:flex-col short:flex-nowrap short:items-stretch short:justify-end short:border-t-0 short:border-l">
        <p aria-live="polite" className="min-w-0 flex-1 basis-48 short:flex-none short:basis-auto">
          {stream
            ? hint
              ? hint === 'none' && !settings.byItself
                ? BY_HAND
                : ADVICE[hint]
              : 'Looking …'
            : trouble
              ? ''
              : 'Starting the camera …'}
        </p>
        {hasLight && (
          <IconButton name={lit ? 'Light off' : 'Light on'} className="!text-[#ebe7de]" onClick={() => setLit(!lit)}>
            {lit ? <FlashlightOff size={18} /> : <Flashlight size={18} />}
          </IconButton>
        )}
        <select
          aria-label="Camera"
          className="h-8 max-w-32 border border-[#3a3842] bg-[#28272e] px-1 text-sm"
          value={settings.camera}
          onChange={(event) => {
            change({ camera: event.target.value });
            event.target.blur();
          }}
        >
          {choices.every(({ id }) => id !== settings.camera) && <option value={settings.camera}>Any camera</option>}
          {choices.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        <select
          aria-label="What lies under the camera"
          className="h-8 border border-[#3a3842] bg-[#28272e] px-1 text-sm"
          value={bound ?? 'sheets'}
          onChange={(event) => {
            change({ bound: BINDINGS.find((binding) => binding === event.target.value) ?? null });
            event.target.blur();
          }}
        >
          <option value="sheets">Loose sheets</option>
          <option value="left">Bound book</option>
          <option value="right">Right-to-left book</option>
        </select>
        <label className="flex items-center gap-2 text-sm">
          <input
            type="checkbox"
            className="accent-[#6fbcc0]"
            checked={settings.byItself}
            onChange={(event) => {
              change({ byItself: event.target.checked });
              // The space bar takes pages again.
              event.target.blur();
            }}
          />
          by itself
        </label>
        <button
          className="text-sm underline underline-offset-2 pointer-coarse:hidden"
          onClick={() => setLearning(true)}
        >
          {learning ? 'Press the key or pedal …' : settings.key ? `Pedal: ${settings.key}` : 'Set a pedal'}
        </button>
        <div className="flex grow items-stretch gap-2 max-md:basis-full md:grow-0 short:flex-wrap">
          {taken}
          <Button
            main
            onClick={take}
            disabled={!stream}
            hint="Space"
            className="h-11 grow justify-center px-5 text-lg max-md:h-14 md:grow-0 short:h-14 short:grow"
          >
            Take it
          </Button>
          <fieldset disabled={encoding > 0} className="contents">
            {onward}
          </fieldset>
        </div>
      </div>
    </div>
  );
}

function copyOf(video: HTMLVideoElement): OffscreenCanvas {
  const canvas = new OffscreenCanvas(video.videoWidth, video.videoHeight);
  canvas.getContext('2d')!.drawImage(video, 0, 0);
  return canvas;
}

/** The sheet as it will be, small and live, in the corner of the picture. */
function Glimpse({ canvas, shown }: { canvas: Ref<HTMLCanvasElement>; shown: boolean }) {
  return (
    <figure
      className={`pointer-events-none absolute right-3 bottom-3 max-w-[26%] transition-opacity ${shown ? '' : 'opacity-0'}`}
    >
      <canvas
        ref={canvas}
        width={1}
        height={1}
        className="block h-auto max-h-44 w-auto max-w-full shadow-paper max-md:max-h-28 short:max-h-24"
      />
      <figcaption className="mt-1 text-center text-xs text-white [text-shadow:0_0_4px_#000]">as it will be</figcaption>
    </figure>
  );
}

/** Draws a picture on a canvas of its size; what was there stays while there is none. */
function draw(canvas: HTMLCanvasElement | null, picture: ImageData | null): void {
  if (!canvas || !picture) return;
  if (canvas.width !== picture.width) canvas.width = picture.width;
  if (canvas.height !== picture.height) canvas.height = picture.height;
  canvas.getContext('2d')?.putImageData(picture, 0, 0);
}

const BRACKET = 26;

/** The sheet keeps its light and all around it dims; thin brackets at its corners, dashed while unsure. */
function Dimmed({ corners, width, height, sure }: { corners: Quad; width: number; height: number; sure: boolean }) {
  const shown = corners.map(([x, y]): Point => [x * width, y * height]);
  const path = `M0 0H${width}V${height}H0Z M${shown.map((point) => point.join(' ')).join('L')}Z`;
  return (
    <svg className="pointer-events-none absolute inset-0" width={width} height={height} aria-hidden>
      <path d={path} fillRule="evenodd" fill="rgb(20 19 24 / 0.5)" />
      {shown.map((corner, index) => {
        const arm = ([x, y]: Point): Point => {
          const share = Math.min(1, BRACKET / (Math.hypot(x - corner[0], y - corner[1]) || 1));
          return [corner[0] + share * (x - corner[0]), corner[1] + share * (y - corner[1])];
        };
        const points = [arm(shown[(index + 3) % 4]), corner, arm(shown[(index + 1) % 4])];
        return (
          <polyline
            key={index}
            points={points.map((point) => point.join(',')).join(' ')}
            fill="none"
            stroke="#ffffff"
            strokeWidth={2.5}
            strokeDasharray={sure ? undefined : '5 4'}
          />
        );
      })}
    </svg>
  );
}
