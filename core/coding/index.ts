export { contextsOf, tellingWords, type ContextKind, type Contexts, type Standing } from './contexts.ts';
export { Memory, remembered } from './memory.ts';
export { Counts, rank, type Because, type Ranked } from './rank.ts';
export { suggest, withAccountTax, sure, type LineToCode, type Option, type RateCode, type Suggestions } from './suggest.ts';
export { codingFields, type Coded, type Coding, type CodingField, type History, type LineSaid } from './types.ts';
export { whyOf } from './why.ts';
