import { useEffect, useRef, useState } from 'react';
import { Page } from '@crow/contract/pages';
import { Turn } from '@crow/core/geometry';
import { Recipe } from '@crow/core/imaging/recipe';
import { useNotices } from '../../parts/notices';
import { pictureAddress } from '../../parts/PagePicture';
import { ImagingWorker, pixelsOf } from '../../workers/imagingWorker';

export interface Preview {
  before: ImageData;
  after: ImageData;
}

/** Sizes (longer side, pixels) of the preview: while something is dragged, and once it rests. */
const MOVING = 420;
const RESTING = 1100;
/** And at the most, when it is looked at closely. */
const LARGEST = 3000;
const REST_MS = 140;
const NOT_SHOWN = 'This browser has no room to show the page as it will be. What you set is kept; less zoom may help.';

/**
 * The page as a recipe makes it, kept up with the recipe by a worker: small and at once while it changes, larger when it
 * rests. What is asked while the worker is busy is skipped but for the last.
 * @param zoom how many times larger than it fits it is shown
 */
export function usePreview(
  page: Page,
  recipe: Recipe,
  turn: Turn,
  zoom: number,
): { source: HTMLImageElement | undefined; preview: Preview | undefined } {
  const { tell } = useNotices();
  const [loaded, setLoaded] = useState<{ id: string; image: HTMLImageElement }>();
  const [preview, setPreview] = useState<Preview & { id: string }>();
  const worker = useRef<ImagingWorker>(undefined);
  const busy = useRef(false);
  const closely = zoom > 1;
  const longSide = Math.min(LARGEST, Math.round(RESTING * zoom));
  const wanted = useRef<{ recipe: Recipe; turn: Turn; longSide: number } | undefined>(undefined);

  useEffect(() => {
    const mine = new ImagingWorker();
    worker.current = mine;
    return () => mine.end();
  }, []);

  useEffect(() => {
    const image = new Image();
    let gone = false;
    image.src = pictureAddress(page.id, closely ? 'full' : 'screen', 0, '');
    const open = async () => {
      await image.decode();
      if (gone) return;
      const picture = pixelsOf(image, image.naturalWidth, image.naturalHeight);
      await worker.current?.ask({ kind: 'open', picture }, [picture.data.buffer as ArrayBuffer]);
      if (!gone) setLoaded({ id: page.id, image });
    };
    open().catch(() => {
      if (!gone) tell({ text: NOT_SHOWN });
    });
    return () => {
      gone = true;
    };
  }, [page.id, closely, tell]);

  const source = loaded?.id === page.id ? loaded.image : undefined;
  useEffect(() => {
    if (!source) return;
    const work = async () => {
      if (busy.current) return;
      busy.current = true;
      try {
        while (wanted.current) {
          const now = wanted.current;
          wanted.current = undefined;
          const made = await worker.current!.ask<'made'>({ kind: 'make', ...now });
          setPreview({ id: page.id, before: made.before, after: made.after });
        }
      } catch {
        tell({ text: NOT_SHOWN });
      } finally {
        busy.current = false;
      }
    };
    wanted.current = { recipe, turn, longSide: MOVING };
    void work();
    const rest = setTimeout(() => {
      wanted.current = { recipe, turn, longSide };
      void work();
    }, REST_MS);
    return () => clearTimeout(rest);
  }, [source, recipe, turn, page.id, longSide, tell]);

  return { source, preview: preview?.id === page.id ? preview : undefined };
}
