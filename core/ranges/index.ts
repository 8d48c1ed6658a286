export { formatRanges, inRanges, parseRanges, type Range } from './ranges.ts';
