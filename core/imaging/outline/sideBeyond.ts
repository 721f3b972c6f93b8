import { applyHomography, homography } from '../homography';
import { Point, Quad, wholeQuad } from '../quad';
import { Raster } from '../raster';
import { PAPER_SIZES, trueAspect, USUAL_FOCAL } from '../straighten';

/** The side beyond the border is put no further off than this share of the sheet, to make it one of a standard shape. */
const FURTHEST = 0.2;
/** A shape is a usual one when it is no further off than this. */
const NEAR = 0.03;
/** Height over width of the papers that letters and bills are mostly on, either way round. */
const USUAL_SHAPES = PAPER_SIZES.filter(({ name }) => ['A4', 'Letter'].includes(name)).flatMap((size) => [
  size.height / size.width,
  size.width / size.height,
]);

/**
 * A sheet that runs out of the picture on one side: the border of the picture was found for that side, and the true one lies somewhere beyond it. It
 * is put where it makes a rectangle of the sheet, seen by a camera whose axis goes through the picture's middle: its direction meets that of
 * the opposite side in the vanishing point that is at a right angle to the one of the two other sides (Caprile & Torre 1990). It is as near as all of
 * the sheet that is seen allows, or as far as makes the shape of a usual paper.
 * @param quad in pixels of the picture, clockwise
 * @param side the one from its corner of that number, which lies at the border
 * @returns the quad as it was when its sides don't tell
 */
export function withSideBeyond(quad: Quad, side: number, picture: Pick<Raster, 'width' | 'height'>): Quad {
  const { width, height } = picture;
  const [start, end, oppositeStart, oppositeEnd] = [0, 1, 2, 3].map((by): Vector => {
    const [x, y] = quad[(side + by) % 4];
    return [x - width / 2, y - height / 2, 1];
  });
  const focal = USUAL_FOCAL * Math.max(width, height);
  const [ahead, behind] = [cross(end, oppositeStart), cross(oppositeEnd, start)];
  const vanishing = cross(ahead, behind);
  const atRightAngle: Vector = [vanishing[0] / focal ** 2, vanishing[1] / focal ** 2, vanishing[2]];
  const meeting = cross(atRightAngle, cross(oppositeStart, oppositeEnd));
  // Through one of the two points where the sheet leaves the picture; the other must not be cut off.
  const throughStart = cross(meeting, start);
  const isKept = sameSide(throughStart, end, oppositeStart);
  const line = isKept ? throughStart : cross(meeting, end);
  const corners = [cross(behind, line), cross(line, ahead)].map(([x, y, w]): Point => [
    x / w + width / 2,
    y / w + height / 2,
  ]);
  if (!corners.flat().every(Number.isFinite)) return quad;
  const whole = [...quad] as Quad;
  [whole[side], whole[(side + 1) % 4]] = corners;
  return ofUsualShape(whole, side, picture);
}

/** Moves a side outwards as far as makes the sheet one of a usual shape, when that is not far. */
function ofUsualShape(quad: Quad, side: number, { width, height }: Pick<Raster, 'width' | 'height'>): Quad {
  const aspect = trueAspect(quad, width, height);
  const isUpright = side % 2 === 0;
  /** How long the sheet is across the side, of how long the side is. */
  const depth = isUpright ? 1 / aspect : aspect;
  const further = USUAL_SHAPES.map((shape) => shape / depth - 1).filter((share) => share > -NEAR && share < FURTHEST);
  if (further.some((share) => share < NEAR) || further.length === 0) return quad;
  const moved = Math.min(...further);
  const toPicture = homography(wholeQuad(1, 1), quad);
  const outwards: Point[] = [
    [0, -moved],
    [moved, 0],
    [0, moved],
    [-moved, 0],
  ];
  return quad.map((corner, index): Point => {
    if (index !== side && index !== (side + 1) % 4) return corner;
    const [x, y] = wholeQuad(1, 1)[index];
    return applyHomography(toPicture, [x + outwards[side][0], y + outwards[side][1]]);
  }) as Quad;
}

type Vector = [number, number, number];

function cross([ax, ay, aw]: Vector, [bx, by, bw]: Vector): Vector {
  return [ay * bw - aw * by, aw * bx - ax * bw, ax * by - ay * bx];
}

/** Whether two points lie on the same side of a line. */
function sameSide(line: Vector, a: Vector, b: Vector): boolean {
  const on = (point: Vector) => line[0] * point[0] + line[1] * point[1] + line[2] * point[2];
  return on(a) * on(b) >= 0;
}
