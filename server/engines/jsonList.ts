/** An element of a list, and the list, may have so many bytes and elements. */
export interface ListBounds {
  mostBytes: number;
  most: number;
}

const [QUOTE, ESCAPE, OPENS, CLOSES, COMMA] = ['"', '\\', '[{', ']}', ','].map((signs) => [...Buffer.from(signs)]);
const SPACES = [...Buffer.from(' \t\r\n')];

/**
 * The elements of a list in JSON, one by one as they come: a long one is never in memory as a whole, and nobody waits until all of it
 * is read.
 * @throws SyntaxError when it is no list, RangeError when it exceeds the bounds
 */
export async function* jsonList(
  pieces: AsyncIterable<Uint8Array>,
  { mostBytes, most }: ListBounds,
): AsyncGenerator<unknown> {
  let element: number[] = [];
  let [depth, count] = [0, 0];
  let [inText, escaped] = [false, false];
  const parsed = () => {
    if (++count > most) throw new RangeError('too many elements');
    const value = JSON.parse(Buffer.from(element).toString()) as unknown;
    element = [];
    return value;
  };
  for await (const piece of pieces) {
    for (const byte of piece) {
      if (inText) {
        if (escaped) escaped = false;
        else if (ESCAPE.includes(byte)) escaped = true;
        else if (QUOTE.includes(byte)) inText = false;
      } else if (QUOTE.includes(byte)) inText = true;
      else if (OPENS.includes(byte)) {
        if (depth++ === 0) {
          if (byte !== OPENS[0] || count > 0) throw new SyntaxError('no list');
          continue;
        }
      } else if (CLOSES.includes(byte)) {
        if (--depth < 0) throw new SyntaxError('no list');
        if (depth === 0) {
          if (element.length > 0) yield parsed();
          continue;
        }
      } else if (depth === 1 && COMMA.includes(byte)) {
        yield parsed();
        continue;
      } else if (SPACES.includes(byte) && depth < 2) continue;
      if (depth === 0) throw new SyntaxError('no list');
      if (element.push(byte) > mostBytes) throw new RangeError('an element is too long');
    }
    // Whoever asks for something meanwhile is answered.
    await new Promise(setImmediate);
  }
  if (depth !== 0) throw new SyntaxError('the list does not end');
}
