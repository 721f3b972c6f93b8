import fc from 'fast-check';
import { jsonList } from './jsonList';

async function* cut(text: string, size: number): AsyncGenerator<Uint8Array> {
  const bytes = Buffer.from(text);
  for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
}
const read = async (text: string, size = 7, bounds = { mostBytes: 10_000, most: 1000 }) => {
  const found: unknown[] = [];
  for await (const each of jsonList(cut(text, size), bounds)) found.push(each);
  return found;
};

it('gives what parsing all of it at once gives, however it is cut', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.jsonValue()),
      fc.integer({ min: 1, max: 50 }),
      fc.boolean(),
      async (list, size, spaced) => {
        const text = JSON.stringify(list, null, spaced ? 2 : 0);
        expect(await read(text, size)).toEqual(JSON.parse(text));
      },
    ),
    { numRuns: 200 },
  );
});

it.each(['{"a":1}', '[1,2', '1', '[1]]', '[1] [2]', '[,]', 'x', '[{"a":1}', '["a'])('refuses %s', async (text) => {
  await expect(read(text)).rejects.toThrow(SyntaxError);
});

it('refuses what is longer than allowed', async () => {
  await expect(read(`["${'x'.repeat(200)}"]`, 7, { mostBytes: 100, most: 10 })).rejects.toThrow(RangeError);
  await expect(read('[1,2,3]', 7, { mostBytes: 100, most: 2 })).rejects.toThrow(RangeError);
});
