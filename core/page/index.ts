export type { Box, TextRun, Word, Page, Row, Scan, Segment, Mark } from './types.ts';
export { wordsOf } from './words.ts';
export { typewriter, rowsOf, segmentsOf, segmentOf, union, textOf } from './rows.ts';
export { languageOf, languages, likelyLanguage, type Language } from './language.ts';
