import { Box } from '../../geometry';
import { Colour, INK_LOOKS, Mark, Place } from './mark';

/** What a mark is drawn of, in points on the page as it is shown, from its upper left corner. */
export type Shape =
  | { is: 'wash'; box: Box; colour: Colour }
  | { is: 'fill'; box: Box; colour: Colour }
  | { is: 'frame'; box: Box; width: number; colour: Colour; dash: number[] }
  | { is: 'line'; places: Place[]; width: number; colour: Colour; dash: number[] }
  | { is: 'words'; at: Place; size: number; words: string; colour: Colour; bold: boolean };

/** How wide a text is in a size, both in points. */
export type Measure = (text: string, size: number, bold: boolean) => number;

const LINE = 1.1;
export const TEXT_SIZE = 11;
const LEADING = 1.3;
/** Letters reach so far above their line, as a share of their size. */
const ASCENT = 0.78;
/** Where the line through struck words lies, from the top of their box. */
const STRIKE_AT = 0.58;
const PADDING = 3;
/** The size of the sign that a comment is shown by. */
export const COMMENT_SIDE = 16;

/** What a mark is drawn of; the same on the screen and in the PDF. */
export function shapesOf(mark: Mark, measure: Measure): Shape[] {
  const { line: colour, wash, dash } = INK_LOOKS[mark.ink];
  const [box] = mark.boxes;
  const across = ([x, , width]: Box, y: number, thick = LINE): Shape => ({
    is: 'line',
    places: [
      [x, y],
      [x + width, y],
    ],
    width: thick,
    colour,
    dash,
  });
  switch (mark.kind) {
    case 'highlight':
      return mark.boxes.flatMap((each): Shape[] => [
        { is: 'wash', box: each, colour: wash },
        // The pattern of the ink, for whoever doesn't see its colour.
        ...(dash.length > 0 ? [across(each, each[1] + each[3], LINE)] : []),
      ]);
    case 'underline':
      return mark.boxes.map((each) => across(each, each[1] + each[3]));
    case 'strike':
      return mark.boxes.map((each) => across(each, each[1] + STRIKE_AT * each[3]));
    case 'drawing':
      return drawn(
        mark.strokes.map((stroke) => stroke),
        colour,
        dash,
      );
    case 'text':
      return written(mark.text, box, colour, measure);
    case 'comment':
      return commentSign(box, colour, dash, wash);
    case 'stamp':
      return stamped(mark.text, box, colour, dash, measure);
    case 'signature':
      return mark.strokes.length > 0
        ? drawn(
            mark.strokes.map((stroke) =>
              stroke.map(([x, y, width]) => [box[0] + x * box[2], box[1] + y * box[3], width]),
            ),
            SIGNED,
            [],
          )
        : signedInLetters(mark.text, box, measure);
  }
}

/** Signatures are written in the blue-black of ink pens, whatever the ink of other marks. */
const SIGNED: Colour = [0.07, 0.1, 0.32];

/** Lines of one width are one line; where a pen was pressed more, the line is wider. */
function drawn(strokes: [number, number, number][][], colour: Colour, dash: number[]): Shape[] {
  return strokes.flatMap((stroke): Shape[] => {
    const even = stroke.every(([, , width]) => width === stroke[0][2]);
    const places = stroke.map(([x, y]): Place => [x, y]);
    // A dot is a line that goes nowhere.
    if (even || stroke.length < 2)
      return [
        {
          is: 'line',
          places: places.length === 1 ? [places[0], places[0]] : places,
          width: stroke[0][2],
          colour,
          dash,
        },
      ];
    return stroke
      .slice(1)
      .map(([, , width], at) => ({ is: 'line', places: [places[at], places[at + 1]], width, colour, dash: [] }));
  });
}

