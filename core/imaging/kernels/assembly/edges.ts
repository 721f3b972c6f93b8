/** How a picture's colours change, as in `outline/edges.ts`, in 32-bit numbers. */

/**
 * The change of all channels at each pixel but the outermost, and in which direction it is of the one that changes most.
 * @param colours three planes of 32-bit numbers, one behind the other
 * @param out for three planes: the strength, and the unit normal across and down
 */
export function gradients(colours: usize, width: i32, height: i32, out: usize): void {
  const plane = (width * height) << 2;
  const row = width << 2;
  const three = f32x4.splat(3);
  const ten = f32x4.splat(10);
  const part = f32x4.splat(1 / 32);
  const little = f32x4.splat(1e-9);
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x += 4) {
      const at = (y * width + x) << 2;
      let gx = f32x4.splat(0);
      let gy = f32x4.splat(0);
      let most = f32x4.splat(0);
      let sum = f32x4.splat(0);
      for (let channel = 0; channel < 3; channel++) {
        const here = colours + channel * plane + at;
        const fall = f32x4.sub(v128.load(here + row, 4), v128.load(here - row - 4));
        const rise = f32x4.sub(v128.load(here + row - 4), v128.load(here - row, 4));
        const across = f32x4.sub(v128.load(here, 4), v128.load(here - 4));
        const down = f32x4.sub(v128.load(here + row), v128.load(here - row));
        const cx = f32x4.mul(f32x4.add(f32x4.mul(three, f32x4.sub(fall, rise)), f32x4.mul(ten, across)), part);
        const cy = f32x4.mul(f32x4.add(f32x4.mul(three, f32x4.add(fall, rise)), f32x4.mul(ten, down)), part);
        const size = f32x4.add(f32x4.mul(cx, cx), f32x4.mul(cy, cy));
        sum = f32x4.add(sum, size);
        const more = f32x4.gt(size, most);
        gx = v128.bitselect(cx, gx, more);
        gy = v128.bitselect(cy, gy, more);
        most = v128.bitselect(size, most, more);
      }
      const length = f32x4.add(f32x4.sqrt(most), little);
      const to = out + at;
      v128.store(to, f32x4.sqrt(sum));
      v128.store(to + plane, f32x4.div(gx, length));
      v128.store(to + 2 * plane, f32x4.div(gy, length));
    }
  }
  // There is no change at the border, nor what was reckoned beyond the end of a row.
  for (let number = 0; number < 3; number++) {
    const from = out + number * plane;
    memory.fill(from, 0, row);
    memory.fill(from + (height - 1) * row, 0, row);
    for (let y = 1; y < height - 1; y++) {
      store<f32>(from + y * row, 0);
      store<f32>(from + y * row + row - 4, 0);
    }
  }
}
