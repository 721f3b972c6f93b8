import { writeFileSync } from 'node:fs';
import { gapEvidence, GapEvidence, GAP_SIGNS } from '@crow/core/sorting/gaps';
import { KeptPile, keptPiles } from './piles/kept';

/**
 * Fits what each sign between two pages is worth to made piles that have been read, and writes it down:
 * node scripts/bench.mjs trainSorting FOLDER [write]
 * Logistic regression by iterated least squares with a penalty; every fourth pile is held out, and the chances are then stretched so that they hold on
 * those (Platt 1999).
 */
const [folder, write] = process.argv.slice(2);
const PENALTY = 0.5;

interface Gap {
  x: number[];
  begins: boolean;
  pile: number;
  at: number;
}

const gaps = keptPiles(folder).flatMap(gapsOf);
const tuned = gaps.filter(({ pile }) => pile % 4 !== 0);
const held = gaps.filter(({ pile }) => pile % 4 === 0);
let weights = fitted(tuned);
const stretch = stretched(held, weights);
weights = weights.map((weight) => weight * stretch);
console.log(`${tuned.length} gaps tuned, ${held.length} held out, stretched by ${stretch.toFixed(2)}`);
report('tuned', tuned);
report('held out', held);
const readable = Object.fromEntries(GAP_SIGNS.map((sign, index) => [sign, Math.round(weights[index] * 100) / 100]));
console.log(JSON.stringify(readable));
if (write)
  writeFileSync(
    'core/sorting/gapWeights.ts',
    `import { GapEvidence } from './gaps';\n\n/** What each sign says for (above 0) or against a new document beginning: made by \`bench/trainSorting.ts\`. */\nexport const GAP_WEIGHTS: GapEvidence = ${JSON.stringify(
      readable,
      null,
      2,
    )
      .replace(/"(\w+)":/g, '$1:')
      .replace(/\n}$/, ',\n}')};\n`,
  );

function gapsOf({ seed, pages, documents }: KeptPile): Gap[] {
  const full = pages.flatMap((page, at) => (page.blank ? [] : [at]));
  return full.slice(1).map((at, index): Gap => {
    const before = full[index];
    const evidence = gapEvidence(pages[before], pages[at], pages.slice(before + 1, at));
    return { x: asRow(evidence), begins: documents[at] !== documents[before], pile: seed, at };
  });
}

function asRow(evidence: GapEvidence): number[] {
  return GAP_SIGNS.map((sign) => evidence[sign]);
}

function chanceOf(x: number[], by: number[]): number {
  return 1 / (1 + Math.exp(-x.reduce((sum, value, index) => sum + value * by[index], 0)));
}

function fitted(samples: Gap[]): number[] {
  const size = GAP_SIGNS.length;
  let found = new Array<number>(size).fill(0);
  for (let round = 0; round < 25; round++) {
    const gradient = found.map((weight) => -PENALTY * weight);
    const hessian = found.map((_, i) => Float64Array.from(found, (__, j) => (i === j ? PENALTY : 0)));
    for (const { x, begins } of samples) {
      const chance = chanceOf(x, found);
      const curve = Math.max(1e-6, chance * (1 - chance));
      for (let i = 0; i < size; i++) {
        if (x[i] === 0) continue;
        gradient[i] += x[i] * (Number(begins) - chance);
        for (let j = 0; j < size; j++) hessian[i][j] += curve * x[i] * x[j];
      }
    }
    const step = solved(hessian, gradient);
    found = found.map((weight, i) => weight + step[i]);
  }
  return found;
}

/** Gauss's elimination with pivots. */
function solved(matrix: Float64Array[], right: number[]): number[] {
  const rows = matrix.map((row, i) => [...row, right[i]]);
  for (let at = 0; at < rows.length; at++) {
    let pivot = at;
    for (let i = at; i < rows.length; i++) if (Math.abs(rows[i][at]) > Math.abs(rows[pivot][at])) pivot = i;
    [rows[at], rows[pivot]] = [rows[pivot], rows[at]];
    rows.forEach((row, i) => {
      if (i === at || row[at] === 0) return;
      const factor = row[at] / rows[at][at];
      for (let j = at; j < row.length; j++) row[j] -= factor * rows[at][j];
    });
  }
  return rows.map((row, i) => row[row.length - 1] / row[i]);
}

/** The factor on all weights with which the chances hold best. */
function stretched(samples: Gap[], by: number[]): number {
  let best = { factor: 1, loss: Infinity };
  for (let factor = 0.3; factor <= 1; factor += 0.02) {
    const loss = samples.reduce((sum, { x, begins }) => {
      const chance = chanceOf(
        x,
        by.map((weight) => weight * factor),
      );
      return sum - Math.log(Math.max(1e-9, begins ? chance : 1 - chance));
    }, 0);
    if (loss < best.loss) best = { factor, loss };
  }
  return best.factor;
}

function report(title: string, samples: Gap[]): void {
  const judged = samples.map((gap) => ({ ...gap, chance: chanceOf(gap.x, weights) }));
  const hits = judged.filter(({ begins, chance }) => begins && chance >= 0.5).length;
  const said = judged.filter(({ chance }) => chance >= 0.5).length;
  const real = judged.filter(({ begins }) => begins).length;
  console.log(title, `F1 ${((2 * hits) / (said + real)).toFixed(4)}, ${real} beginnings in ${judged.length} gaps`);
  for (const limit of [0.98, 0.99, 0.995]) {
    const sure = judged.filter(({ chance }) => chance >= limit || chance <= 1 - limit);
    const right = sure.filter(({ begins, chance }) => begins === chance >= 0.5).length;
    console.log(
      `  sure at ${limit}: ${((100 * sure.length) / judged.length).toFixed(1)} % of gaps, right ${(right / sure.length).toFixed(4)}`,
    );
  }
  if (title === 'held out')
    for (const { pile, at, chance, begins, x } of judged.filter((gap) => gap.begins !== gap.chance >= 0.5).slice(0, 40))
      console.log(
        `  wrong: pile ${pile} page ${at + 1} said ${chance.toFixed(2)} ${begins ? 'begins' : 'goes on'}: ${GAP_SIGNS.filter(
          (_, i) => x[i] > 0 && i > 0,
        )
          .map((sign) => sign)
          .join(' ')}`,
      );
}
