import { unzlibSync } from 'fflate';

/** The TrueType font inside a WOFF file (W3C Recommendation, 2012): its tables inflated, one after the other. */
export function unpackWoff(woff: Uint8Array): Uint8Array {
  const from = new DataView(woff.buffer, woff.byteOffset, woff.byteLength);
  const tables = from.getUint16(12);
  const bodies: Uint8Array[] = [];
  const header = new Uint8Array(12 + 16 * tables);
  const to = new DataView(header.buffer);
  const power = Math.floor(Math.log2(tables));
  header.set(woff.subarray(4, 8), 0);
  [tables, 16 << power, power, 16 * (tables - (1 << power))].forEach((value, at) => to.setUint16(4 + 2 * at, value));
  let offset = header.length;
  for (let table = 0; table < tables; table++) {
    const entry = 44 + 20 * table;
    const [at, packed, full, checksum] = [4, 8, 12, 16].map((field) => from.getUint32(entry + field));
    const bytes = woff.subarray(at, at + packed);
    const body = new Uint8Array(Math.ceil(full / 4) * 4);
    body.set(packed < full ? unzlibSync(bytes) : bytes);
    header.set(woff.subarray(entry, entry + 4), 12 + 16 * table);
    [checksum, offset, full].forEach((value, index) => to.setUint32(12 + 16 * table + 4 + 4 * index, value));
    bodies.push(body);
    offset += body.length;
  }
  const font = new Uint8Array(offset);
  let place = 0;
  for (const part of [header, ...bodies]) {
    font.set(part, place);
    place += part.length;
  }
  return font;
}
