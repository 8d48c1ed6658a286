export type { CleanUp, Gray, Matrix, Picture, Point, Quad, Rule } from './types.ts';
export { usualCleanUp } from './types.ts';
export { prepare, type Prepared } from './prepare.ts';
export { invert, multiply, project, rotation, squaring, turned, warp } from './geometry.ts';
export { wordsOfSeen, type SeenWord } from './seen.ts';
export { uncoveredInk } from './uncovered.ts';
export { crop } from './crop.ts';
export { spotOf } from './spot.ts';
