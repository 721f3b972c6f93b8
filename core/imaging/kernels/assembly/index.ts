export { binarise, tonesOfPrint } from './counts';
export { gradients } from './edges';
export { bareSums, sharpInk } from './layers';
export { reserve, shrink, warp } from './pixels';
export { below, curve, onlyGrey, resample, runs, transpose } from './reading';
export { darker, evenColour, evenGrey, grey, likeMeans, paperCells, smooth } from './tones';
