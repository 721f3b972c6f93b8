import { applyHomography, homography } from '../homography';
import { area, isConvex, Point, Quad, wholeQuad } from '../quad';

/**
 * How a sheet that isn't flat lies between its corners: places of a mesh, row by row from the upper left, as x and y in the square
 * that has the sheet's corners as its own (0 to 1). The corners of the mesh are those of the square.
 */
export interface Bend {
  /** How many cells the mesh has across and down. */
  across: number;
  down: number;
  places: number[];
}

const MOST_CELLS = 64;
/** How far outside the square of the corners a place may be. */
const OUTSIDE = 4;
/** Three corners that make a triangle of no more than this area lie on a line. */
const IN_LINE = 1e-9;

/** Whether something that came from elsewhere is the mesh of a sheet. */
export function isBend(value: unknown): value is Bend {
  const { across, down, places } = (value ?? {}) as Partial<Bend>;
  const isCount = (cells: unknown) => Number.isInteger(cells) && Number(cells) >= 1 && Number(cells) <= MOST_CELLS;
  return (
    isCount(across) &&
    isCount(down) &&
    Array.isArray(places) &&
    places.length === 2 * (across! + 1) * (down! + 1) &&
    places.every((each) => typeof each === 'number' && Math.abs(each) <= 1 + OUTSIDE)
  );
}

export const MESH = { across: 16, down: 16 };

/**
 * Takes a mesh over a sheet.
 * @param corners of the sheet in the picture
 * @param inPicture where a point of the flat sheet (0 to 1 across and down) is in the picture
 */
export function bendOver(corners: Quad, inPicture: (point: Point) => Point, { across, down } = MESH): Bend {
  const toSquare = homography(corners, wholeQuad(1, 1));
  const places: number[] = [];
  for (let row = 0; row <= down; row++)
    for (let column = 0; column <= across; column++)
      for (const each of applyHomography(toSquare, inPicture([column / across, row / down])))
        places.push(Math.round(each * 1e5) / 1e5);
  return { across, down, places };
}

/**
 * The sides of a bent sheet as a polygon, clockwise from its first corner; straight ones where the corners are no sheet's.
 * @param corners of the sheet
 */
export function bentOutline(corners: Quad, bend: Bend): Point[] {
  const inLine = corners.some((_, out) => Math.abs(area(corners.filter((_each, index) => index !== out))) < IN_LINE);
  if (inLine || !isConvex(corners)) return corners;
  const toPicture = homography(wholeQuad(1, 1), corners);
  const { across, down, places } = bend;
  const at = (column: number, row: number): Point => {
    const node = 2 * (row * (across + 1) + column);
    return applyHomography(toPicture, [places[node], places[node + 1]]);
  };
  const steps = (cells: number) => Array.from({ length: cells }, (_, each) => each);
  return [
    ...steps(across).map((each) => at(each, 0)),
    ...steps(down).map((each) => at(across, each)),
    ...steps(across).map((each) => at(across - each, down)),
    ...steps(down).map((each) => at(0, down - each)),
  ];
}

/** Weights of four neighbours in a row of points at equal distances (Catmull & Rom 1974). */
function weights(part: number): [number, number, number, number] {
  const [t, t2, t3] = [part, part * part, part * part * part];
  return [(-t3 + 2 * t2 - t) / 2, (3 * t3 - 5 * t2 + 2) / 2, (-3 * t3 + 4 * t2 + t) / 2, (t3 - t2) / 2];
}

/** Where the points of the flat sheet (0 to 1 across and down, and a little beyond) are in the square: rows of it, one at a time. */
export function bentRow({ across, down, places }: Bend, v: number): (u: number) => Point {
  const stride = 2 * (across + 1);
  const row = new Float64Array(stride);
  blend(v, down, (node, weight) => {
    for (let at = 0; at < stride; at++) row[at] += weight * places[node * stride + at];
  });
  return (u) => {
    let [x, y] = [0, 0];
    blend(u, across, (node, weight) => {
      x += weight * row[2 * node];
      y += weight * row[2 * node + 1];
    });
    return [x, y];
  };
}

/** Tells the nodes whose blend gives the value at a place, with their weights; beyond the first and last it goes straight on. */
function blend(at: number, cells: number, tell: (node: number, weight: number) => void): void {
  const place = at * cells;
  if (place <= 0) {
    tell(0, 1 - place);
    tell(1, place);
    return;
  }
  if (place >= cells) {
    tell(cells, 1 + place - cells);
    tell(cells - 1, cells - place);
    return;
  }
  const first = Math.min(cells - 1, Math.floor(place));
  const [before, low, high, after] = weights(place - first);
  // What would lie before the first node or behind the last one is where it goes straight on.
  if (first > 0) tell(first - 1, before);
  else {
    tell(0, 2 * before);
    tell(1, -before);
  }
  tell(first, low);
  tell(first + 1, high);
  if (first + 2 <= cells) tell(first + 2, after);
  else {
    tell(cells, 2 * after);
    tell(cells - 1, -after);
  }
}
