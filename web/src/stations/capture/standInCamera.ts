/**
 * A camera for those who have none at hand: demo papers on a desk, laid down, lying still, taken away again, in light that
 * changes. It gives a stream like any other camera.
 */
export const STAND_IN = { id: 'stand-in', name: 'Stand-in camera: papers on a desk' };

interface Film {
  width: number;
  height: number;
  table: string;
  papers: string[];
}

const FOLDER = '/stand-in/';
const FRAMES_A_SECOND = 10;
/** How long a paper comes, lies still, goes, and the table is bare; milliseconds. */
const COMING = 700;
const LYING = 4200;
const GOING = 600;
const BARE = 400;
const WHOLE = COMING + LYING + GOING + BARE;
/** The light grows and fades once in so long; a shadow crosses the table once in so long. */
const LIGHT_MS = 17_000;
const SHADOW_MS = 23_000;
const DARKEST = 0.3;

export interface StandInCamera {
  stream: MediaStream;
  setLit: (lit: boolean) => void;
  end: () => void;
}

/** Starts the stand-in camera. @throws TypeError when its pictures can't be had */
export async function openStandIn(): Promise<StandInCamera> {
  const film = (await (await fetch(`${FOLDER}film.json`)).json()) as Film;
  const [table, ...papers] = await Promise.all([film.table, ...film.papers].map(loadPicture));
  const canvas = Object.assign(document.createElement('canvas'), { width: film.width, height: film.height });
  const context = canvas.getContext('2d', { alpha: false })!;
  let lit = false;
  const began = performance.now();
  const draw = () => {
    const at = performance.now() - began;
    // Held by hand: it is never quite still. In whole pixels, which are copied instead of computed.
    const sway = [Math.sin(at / 900), Math.cos(at / 1300)].map(Math.round);
    const lay = (picture: ImageBitmap, away = 0) =>
      context.drawImage(
        picture,
        Math.round(sway[0] + away * film.width * 1.1),
        Math.round(sway[1] + away * film.height * 0.25),
      );
    lay(table);
    const paper = papers[Math.floor(at / WHOLE) % papers.length];
    const away = awayness(at % WHOLE);
    if (away < 1) lay(paper, away);
    if (!lit) dim(context, film, at);
  };
  draw();
  const timer = setInterval(draw, 1000 / FRAMES_A_SECOND);
  const stream = canvas.captureStream(FRAMES_A_SECOND);
  return {
    stream,
    setLit: (on) => void (lit = on),
    end: () => {
      clearInterval(timer);
      stream.getTracks().forEach((track) => track.stop());
    },
  };
}

/** How far away the paper is, from 0 (where it lies) to 1 (out of sight), at a moment of its round. */
function awayness(at: number): number {
  if (at < COMING) return (1 - at / COMING) ** 2;
  const going = at - COMING - LYING;
  return going < 0 ? 0 : Math.min(1, (going / GOING) ** 2);
}

/** Lays the dark of the moment over the picture, which is quicker than multiplying it. */
function dim(context: CanvasRenderingContext2D, { width, height }: Film, at: number): void {
  const level = DARKEST * (0.5 - 0.5 * Math.cos((2 * Math.PI * at) / LIGHT_MS));
  context.fillStyle = `rgb(0 0 8 / ${level})`;
  context.fillRect(0, 0, width, height);
  const shadow = ((at % SHADOW_MS) / SHADOW_MS) * 3 - 1;
  if (shadow < 1.4) {
    const [from, to] = [shadow - 0.3, shadow + 0.3].map((share) => share * width);
    const gradient = context.createLinearGradient(from, 0, to, 0);
    gradient.addColorStop(0, 'rgb(0 0 0 / 0)');
    gradient.addColorStop(0.5, 'rgb(0 0 0 / 0.3)');
    gradient.addColorStop(1, 'rgb(0 0 0 / 0)');
    context.fillStyle = gradient;
    context.fillRect(from, 0, to - from, height);
  }
}

async function loadPicture(name: string): Promise<ImageBitmap> {
  return createImageBitmap(await (await fetch(FOLDER + name)).blob());
}
