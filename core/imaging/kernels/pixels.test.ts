import { execFileSync } from 'node:child_process';
import { serialize } from 'node:v8';
import * as grain from '../grain';
import { homography } from '../homography';
import * as illumination from '../illumination';
import * as ink from '../ink';
import * as looks from '../looks';
import * as layers from '../layers';
import * as noise from '../noise';
import * as edges from '../outline/edges';
import { Quad, wholeQuad } from '../quad';
import * as raster from '../raster';
import { bytesOf, plainShrink, Raster, shrink } from '../raster';
import * as resample from '../resample';
import { plainWarp, warp } from '../straighten';
import * as kernels from './pixels';
import { PIXELS } from './pixelsWasm';

/** A picture whose bytes are all different from their neighbours. */
function picture(width: number, height: number, channels: Raster['channels']): Raster {
  const data = Uint8Array.from({ length: width * height * channels }, (_, at) => (at * 7919 + (at >> 7) * 31) & 255);
  return { width, height, channels, data };
}

describe.each([1, 3, 4] as const)('of pictures with %s channels', (channels) => {
  const from = picture(203, 151, channels);

  it.each<[string, Quad]>([
    [
      'askew',
      [
        [12.3, 9.1],
        [190.2, 4.4],
        [199.7, 140.2],
        [3.9, 147.5],
      ],
    ],
    [
      'turned',
      [
        [200, 2],
        [201, 148],
        [3, 149],
        [2, 1],
      ],
    ],
    [
      'reaching over its edges',
      [
        [-20, -14],
        [220, -3],
        [214, 160],
        [-7, 170],
      ],
    ],
    ['whole', wholeQuad(203, 151)],
  ])('a quad %s is made flat as it is without the kernels, to the bit', (_, quad) => {
    const [width, height] = [187, 133];
    const made = warp(from, quad, width, height);
    const plain = plainWarp(from, homography(wholeQuad(width, height), quad), width, height);
    expect(Buffer.compare(bytesOf(made), bytesOf(plain))).toBe(0);
    expect(made).toMatchObject({ width, height, channels: channels === 1 ? 1 : 3 });
  });

  it.each([
    [100, 1],
    [77, 4],
    [12, 4],
    [3, 2],
  ])('it is made smaller, to %s pixels, as without the kernels, to the bit', (longSide, enough) => {
    const made = shrink(from, longSide, { enough });
    const cells = (size: number, to: number) =>
      Int32Array.from({ length: to + 1 }, (_, at) => Math.round((at * size) / to));
    const plain = plainShrink(from, {
      width: made.width,
      height: made.height,
      across: cells(from.width, made.width),
      down: cells(from.height, made.height),
      stride: Math.max(1, Math.floor(203 / longSide / enough)),
    });
    expect(Buffer.compare(bytesOf(made), plain)).toBe(0);
  });
});

