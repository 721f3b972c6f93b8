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
const FRAMES_A_SECOND = 15;
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
    // Held by hand: it is never quite still.
    const sway = [Math.sin(at / 900) * 0.6, Math.cos(at / 1300) * 0.6];
    context.setTransform(1, 0, 0, 1, sway[0], sway[1]);
    context.drawImage(table, 0, 0);
    const paper = papers[Math.floor(at / WHOLE) % papers.length];
    const away = awayness(at % WHOLE);
    if (away < 1) {
      context.setTransform(1, 0, 0, 1, sway[0] + away * film.width * 1.1, sway[1] + away * film.height * 0.25);
      context.drawImage(paper, 0, 0);
    }
    context.setTransform(1, 0, 0, 1, 0, 0);
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

function dim(context: CanvasRenderingContext2D, { width, height }: Film, at: number): void {
  context.globalCompositeOperation = 'multiply';
  const level = 1 - DARKEST * (0.5 - 0.5 * Math.cos((2 * Math.PI * at) / LIGHT_MS));
  context.fillStyle = `rgb(${255 * level} ${250 * level} ${242 * level})`;
  context.fillRect(0, 0, width, height);
  const shadow = ((at % SHADOW_MS) / SHADOW_MS) * 3 - 1;
  if (shadow < 1.4) {
    const x = shadow * width;
    const gradient = context.createLinearGradient(x - width * 0.3, 0, x + width * 0.3, height * 0.2);
    gradient.addColorStop(0, '#ffffff');
    gradient.addColorStop(0.5, '#b4b0aa');
    gradient.addColorStop(1, '#ffffff');
    context.fillStyle = gradient;
    context.fillRect(0, 0, width, height);
  }
  context.globalCompositeOperation = 'source-over';
}

async function loadPicture(name: string): Promise<HTMLImageElement> {
  const image = new Image();
  image.src = FOLDER + name;
  await image.decode();
  return image;
}
