export { takeApart, renumber } from './pile.ts';
