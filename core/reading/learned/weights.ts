import { shareRight, weights } from '../head/weights.ts';
import { context } from '../rows/network.ts';
import { itemRight, itemWeights, rowWeights } from '../rows/weights.ts';
import { itemTags, rowTags } from '../rows/tags.ts';
import { totalTags } from '../totals/tags.ts';
import { totalWeights } from '../totals/weights.ts';
import type { Dense } from './dense.ts';
import { unpack, type Model, type Packed } from './model.ts';

export type Role = keyof typeof weights;
/** Shares up to which, and how many of what was said with such a share were right, rising. */
export type Steps = readonly (readonly [upTo: number, right: number])[];

/** All that was learned: weights by role, by what a row, an item and a total can be, and how sure each is. */
export interface Learned {
  head: Record<Role, Model>;
  headRight: Record<Role, Steps>;
  row: Model[];
  item: Model[];
  total: Model[];
  itemRight: Steps;
  context: Record<'row' | 'figure' | 'word', Dense>;
}

const unpacked = (): Learned => ({
  head: Object.fromEntries(Object.entries<Packed>(weights).map(([role, packed]) => [role, unpack(packed)])) as Record<Role, Model>,
  headRight: shareRight,
  row: rowTags.map((tag) => unpack(rowWeights[tag])),
  item: itemTags.map((tag) => unpack(itemWeights[tag])),
  total: totalTags.map((tag) => unpack(totalWeights[tag])),
  itemRight,
  context,
});

let own: Learned | null = null,
  other: Learned | null = null;

/** What reading goes by: unpacked from the repository at first use. */
export const learned = (): Learned => other ?? (own ??= unpacked());

/** Reads by other weights: to measure on documents what was learned without them. */
export function readingBy<R>(weightsOf: Learned, read: () => R): R {
  other = weightsOf;
  try {
    return read();
  } finally {
    other = null;
  }
}
