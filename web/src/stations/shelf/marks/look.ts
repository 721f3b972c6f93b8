import { Colour } from '@crow/core/pdf/marks/mark';
import { Measure } from '@crow/core/pdf/marks/shapes';

const MEASURED_AT = 100;
export const MARK_FACE = "'Atkinson Hyperlegible Next', sans-serif";
const canvas = document.createElement('canvas').getContext('2d')!;

/** How wide words of marks are, in the letters that they have in the PDF as well. */
export const measure: Measure = (text, size, bold) => {
  canvas.font = `${bold ? 600 : 400} ${MEASURED_AT}px ${MARK_FACE}`;
  return (canvas.measureText(text).width * size) / MEASURED_AT;
};

/** A colour as style sheets write it. */
export const css = (colour: Colour) => `rgb(${colour.map((value) => Math.round(value * 255)).join(' ')})`;
