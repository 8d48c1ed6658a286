export { suggest, type Coding, type PastLine, type Suggestion, type RateCode } from './suggest.ts';
