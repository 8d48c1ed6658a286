export type { Box, TextRun, Word, Page, Row, Segment, Mark } from './types.ts';
export { wordsOf } from './words.ts';
export { rowsOf, segmentsOf, segmentOf, union, textOf } from './rows.ts';