describe('what has no SIMD makes the same, to the bit', () => {
  type Modules = typeof illumination &
    typeof layers &
    typeof ink &
    typeof looks &
    typeof noise &
    typeof raster &
    typeof resample &
    typeof kernels &
    typeof edges &
    typeof grain;
  const withKernels: Modules = {
    ...illumination,
    ...ink,
    ...layers,
    ...looks,
    ...noise,
    ...raster,
    ...resample,
    ...kernels,
    ...edges,
    ...grain,
  };
  let without: Modules;

  beforeAll(() => {
    const { Module } = WebAssembly;
    jest.isolateModules(() => {
      Object.assign(WebAssembly, { Module: undefined });
      const names = [
        'binarise',
        'grain',
        'illumination',
        'ink',
        'kernels/pixels',
        'layers',
        'looks',
        'noise',
        'outline/edges',
        'raster',
        'resample',
      ];
      without = Object.assign({}, ...names.map((name) => jest.requireActual<object>(`../${name}`))) as Modules;
      // Tried once, and then known not to be there.
      without.greyOf(picture(4, 4, 3));
    });
    Object.assign(WebAssembly, { Module });
  });

  it('where they can not be used', () => {
    expect(without.withPixels([1], () => undefined)).toBeUndefined();
    expect(withKernels.withPixels([1], () => undefined)).toHaveLength(1);
  });

  /** Print on paper that is darker towards one side. */
  function page(width: number, height: number, channels: Raster['channels']): Raster {
    const { data } = picture(width, height, channels);
    const shaded = data.map((value, at) => {
      const [x, y] = [Math.floor(at / channels) % width, Math.floor(at / channels / width)];
      const isPrint = y % 24 < 9 && x % 11 < 3 && x > 20 && x < width - 20;
      return (isPrint ? 60 : 215) - (60 * x) / width + (value % 13) + 6 * (at % channels);
    });
    return { width, height, channels, data: new Uint8Array(shaded) };
  }

  const hashed = (at: number) => {
    const mixed = Math.imul(at + 1, 2_654_435_761);
    return Math.imul(mixed ^ (mixed >>> 15), 2_246_822_519);
  };

  /** Nearly normal: a sum of even ones. */
  const normal = (at: number) => [1, 2, 3, 4].reduce((sum, times) => sum + (hashed(times * 1e6 + at) >>> 28), 0);

  const sizes: [number, number][] = [
    [403, 517],
    [97, 61],
    [23, 19],
  ];
  const works: [string, (modules: Modules, from: Raster) => unknown][] = [
    ['grey', ({ greyOf }, from) => greyOf(from)],
    ['ink', ({ roughInk }, from) => [roughInk(from), roughInk(from, 0.07)]],
    [
      'runs of ink',
      ({ greyOf, inkBelow, inkRuns, transposedInk }, from) => {
        const inks = [0, 97, 255].map((level) => inkBelow(greyOf(from), level));
        return inks.flatMap((each) => [each, inkRuns(each), transposedInk(each), inkRuns(transposedInk(each))]);
      },
    ],
    [
      'tones',
      ({ throughCurve }, from) =>
        throughCurve(
          from,
          Uint8Array.from({ length: 256 }, (_, at) => (at * at) >> 8),
        ),
    ],
    [
      'sizes',
      ({ greyOf, resampled }, from) =>
        [
          [211, 97],
          [30, 301],
          [1, 1],
        ].map(([width, height]) => resampled(greyOf(from), width, height)),
    ],
    [
      'grey of grey',
      ({ greyOf, greyWhereGrey }, from) => {
        const grey = bytesOf(greyOf(from));
        const data = Uint8Array.from({ length: 3 * grey.length }, (_, at) => grey[Math.floor(at / 3)]);
        const whole = greyWhereGrey({ ...from, channels: 3, data });
        data[data.length - 2] ^= 1;
        return [whole, greyWhereGrey({ ...from, channels: 3, data })];
      },
    ],
    ['smoothing', ({ blurred }, from) => [blurred(from, 0.7), blurred(from, 2.2)]],
    [
      'grain',
      ({ withoutGrain }, from) => {
        // Of its print every third row only: the rest is paper.
        const data = bytesOf(from).map((value, at) => {
          const y = Math.floor(at / from.channels / from.width);
          return (y % 72 < 9 ? value >> 1 : 110) + normal(at);
        });
        const grainy = { ...from, data };
        const made = withoutGrain(grainy);
        // Too small a page has no paper without print.
        if (from.width > 300) expect(made).not.toBe(grainy);
        return made;
      },
    ],
    ['light', ({ estimateIllumination }, from) => estimateIllumination(from)],
    ['tone', ({ toneOf }, from) => toneOf(from)],
    [
      'layers',
      ({ separateLayers }, from) =>
        [4, 5].map((cell) => {
          const { stencils, background } = separateLayers(from, cell);
          const numbers = stencils.flatMap(({ colour, mask, left, top }) => [...colour, mask.width, left, top]);
          return [background.data, Float64Array.from(numbers), ...stencils.map(({ mask }) => mask.data)];
        }),
    ],
    [
      'black and white of faint print that touches bold print',
      ({ renderLook }, from) => {
        const data = bytesOf(from).map((value, at) => (value < 120 ? value + ((at * 31) % 140) : value));
        return renderLook({ ...from, data }, 'bilevel');
      },
    ],
    ['looks', ({ LOOKS, renderLook }, from) => LOOKS.map((look) => renderLook(from, look))],
  ];
  const cases = works.flatMap(([name, work]) => sizes.map((size) => [name, size, work] as const));

  it.each(cases)('%s of %s pixels', (_, [width, height], work) => {
    for (const channels of [1, 3, 4] as const) {
      const from = page(width, height, channels);
      expect(Buffer.compare(serialize(work(without, from)), serialize(work(withKernels, from)))).toBe(0);
    }
  });

  it.each(sizes)('but for edges of %s × %s pixels, which are the same to a thousandth', (width, height) => {
    // A sheet that lies askew on something dark.
    const data = Uint8Array.from({ length: 3 * width * height }, (_, at) => {
      const [x, y] = [Math.floor(at / 3) % width, Math.floor(at / 3 / width)];
      const isSheet = x + 0.2 * y > 0.3 * width && x + 0.2 * y < 0.8 * width && y - 0.1 * x > 0.2 * height;
      return (isSheet ? 210 : 50) + ((at * 7919) % 7) + 8 * (at % 3);
    });
    const from: Raster = { width, height, channels: 3, data };
    const [one, other] = [without, withKernels].map((modules) => modules.findEdges(modules.opponentColours(from)));
    expect(one.strength.some((strength) => strength > 5)).toBe(true);
    // A ridge where two pixels are equal may be thinned to either.
    const differs = one.strength.filter((strength, at) => Math.abs(strength - other.strength[at]) > 0.001);
    expect(differs.length).toBeLessThanOrEqual(one.strength.length / 1000);
    for (const normal of ['normalX', 'normalY'] as const)
      for (let at = 0; at < width * height; at++)
        if (one.strength[at] > 0 && Math.abs(one[normal][at] - other[normal][at]) > 0.001)
          throw new Error(`${normal} of pixel ${at}: ${one[normal][at]} and ${other[normal][at]}`);
  });
});

