export { gradients } from './edges';
export { reserve, shrink, warp } from './pixels';
export { below, curve, onlyGrey, resample, runs, transpose } from './reading';
export { darker, evenColour, evenGrey, grey, paperCells, smooth } from './tones';
