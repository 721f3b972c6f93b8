import { TextDecoder, TextEncoder } from 'node:util';

/** What the tests' window lacks of a browser. */

/** Every element is as large as this. */
export const SHOWN = { width: 1280, height: 800 };

class ResizeObserverOfOneSize implements ResizeObserver {
  constructor(private readonly told: ResizeObserverCallback) {}
  observe(target: Element): void {
    const contentRect = { ...SHOWN, x: 0, y: 0, top: 0, left: 0, right: SHOWN.width, bottom: SHOWN.height };
    const entry = { target, contentRect } as unknown as ResizeObserverEntry;
    queueMicrotask(() => this.told([entry], this));
  }
  unobserve(): void {}
  disconnect(): void {}
}

const structuredClone = (value: unknown): unknown =>
  value === undefined ? undefined : JSON.parse(JSON.stringify(value));
Object.assign(globalThis, { TextDecoder, TextEncoder, structuredClone, ResizeObserver: ResizeObserverOfOneSize });
// Letters are as wide as half their size.
const canvas = { measureText: (text: string) => ({ width: text.length * 50 }) };
HTMLCanvasElement.prototype.getContext = (() => canvas) as unknown as HTMLCanvasElement['getContext'];
Element.prototype.scrollIntoView = () => undefined;
Element.prototype.scrollTo = () => undefined;
Element.prototype.hasPointerCapture = () => false;
Element.prototype.animate = () => ({}) as Animation;
window.matchMedia = (media) =>
  ({ matches: false, media, addEventListener() {}, removeEventListener() {} }) as unknown as MediaQueryList;
