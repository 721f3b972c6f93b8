/** Paper sizes that a picture's shape may tell, in points, upright. */
const PAPERS: [width: number, height: number][] = [
  [595.28, 841.89],
  [612, 792],
];
const POINTS_PER_INCH = 72;
const SHAPE_TOLERANCE = 0.02;
/** A resolution below or above these is not one that paper was captured at; cameras write 72 without meaning it. */
const LEAST_DPI = 90;
const MOST_DPI = 2400;
/** Pictures without a known resolution are laid on a page of this length at most. */
const LONG_SIDE = 841.89;

/**
 * The size of the page that a picture shows, in points: from its resolution where that makes sense, else the standard paper
 * of the same shape, else a page as long as A4.
 */
export function pageSize(width: number, height: number, dpi?: number): [width: number, height: number] {
  if (dpi && dpi >= LEAST_DPI && dpi <= MOST_DPI) {
    return [(width * POINTS_PER_INCH) / dpi, (height * POINTS_PER_INCH) / dpi];
  }
  const landscape = width > height;
  const shape = landscape ? width / height : height / width;
  const paper = PAPERS.find(([across, down]) => Math.abs(shape / (down / across) - 1) < SHAPE_TOLERANCE);
  if (paper) return landscape ? [paper[1], paper[0]] : [paper[0], paper[1]];
  const scale = LONG_SIDE / Math.max(width, height);
  return [width * scale, height * scale];
}
