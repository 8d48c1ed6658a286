export { formatCsv } from './csv.ts';
export { formatBlock, parseBlock } from './block.ts';
export { readFigures } from './figures.ts';
