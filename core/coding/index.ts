export { contextsOf, tellingWords, type ContextKind, type Contexts, type Standing } from './contexts.ts';
export { Memory, remembered } from './memory.ts';
export { Counts, rank, type Because, type Ranked } from './rank.ts';
export { suggest, withFollowing, sure, type LineToCode, type Option, type RateCode, type Suggestions, type With } from './suggest.ts';
export type { Coded, Coding, CodingField, History, LineSaid } from './types.ts';
export { alternatives, ruled, rules, withRules, type CodingRule } from './rules.ts';
export { itemOf, withDefault, withItems, type Item } from './less-trusted.ts';
export { withOrdered, type Ordered } from './ordered.ts';
export { whyOf } from './why.ts';
