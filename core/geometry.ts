/** A rectangle as [x, y, width, height]; y grows downwards, the unit is that of the picture or page that it lies on. */
export type Box = [x: number, y: number, width: number, height: number];

/** Quarter turns clockwise, in degrees. */
export type Turn = 0 | 90 | 180 | 270;

/** The EXIF orientation of a picture as stored: 1 upright, 2 mirrored, 3 upside down … 8 (JEITA CP-3451, tag 0x0112). */
export type Orientation = 1 | 2 | 3 | 4 | 5 | 6 | 7 | 8;

export function addTurns(a: number, b: number): Turn {
  return ((((a + b) % 360) + 360) % 360) as Turn;
}

/** The width and height that a rectangle shows after being turned. */
export function turnSize(width: number, height: number, turn: Turn): [width: number, height: number] {
  return turn % 180 === 0 ? [width, height] : [height, width];
}

/** Where a box on a page of the given size (before turning) lies once the page has been turned clockwise. */
export function turnBox([x, y, width, height]: Box, pageWidth: number, pageHeight: number, turn: Turn): Box {
  switch (turn) {
    case 90:
      return [pageHeight - y - height, x, height, width];
    case 180:
      return [pageWidth - x - width, pageHeight - y - height, width, height];
    case 270:
      return [y, pageWidth - x - width, height, width];
    default:
      return [x, y, width, height];
  }
}

/** What each orientation becomes after a quarter turn clockwise of what is displayed. */
const QUARTER_TURNED: Record<Orientation, Orientation> = { 1: 6, 6: 3, 3: 8, 8: 1, 2: 7, 7: 4, 4: 5, 5: 2 };

/** The orientation that shows a picture as `orientation` does, and then turned clockwise. */
export function turnOrientation(orientation: Orientation, turn: Turn): Orientation {
  let turned = orientation;
  for (let quarter = 0; quarter < turn / 90; quarter++) turned = QUARTER_TURNED[turned];
  return turned;
}

/** The smallest box around several; the boxes must not be none. */
export function around(boxes: Box[]): Box {
  const left = Math.min(...boxes.map((box) => box[0]));
  const top = Math.min(...boxes.map((box) => box[1]));
  const right = Math.max(...boxes.map((box) => box[0] + box[2]));
  const bottom = Math.max(...boxes.map((box) => box[1] + box[3]));
  return [left, top, right - left, bottom - top];
}

/** A box in pixels as shares of the page's width and height. */
export function shareOf([x, y, w, h]: Box, { width, height }: { width: number; height: number }): Box {
  return [x / width, y / height, w / width, h / height];
}