/** A text broken into lines that fit its box. */
export function linesOfText(text: string, width: number, measure: Measure, size = TEXT_SIZE): string[] {
  return text.split('\n').flatMap((paragraph) => {
    const lines: string[] = [];
    for (const word of paragraph.split(' ')) {
      const longer = lines.length > 0 ? `${lines[lines.length - 1]} ${word}` : word;
      if (lines.length > 0 && measure(longer, size, false) <= width) lines[lines.length - 1] = longer;
      else lines.push(word);
    }
    return lines;
  });
}

/** How high a text is in a box of a width. */
export function heightOfText(text: string, width: number, measure: Measure): number {
  return linesOfText(text, width - 2 * PADDING, measure).length * TEXT_SIZE * LEADING + 2 * PADDING;
}

function written(text: string, [x, y, width]: Box, colour: Colour, measure: Measure): Shape[] {
  return linesOfText(text, width - 2 * PADDING, measure).map((words, at) => ({
    is: 'words',
    at: [x + PADDING, y + PADDING + TEXT_SIZE * (ASCENT + at * LEADING)],
    size: TEXT_SIZE,
    words,
    colour,
    bold: false,
  }));
}

function commentSign([x, y, width, height]: Box, colour: Colour, dash: number[], wash: Colour): Shape[] {
  return [
    { is: 'fill', box: [x, y, width, height], colour: wash },
    { is: 'frame', box: [x, y, width, height], width: LINE, colour, dash },
    ...[0.32, 0.52, 0.72].map((share): Shape => ({
      is: 'line',
      places: [
        [x + 0.22 * width, y + share * height],
        [x + (share > 0.6 ? 0.55 : 0.78) * width, y + share * height],
      ],
      width: LINE,
      colour,
      dash: [],
    })),
  ];
}

function stamped(text: string, [x, y, width, height]: Box, colour: Colour, dash: number[], measure: Measure): Shape[] {
  const lines = text.split('\n');
  const room = width - 4 * PADDING;
  return [
    { is: 'frame', box: [x, y, width, height], width: 1.6, colour, dash },
    ...lines.map((words, at): Shape => {
      const share = (height - 2 * PADDING) / (lines.length > 1 ? 1.7 : 1.1);
      const wanted = at === 0 ? share : 0.45 * share;
      const size = Math.min(wanted, (wanted * room) / Math.max(1, measure(words, wanted, at === 0)));
      const own = measure(words, size, at === 0);
      const baseline =
        at === 0 ? y + PADDING + share * ASCENT + (lines.length > 1 ? 0 : 0.1 * share) : y + height - 2 * PADDING;
      return { is: 'words', at: [x + (width - own) / 2, baseline], size, words, colour, bold: at === 0 };
    }),
  ];
}

function signedInLetters(text: string, [x, y, width, height]: Box, measure: Measure): Shape[] {
  const wanted = 0.7 * height;
  const size = Math.min(wanted, (wanted * width) / Math.max(1, measure(text, wanted, false)));
  return [{ is: 'words', at: [x, y + height - 0.25 * size], size, words: text, colour: SIGNED, bold: false }];
}

/** How far a mark reaches, its lines counted in. */
export function extentOf(shapes: readonly Shape[], measure: Measure): Box {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const reach = (x: number, y: number, by = 0) => {
    left = Math.min(left, x - by);
    top = Math.min(top, y - by);
    right = Math.max(right, x + by);
    bottom = Math.max(bottom, y + by);
  };
  for (const shape of shapes) {
    if (shape.is === 'line') for (const [x, y] of shape.places) reach(x, y, shape.width);
    else if (shape.is === 'words') {
      const [x, y] = shape.at;
      reach(x, y - shape.size);
      reach(x + measure(shape.words, shape.size, shape.bold), y + 0.3 * shape.size);
    } else {
      const [x, y, width, height] = shape.box;
      const by = shape.is === 'frame' ? shape.width : 0;
      reach(x, y, by);
      reach(x + width, y + height, by);
    }
  }
  return [left, top, right - left, bottom - top];
}
