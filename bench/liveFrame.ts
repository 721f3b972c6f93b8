import sharp from 'sharp';
import { findOutlines } from '@crow/core/imaging/outline/findOutlines';
import { rgbRaster } from '@crow/demo/capture';

/** Times outlines of frames of 1280 × 720: node scripts/bench.mjs liveFrame FILE… */
const times: number[] = [];
for (const file of process.argv.slice(2)) {
  const frame = await rgbRaster(sharp(file).resize(1280, 720, { fit: 'cover' }));
  for (let again = 0; again < 10; again++) {
    const began = performance.now();
    findOutlines(frame, { quick: true, most: 1 });
    times.push(performance.now() - began);
  }
}
times.sort((a, b) => a - b);
const at = (share: number) => times[Math.floor(share * (times.length - 1))].toFixed(1);
console.log(`median ${at(0.5)} ms, 95th percentile ${at(0.95)} ms, of ${times.length} frames`);
