export { everies, fitsTurn, nextTurn, turnOf, type Every, type Rhythm, type Template } from './repeats.ts';
