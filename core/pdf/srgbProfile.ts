/**
 * A small sRGB colour profile (ICC.1:2001-04, matrix and tone curve; primaries of IEC 61966-2-1 adapted to D50), as PDF/A
 * wants it for its output intent. The curve is the sRGB curve in 256 steps.
 */
export function srgbProfile(): Uint8Array {
  const description = 'sRGB';
  const curve = curveTag();
  const tags: [signature: string, data: number[]][] = [
    ['desc', descriptionTag(description)],
    ['cprt', [...ascii('text'), ...u32(0), ...ascii('Public domain'), 0]],
    ['wtpt', xyz(0.9642, 1, 0.8249)],
    ['rXYZ', xyz(0.4360747, 0.2225045, 0.0139322)],
    ['gXYZ', xyz(0.3850649, 0.7168786, 0.0971045)],
    ['bXYZ', xyz(0.1430804, 0.0606169, 0.7141733)],
    ['rTRC', curve],
    ['gTRC', curve],
    ['bTRC', curve],
  ];
  const table: number[] = [...u32(tags.length)];
  const body: number[] = [];
  const begin = 128 + 4 + 12 * tags.length;
  const placed = new Map<number[], number>();
  for (const [signature, data] of tags) {
    if (!placed.has(data)) {
      placed.set(data, begin + body.length);
      body.push(...data, ...new Array<number>((4 - (data.length % 4)) % 4).fill(0));
    }
    table.push(...ascii(signature), ...u32(placed.get(data)!, data.length));
  }
  const header = [
    ...u32(begin + body.length),
    ...u32(0, 0x02100000),
    ...ascii('mntrRGB XYZ '),
    ...[0x07, 0xea, 0, 1, 0, 1, 0, 0, 0, 0, 0, 0],
    ...ascii('acsp'),
    ...u32(0, 0, 0, 0, 0, 0, 0),
    ...[0.9642, 1, 0.8249].flatMap((value) => fixed(value)),
    ...new Array<number>(48).fill(0),
  ];
  return Uint8Array.from([...header, ...table, ...body]);
}

function ascii(text: string): number[] {
  return [...text].map((letter) => letter.charCodeAt(0));
}

function u32(...values: number[]): number[] {
  return values.flatMap((value) => [(value >>> 24) & 0xff, (value >>> 16) & 0xff, (value >>> 8) & 0xff, value & 0xff]);
}

/** A number as s15Fixed16. */
function fixed(value: number): number[] {
  return u32(Math.round(value * 65536) >>> 0);
}

function xyz(...values: number[]): number[] {
  return [...ascii('XYZ '), ...u32(0), ...values.flatMap(fixed)];
}

function descriptionTag(text: string): number[] {
  return [
    ...ascii('desc'),
    ...u32(0, text.length + 1),
    ...ascii(text),
    0,
    ...u32(0, 0),
    0,
    0,
    0,
    ...new Array<number>(67).fill(0),
  ];
}

function curveTag(): number[] {
  const steps = 256;
  const values = Array.from({ length: steps }, (_, index) => {
    const encoded = index / (steps - 1);
    const linear = encoded <= 0.04045 ? encoded / 12.92 : ((encoded + 0.055) / 1.055) ** 2.4;
    return Math.round(linear * 65535);
  });
  return [...ascii('curv'), ...u32(0, steps), ...values.flatMap((value) => [value >> 8, value & 0xff])];
}
