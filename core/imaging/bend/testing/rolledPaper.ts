import { Point } from '../../quad';
import { Raster } from '../../raster';
import { USUAL_FOCAL } from '../../straighten';

/** Size of the picture. */
export const SIZE: [number, number] = [480, 640];
/** Size of the paper, and how strongly it is rolled; in millimetres. */
export const [WIDTH, HEIGHT, RADIUS] = [210, 297, 180];

/** Where a point of a sheet that lies on a roll is seen, its middle the highest, by a camera that leans a little. */
export function seen([x, y]: Point): Point {
  const angle = (x - WIDTH / 2) / RADIUS;
  const [px, py, pz] = [RADIUS * Math.sin(angle), y - HEIGHT / 2, RADIUS * (Math.cos(angle) - 1)];
  const lean = 0.25;
  const depth = 430 + py * Math.sin(lean) - pz * Math.cos(lean);
  const focal = USUAL_FOCAL * SIZE[1];
  return [
    SIZE[0] / 2 + (focal * px) / depth,
    SIZE[1] / 2 + (focal * (py * Math.cos(lean) + pz * Math.sin(lean))) / depth,
  ];
}

/** All around the paper, so many points a side. */
export const outline = (steps: number): Point[] => {
  const along = Array.from({ length: steps }, (_, at) => at / steps);
  return [
    ...along.map((share) => seen([share * WIDTH, 0])),
    ...along.map((share) => seen([WIDTH, share * HEIGHT])),
    ...along.map((share) => seen([(1 - share) * WIDTH, HEIGHT])),
    ...along.map((share) => seen([0, (1 - share) * HEIGHT])),
  ];
};

/** Paper on a darker table. @param sides of it, all around */
export function photo(sides: Point[]): Raster {
  const [width, height] = SIZE;
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) data[y * width + x] = isIn(sides, [x, y]) ? 220 : 80;
  return { width, height, channels: 1, data };
}

/** The same with rows of words on it: dark strokes, their feet joined. */
export function printedPhoto(): Raster {
  const picture = photo(outline(40));
  for (let row = 0; row < 12; row++)
    for (let word = 0, x = 30; word < 7; word++) {
      const long = 10 + ((word * word * 13 + row * 23) % 19);
      for (let u = 0; u < long; u += 0.2)
        for (let v = 0; v < 4; v += 0.2) {
          if (v < 3.2 && u % 2.4 > 1.2) continue;
          const [px, py] = seen([x + u, 40 + row * 15 + v]).map(Math.round);
          picture.data[py * SIZE[0] + px] = 40;
        }
      x += long + 4;
    }
  return picture;
}

/** Whether a line to the right crosses the sides an odd number of times. */
function isIn(sides: Point[], [x, y]: Point): boolean {
  let inside = false;
  sides.forEach(([ax, ay], at) => {
    const [bx, by] = sides[(at + 1) % sides.length];
    if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
  });
  return inside;
}