it('has one channel of a picture that is grey, and three of one with a coloured pixel', () => {
  const data = new Uint8Array(300).map((_, at) => Math.floor(at / 3));
  const grey = raster.greyWhereGrey({ width: 10, height: 10, channels: 3, data });
  expect([grey.channels, ...grey.data.slice(0, 3)]).toEqual([1, 0, 1, 2]);
  data[299]++;
  expect(raster.greyWhereGrey({ width: 10, height: 10, channels: 3, data }).channels).toBe(3);
});

it('tells where ink begins and ends along each row', () => {
  const rows = [
    '##..#...................#',
    '.........................',
    '#########################',
    '..#......................',
  ];
  const data = Uint8Array.from(rows.join(''), (letter) => (letter === '#' ? 1 : 0));
  const runs = [...ink.inkRuns({ width: 25, height: 4, data })];
  expect(runs).toEqual([0, 1, 4, 4, 24, 24, 50, 74, 77, 77]);
  const turned = ink.transposedInk({ width: 25, height: 4, data });
  expect([turned.width, turned.height]).toEqual([4, 25]);
  expect([...turned.data.slice(8, 12)]).toEqual([0, 0, 1, 1]);
});

it('works on pictures one after the other, larger and smaller ones', () => {
  const sizes = [2400, 60, 900];
  const made = sizes.map((size) => shrink(picture(size, size, 3), 50));
  expect(made.map(({ data }) => data.length)).toEqual([7500, 7500, 7500]);
  const [, small] = made;
  expect(shrink(picture(60, 60, 3), 50).data).toEqual(small.data);
});

it('is compiled from the sources beside it', () => {
  const compile = "import('./scripts/kernels.mjs').then((kernels) => kernels.compileKernels()).then(console.log)";
  expect(PIXELS).toBe(execFileSync('node', ['-e', compile], { encoding: 'utf8' }).trim());
});
