export { gradients } from './edges';
export { reserve, shrink, warp } from './pixels';
export { darker, evenColour, evenGrey, grey, paperCells, smooth } from './tones';
