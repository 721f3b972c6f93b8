/** What a sheet lies on. */
export type Table = 'wood' | 'darkWood' | 'cloth' | 'dark' | 'white' | 'checked' | 'tiles' | 'stone';

export const TABLES: Table[] = ['wood', 'darkWood', 'cloth', 'dark', 'white', 'checked', 'tiles', 'stone'];

type Colour = [number, number, number];
type ColourAt = (x: number, y: number, into: Colour) => void;

/** The colour of a table at each place (mm), 0 to 255; what the light does to it comes later. */
export function tableColour(table: Table, random: () => number): ColourAt {
  const noise = valueNoise(random);
  const angle = random() * Math.PI;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const turned = (colourAt: ColourAt): ColourAt => {
    return (x, y, into) => colourAt(x * cos + y * sin, -x * sin + y * cos, into);
  };
  const vary = (colour: Colour, by: number): Colour => colour.map((each) => each + (random() - 0.5) * by) as Colour;
  switch (table) {
    case 'wood':
      return turned(planks(vary([168, 124, 82], 40), noise, 80 + 60 * random(), random() < 0.7));
    case 'darkWood':
      return turned(planks(vary([78, 52, 38], 20), noise, 90 + 60 * random(), random() < 0.6));
    case 'cloth': {
      const colour = vary([96, 108, 124], 90);
      const thread = 1.2 + random() * 1.4;
      return turned((x, y, into) => {
        const weave = 9 * Math.sin((x / thread) * Math.PI) * Math.sin((y / thread) * Math.PI);
        const fold = 22 * (noise(x / 90, y / 140) - 0.5);
        for (let each = 0; each < 3; each++) into[each] = colour[each] + weave + fold;
      });
    }
    case 'dark': {
      const colour = vary([34, 34, 38], 20);
      return (x, y, into) => {
        const sheen = 14 * noise(x / 160, y / 160);
        for (let each = 0; each < 3; each++) into[each] = colour[each] + sheen;
      };
    }
    case 'white': {
      const colour = vary([222, 220, 214], 16);
      return (x, y, into) => {
        const stain = 7 * (noise(x / 70, y / 70) - 0.5) + 2 * (noise(x / 2, y / 2) - 0.5);
        for (let each = 0; each < 3; each++) into[each] = colour[each] + stain;
      };
    }
    case 'checked': {
      const [one, other] = [vary([196, 60, 58], 60), vary([226, 220, 208], 20)];
      const side = 14 + random() * 26;
      return turned((x, y, into) => {
        const [across, down] = [odd(x / side), odd(y / side)];
        const share = (across ? 0.5 : 0) + (down ? 0.5 : 0);
        for (let each = 0; each < 3; each++) into[each] = one[each] * share + other[each] * (1 - share);
      });
    }
    case 'tiles': {
      const [tile, joint] = [vary([150, 156, 150], 80), vary([205, 200, 190], 30)];
      const side = 60 + random() * 60;
      return turned((x, y, into) => {
        const inJoint = within(x, side) < 1.6 || within(y, side) < 1.6;
        const cloud = 16 * (noise(x / 30, y / 30) - 0.5);
        for (let each = 0; each < 3; each++) into[each] = inJoint ? joint[each] : tile[each] + cloud;
      });
    }
    case 'stone': {
      const colour = vary([128, 126, 122], 60);
      return (x, y, into) => {
        const speck = 46 * (noise(x / 1.6, y / 1.6) - 0.5) + 26 * (noise(x / 6, y / 6) - 0.5);
        for (let each = 0; each < 3; each++) into[each] = colour[each] + speck;
      };
    }
  }
}

function planks(colour: Colour, noise: (x: number, y: number) => number, wide: number, seams: boolean): ColourAt {
  return (x, y, into) => {
    const plank = Math.floor(y / wide);
    const tone = 24 * (noise(plank * 7.3, 0.5) - 0.5);
    const grain =
      26 * (noise(x / 60 + plank * 31, y / 2.2) - 0.5) + 12 * Math.sin((y + 6 * noise(x / 80, y / 40)) * 1.3);
    const seam = seams && within(y, wide) < 0.9 ? 0.55 : 1;
    for (let each = 0; each < 3; each++) into[each] = (colour[each] + tone + grain) * seam;
  };
}

function odd(value: number): boolean {
  return (Math.floor(value) & 1) === 1;
}

function within(value: number, side: number): number {
  return value - Math.floor(value / side) * side;
}

const LATTICE = 256;

/** Smooth noise over the plane, 0 to 1 (value noise on a lattice, Perlin 1985 in its simplest form). */
function valueNoise(random: () => number): (x: number, y: number) => number {
  const values = Float32Array.from({ length: LATTICE * LATTICE }, random);
  const ease = (t: number) => t * t * (3 - 2 * t);
  return (x, y) => {
    const [left, top] = [Math.floor(x), Math.floor(y)];
    const [fx, fy] = [ease(x - left), ease(y - top)];
    const row = (top & (LATTICE - 1)) * LATTICE;
    const next = ((top + 1) & (LATTICE - 1)) * LATTICE;
    const [a, b] = [left & (LATTICE - 1), (left + 1) & (LATTICE - 1)];
    const upper = values[row + a] * (1 - fx) + values[row + b] * fx;
    const lower = values[next + a] * (1 - fx) + values[next + b] * fx;
    return upper * (1 - fy) + lower * fy;
  };
}
