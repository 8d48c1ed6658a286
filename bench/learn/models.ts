import { buckets } from '../../core/reading/learned/features.ts';
import type { Model, Packed } from '../../core/reading/learned/model.ts';
import type { Learned, Steps } from '../../core/reading/learned/weights.ts';
import { itemTags, rowTags } from '../../core/reading/rows/tags.ts';
import { totalTags } from '../../core/reading/totals/tags.ts';
import { roles, tasksOf, type Role, type Task } from './head.ts';
import { learn, learnTags, type Example } from './optimise.ts';
import { itemExamples, rowExamples, tell, totalExamples, type Told } from './rows.ts';
import type { Sample } from './samples.ts';

/** Right or wrong of what was said with which share. */
export interface Judged {
  share: number;
  right: boolean;
}
/** The models of single things; what is told among others is learned from what these say. */
export type Alone = Pick<Learned, 'head' | 'row' | 'item' | 'total'>;

/** All there is to learn from documents. */
export interface Material {
  tasks: Record<Role, Task[]>;
  told: Told[];
  rows: Example[][];
  items: Example[][];
  totals: Example[][];
}

export function materialOf(samples: readonly Sample[]): Material {
  const tasks = tasksOf(samples);
  // Numbers under labels that mean nothing teach to trust no label: with them unseen layouts were read worse.
  tasks.invoiceNumber = tasks.invoiceNumber.filter((t) => !t.family.startsWith('strange '));
  const told = samples.flatMap((s) => (s.truth.kind === 'other' || s.truth.lines.length === 0 ? [] : (tell(s) ?? [])));
  return { tasks, told, rows: told.map(rowExamples), items: told.map(itemExamples), totals: told.map(totalExamples) };
}

/** Weights as they are kept: signed bytes. */
export const quantised = (weights: Float32Array): Model => {
  const step = Math.max(...weights.map(Math.abs)) / 127 || 1;
  return { step: Number(step.toPrecision(6)), weights: Int8Array.from(weights, (w) => Math.round(w / step)) };
};
export const packed = ({ step, weights }: Model): Packed => ({
  step,
  bytes: Buffer.from(weights.buffer, weights.byteOffset, buckets).toString('base64'),
});

/** How words and labels are kept from each model: rows are told less by words than items are. */
const manner = { row: { rounds: 24, unheard: 0.1 }, item: { rounds: 8 }, total: { rounds: 12 } };

/** What is learned from all documents but those of some families. */
export function learnAlone({ tasks, told, rows, items, totals }: Material, without: ReadonlySet<string>): Alone {
  const kept = <E>(list: E[][]) => list.flatMap((e, i) => (without.has(told[i]!.sample.family) ? [] : e));
  const head = (role: Role) => quantised(learn(tasks[role].filter((t) => !without.has(t.family)).map((t) => t.choice)));
  return {
    head: Object.fromEntries(roles.map((role) => [role, head(role)])) as Record<Role, Model>,
    row: learnTags(kept(rows), rowTags.length, manner.row).map(quantised),
    item: learnTags(kept(items), itemTags.length, manner.item).map(quantised),
    total: learnTags(kept(totals), totalTags.length, manner.total).map(quantised),
  };
}

/** Of fewer values no share is told. */
const fewest = 12;

/** Shares up to which, with the share of right ones, rising: neighbours are pooled until it rises (isotonic regression), each with one doubt. */
export function pooled(judged: readonly Judged[]): Steps {
  const groups: { upTo: number; right: number; all: number }[] = [];
  const unite = () => {
    const [a, b] = [groups.at(-2)!, groups.pop()!];
    a.upTo = b.upTo;
    a.right += b.right;
    a.all += b.all;
  };
  const falls = () => {
    const [a, b] = [groups.at(-2), groups.at(-1)];
    return a !== undefined && b !== undefined && (a.right / a.all >= b.right / b.all || a.all < fewest);
  };
  for (const { share, right } of [...judged].sort((a, b) => a.share - b.share)) {
    groups.push({ upTo: share, right: right ? 1 : 0, all: 1 });
    // What has the same share stands together before it is compared.
    if (groups.at(-2)?.upTo === share) unite();
  }
  const single = groups.splice(0);
  for (const group of single) {
    groups.push(group);
    while (falls()) unite();
  }
  while (groups.length > 1 && groups.at(-1)!.all < fewest) {
    unite();
    while (falls()) unite();
  }
  return groups.map((g) => [Number(g.upTo.toFixed(4)), Number(Math.min(0.995, (g.right + 0.3) / (g.all + 1)).toFixed(3))]);
}
