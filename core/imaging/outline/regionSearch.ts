import { overlap, Point, Quad, scaleQuad } from '../quad';
import { Raster, shrink } from '../raster';
import { boundaryOf, largestQuad, offStraight } from './boundary';
import { opponentColours } from './edges';
import { findPrint, groupsOn, isOn, Print } from './print';
import { SheetRegions } from './sheetRegion';

/** Size (longer side, pixels) at which the regions of sheets are sought. */
const SEEK = 448;
/** Outlines with so much in common (intersection over union) are the same. */
const SAME = 0.96;
/** A region with so little of the picture is no sheet's, nor is one that has all of it. */
const LEAST_SHARE = 0.04;
const MOST_SHARE = 0.97;
/** Print that is known to stand on one sheet is so many marks. */
const LEAST_MARKS = 6;

/** The region of a sheet. */
export interface FoundRegion {
  /** Those of the largest quad in it, clockwise. */
  corners: Quad;
  /** All around it. */
  boundary: Point[];
  /** How far that is off the straight lines between the corners at most, as a share of the picture's longer side, leaving out a twentieth of it. */
  off: number;
}

/** Looks in one picture for the regions that sheets take, whatever their outlines; the print on it is found once. */
export class RegionSearch {
  private seen: { sheets: SheetRegions; print: Print; scale: number } | undefined;

  /** @param picture about 1600 pixels long */
  constructor(private readonly picture: Raster) {}

  /**
   * The region in which some print stands, if there is one.
   * @param on a part of the sheet, in pixels: it is the print that stands there and what goes on beyond it, without it that of which there is most
   * @returns none, one, or two when it depends on whether the sheet runs out of the picture
   */
  regionsAround(on?: Quad): FoundRegion[] {
    const { sheets, print, scale } = (this.seen ??= this.look());
    const groups = on ? groupsOn(print, on) : new Set([0]);
    const marks = print.marks
      .filter((_, at) => groups.has(print.group[at]))
      .map(({ left, top, right, bottom }) => ({
        left: left / scale,
        top: top / scale,
        right: right / scale,
        bottom: bottom / scale,
      }));
    if (marks.length < LEAST_MARKS) return [];
    const found: FoundRegion[] = [];
    for (const region of sheets.around(marks)) {
      const share = region.data.reduce((sum, each) => sum + each, 0) / region.data.length;
      if (share < LEAST_SHARE || share > MOST_SHARE) continue;
      const boundary = boundaryOf(region);
      const quad = largestQuad(boundary);
      const corners = quad && scaleQuad(quad, scale);
      if (corners && found.every((other) => overlap(other.corners, corners) < SAME))
        found.push({
          corners,
          boundary: boundary.map(([x, y]): Point => [x * scale, y * scale]),
          off: offStraight(boundary, quad, region),
        });
    }
    return found;
  }

  /** How many letters and words stand on a part of the picture. @param quad in pixels, clockwise */
  marksOn(quad: Quad): number {
    const { print } = (this.seen ??= this.look());
    return print.marks.filter((mark) => isOn(quad, mark)).length;
  }

  private look() {
    const small = shrink(this.picture, SEEK);
    return {
      sheets: new SheetRegions(opponentColours(small)),
      print: findPrint(this.picture),
      scale: this.picture.width / small.width,
    };
  }
}
