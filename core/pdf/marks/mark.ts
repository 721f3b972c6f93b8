import { Box } from '../../geometry';

/** What can be put on a page: on words, or beside them. */
export const MARK_KINDS = [
  'highlight',
  'underline',
  'strike',
  'drawing',
  'text',
  'comment',
  'stamp',
  'signature',
] as const;
export type MarkKind = (typeof MARK_KINDS)[number];

/** Inks: each has a colour, and lines of a pattern of its own, so that they are told apart without colour. */
export const INKS = ['amber', 'sea', 'plum'] as const;
export type Ink = (typeof INKS)[number];

/** Red, green, blue, from 0 to 1. */
export type Colour = [red: number, green: number, blue: number];

export interface InkLook {
  /** Of lines and letters. */
  line: Colour;
  /** Laid over words. */
  wash: Colour;
  /** How its lines are broken: so many points on, so many off; empty for whole ones. */
  dash: number[];
}

const colour = (hex: string): Colour =>
  [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16) / 255) as unknown as Colour;
export const INK_LOOKS: Record<Ink, InkLook> = {
  amber: { line: colour('#8a5a10'), wash: colour('#ffdf8a'), dash: [] },
  sea: { line: colour('#1c5d63'), wash: colour('#b4e3e0'), dash: [5, 2.5] },
  plum: { line: colour('#7a2f63'), wash: colour('#efcbe3'), dash: [1.2, 2] },
};

/** A place on a page as it is shown: points (1/72 inch) to the right of and below its upper left corner. */
export type Place = [x: number, y: number];
/** A line that was drawn: its places, each with how wide the line is there, in points. */
export type Stroke = [x: number, y: number, width: number][];

/** A mark on a page. All measures are in points on the page as it is shown. */
export interface Mark {
  id: string;
  kind: MarkKind;
  ink: Ink;
  /** Of highlights and the like the lines of words, one box each; of all others where they are, one box. */
  boxes: Box[];
  /** What was drawn: of drawings on the page, of signatures as shares of their box. */
  strokes: Stroke[];
  /** What it says; of a highlight the words that it is on. */
  text: string;
}

/** Who made a mark and when, and what was answered to it. */
export interface MarkAbout {
  by: string;
  /** ISO 8601. */
  at: string;
  replies: { by: string; at: string; text: string }[];
}

/** Marks that lie on words. */
export const onWords = (kind: MarkKind): boolean => kind === 'highlight' || kind === 'underline' || kind === 'strike';
