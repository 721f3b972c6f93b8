import { Turn } from '../../geometry';
import { BentSheet } from '../bend/findBend';
import { Row, textRows } from '../bend/rows';
import { lettersOnly } from '../components';
import { Ink, roughInk } from '../ink';
import { suitableLook } from '../looks';
import { scaleQuad } from '../quad';
import { Raster } from '../raster';
import { flatten, Recipe } from '../recipe';
import { paperFor } from '../straighten';

export interface Proposal {
  recipe: Recipe;
  /** Quarter turns that bring the page upright. */
  turn: Turn;
  /** How sure the outline is, 0 to 1; 1 for a flat scan. */
  confidence: number;
}

/** Size (longer side, pixels) at which lines of text are looked at. */
export const TEXT_SIZE = 1000;
/** From here on it is sure which way up a page is. */
export const SURE_OF_DIRECTION = 0.5;

/** How a page is made of a sheet that isn't flat: upright, its rows level. */
export function bentProposal(picture: Raster, sheet: BentSheet): Omit<Proposal, 'confidence'> {
  return { recipe: bentRecipe(picture, sheet).recipe, turn: 0 };
}

/** How a sheet that isn't flat is flattened, and the page flat, its longer side `TEXT_SIZE` pixels. */
export function bentRecipe(picture: Raster, { corners, bend, aspect }: BentSheet): { recipe: Recipe; flat: Raster } {
  const { width, height } = paperFor(aspect);
  const recipe: Recipe = {
    corners: scaleQuad(corners, 1 / picture.width, 1 / picture.height),
    bend,
    angle: 0,
    look: 'asShot',
    paper: [width, height],
    marks: [],
  };
  const flat = flatten(picture, recipe, { longSide: TEXT_SIZE });
  return { recipe: { ...recipe, look: suitableLook(flat) }, flat };
}

/** The rows of print on a page, its longer side `TEXT_SIZE` pixels. */
export function rowsOn(picture: Raster, { recipe, turn }: Pick<Proposal, 'recipe' | 'turn'>): Row[] {
  return uprightRows(lettersOnly(roughInk(flatten(picture, recipe, { longSide: TEXT_SIZE }))), turn);
}

/** The rows of print that letters make once their page is turned, or is upside down then. */
export const uprightRows = (letters: Ink, turn: Turn): Row[] =>
  textRows(turn % 180 === 0 ? letters : turnedInk(letters));

/** Ink turned clockwise by a quarter. */
export function turnedInk({ width, height, data }: Ink): Ink {
  const turned = new Uint8Array(data.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) turned[x * height + (height - 1 - y)] = data[y * width + x];
  return { width: height, height: width, data: turned };
}
