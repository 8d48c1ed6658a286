export { shownOf, valueAt } from './held';
export { keepTyped, typedBefore } from './kept';
export { Saver, type Outside } from './saver';
export { chosen, deskSlice, edited, givenUp, named, opened, redone, undone } from './slice';
export type { Clash, DeskState, Held, SaveState } from './types';
