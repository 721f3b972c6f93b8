import { Ink } from './ink';

/** A connected piece of ink. */
export interface Component {
  left: number;
  top: number;
  right: number;
  bottom: number;
  /** How many pixels of ink. */
  pixels: number;
}

/** The connected pieces of ink (neighbours on all eight sides), and for each pixel the number of its piece from 1, 0 for paper. */
export function connectedComponents({ width, height, data }: Ink): { components: Component[]; labels: Int32Array } {
  const labels = new Int32Array(data.length);
  const components: Component[] = [];
  const stack: number[] = [];
  for (let start = 0; start < data.length; start++) {
    if (!data[start] || labels[start]) continue;
    const component: Component = { left: width, top: height, right: 0, bottom: 0, pixels: 0 };
    const label = components.push(component);
    labels[start] = label;
    stack.push(start);
    while (stack.length > 0) {
      const at = stack.pop()!;
      const y = Math.floor(at / width);
      const x = at - y * width;
      component.pixels++;
      if (x < component.left) component.left = x;
      if (x > component.right) component.right = x;
      if (y < component.top) component.top = y;
      if (y > component.bottom) component.bottom = y;
      for (let dy = -1; dy <= 1; dy++) {
        if (y + dy < 0 || y + dy >= height) continue;
        for (let dx = -1; dx <= 1; dx++) {
          if (x + dx < 0 || x + dx >= width) continue;
          const near = at + dy * width + dx;
          if (!data[near] || labels[near]) continue;
          labels[near] = label;
          stack.push(near);
        }
      }
    }
  }
  return { components, labels };
}

/** The height that most letters have (small ones), in pixels; 0 when there are hardly any. */
export function letterHeight(components: Component[]): number {
  const heights = components
    .filter(({ left, right, top, bottom, pixels }) => {
      const [w, h] = [right - left + 1, bottom - top + 1];
      return h >= 4 && w >= 2 && w < 4 * h && h < 6 * w && pixels > 0.12 * w * h;
    })
    .map(({ top, bottom }) => bottom - top + 1)
    .sort((a, b) => a - b);
  return heights.length < 20 ? 0 : heights[Math.floor(heights.length * 0.4)];
}

/** The ink without what is larger than letters: rules, frames, pictures, blots. */
export function lettersOnly(ink: Ink): Ink {
  const { components, labels } = connectedComponents(ink);
  const most = LARGEST_LETTER * (letterHeight(components) || Math.max(ink.width, ink.height) / 40);
  const isLetter = components.map(({ left, right, top, bottom }) => right - left < most && bottom - top < most);
  return { ...ink, data: ink.data.map((_, at) => (labels[at] > 0 && isLetter[labels[at] - 1] ? 1 : 0)) };
}

/** How large a piece of ink that is letters may be, in heights of small letters. */
const LARGEST_LETTER = 5;
