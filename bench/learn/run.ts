// npm run learn -- --folder DIR [--folder DIR …] [--families a,b,c] [--made N] [--strange N] [--folds N] [--write]: learns the weights of the head's facts from samples with truth.
// Whole families are left out in turn: what is printed, and the confidence that is written, is of documents that were not learned from.
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { ranked } from '../../core/reading/head/index.ts';
import { buckets } from '../../core/reading/learned/features.ts';
import { type Model, type Packed } from '../../core/reading/learned/model.ts';
import type { LogShares } from '../../core/reading/rows/models.ts';
import { itemTags, rowTags } from '../../core/reading/rows/tags.ts';
import { totalTags } from '../../core/reading/totals/features.ts';
import { roles, tasksOf, type Role } from './head.ts';
import { learnContext, logShares } from './context.ts';
import { learn, learnTags, type Example } from './optimise.ts';
import { itemExamples, rowExamples, tell, totalExamples } from './rows.ts';
import { madeSamples, samplesOf, strangeSamples } from './samples.ts';

const { values: option } = parseArgs({
  options: {
    folder: { type: 'string', multiple: true, default: [] },
    families: { type: 'string' },
    folds: { type: 'string', default: '6' },
    made: { type: 'string', default: '0' },
    strange: { type: 'string', default: '0' },
    show: { type: 'string', default: '0' },
    write: { type: 'boolean', default: false },
  },
});
const samples = [
  ...(await samplesOf(option.folder, option.families?.split(','))),
  ...madeSamples(Number(option.made)),
  ...strangeSamples(Number(option.strange)),
];
const tasks = tasksOf(samples);
// Numbers under labels that mean nothing teach to trust no label: with them unseen layouts were read worse.
tasks.invoiceNumber = tasks.invoiceNumber.filter((t) => !t.family.startsWith('strange '));
const families = [...new Set(samples.map((s) => s.family))].sort();
console.log(`${samples.length} samples of ${families.length} families`);

const foldOf = (t: { sample: { family: string } }): number => families.indexOf(t.sample.family) % Number(option.folds);

const quantised = (weights: Float32Array): Model => {
  const step = Math.max(...weights.map(Math.abs)) / 127 || 1;
  return { step, weights: Int8Array.from(weights, (w) => Math.round(w / step)) };
};
const packed = ({ step, weights }: Model): Packed => ({
  step: Number(step.toPrecision(6)),
  bytes: Buffer.from(weights.buffer, 0, buckets).toString('base64'),
});

/** Right or wrong of what was said with which share, by documents of families that were not learned from. */
function leftOut(role: Role): { share: number; right: boolean }[] {
  const judged: { share: number; right: boolean }[] = [];
  const bad: string[] = [];
  let reached = 0;
  for (let fold = 0; fold < Number(option.folds); fold++) {
    const out = new Set(families.filter((_, i) => i % Number(option.folds) === fold));
    const model = quantised(learn(tasks[role].filter((t) => !out.has(t.family)).map((t) => t.choice)));
    for (const t of tasks[role].filter((one) => out.has(one.family))) {
      const [top] = ranked(model, t.choice.features, t.values);
      if (!top) continue;
      const right = t.choice.right.some((r, i) => r && t.values[i] === top.value);
      if (t.choice.right.includes(true)) reached++;
      judged.push({ share: top.share, right });
      if (!right) bad.push(`  ${t.name}: ${top.value} (${top.share.toFixed(2)}), not ${t.truth}`);
    }
  }
  const right = judged.filter((j) => j.right).length;
  console.log(`${role.padEnd(14)} ${right} of ${judged.length} (${((100 * right) / judged.length).toFixed(1)}%), reachable ${reached}`);
  for (const line of bad.slice(0, Number(option.show))) console.log(line);
  return judged;
}

/** Shares up to which, with the share of right ones, rising: neighbours are pooled until it rises (isotonic regression), each with one doubt. */
function pooled(judged: { share: number; right: boolean }[]): [number, number][] {
  const groups: { upTo: number; right: number; all: number }[] = [];
  for (const { share, right } of [...judged].sort((a, b) => a.share - b.share)) {
    groups.push({ upTo: share, right: right ? 1 : 0, all: 1 });
    for (
      let a = groups.at(-2), b = groups.at(-1);
      a && b && (a.right / a.all >= b.right / b.all || a.all < 12);
      a = groups.at(-2), b = groups.at(-1)
    ) {
      a.upTo = b.upTo;
      a.right += b.right;
      a.all += b.all;
      groups.pop();
    }
  }
  return groups.map((g) => [Number(g.upTo.toFixed(4)), Number(Math.min(0.995, (g.right + 0.3) / (g.all + 1)).toFixed(3))]);
}

/** Documents whose printed rows the truth tells, with what is seen of rows and items. */
const told = samples.flatMap((s) => (s.truth.kind === 'other' || s.truth.lines.length === 0 ? [] : (tell(s) ?? [])));
const rows = told.map(rowExamples),
  items = told.map(itemExamples),
  totals = told.map(totalExamples);
console.log(`${told.length} documents whose lines are found on the page`);

/** How words and labels are kept from each model: rows are told less by words than items are. */
const manner = { row: { rounds: 24, unheard: 0.1 }, item: { rounds: 8 }, total: { rounds: 12 } };

/** What models that were not learned from a document's family say of it, and in how many documents all of it is right. */
function leftOutTags<Tag extends string>(
  what: string,
  examples: Example[][],
  tags: readonly Tag[],
  matters: (tag: number) => boolean,
  how: { rounds: number; unheard?: number },
): LogShares<Tag>[][] {
  let right = 0;
  const said: LogShares<Tag>[][] = [];
  const bad: string[] = [];
  for (let fold = 0; fold < Number(option.folds); fold++) {
    const models = learnTags(
      examples.flatMap((e, i) => (foldOf(told[i]!) === fold ? [] : e)),
      tags.length,
      how,
    ).map(quantised);
    for (const [i, own] of examples.entries()) {
      if (foldOf(told[i]!) !== fold) continue;
      said[i] = own.map(({ features }) => logShares(tags, models, features));
      const wrong = own.filter(({ tag }, k) => {
        const best = tags.indexOf(tags.reduce((a, t) => (said[i]![k]![t] > said[i]![k]![a] ? t : a)));
        return best !== tag && (matters(tag) || matters(best));
      }).length;
      if (wrong === 0) right++;
      else bad.push(`  ${told[i]!.sample.name}: ${wrong} of ${own.length} wrong`);
    }
  }
  console.log(`${what.padEnd(14)} all right in ${right} of ${told.length} documents (${((100 * right) / told.length).toFixed(1)}%)`);
  for (const line of bad.slice(0, Number(option.show))) console.log(line);
  return said;
}

const written = (path: string, text: string) => writeFileSync(fileURLToPath(new URL(path, import.meta.url)), text);
const packs = (entries: [string, Model][]): string => `{
${entries.map(([name, model]) => `  ${name}: { step: ${packed(model).step}, bytes: '${packed(model).bytes}' },`).join('\n')}
}`;
const learnedFrom = `Learned by \`npm run learn\` from ${samples.length} documents of ${families.length} families.`;

const rowsSaid = leftOutTags('rows of lines', rows, rowTags, (tag) => rowTags[tag] === 'line', manner.row);
const itemsSaid = leftOutTags('items', items, itemTags, (tag) => itemTags[tag] !== 'other', manner.item);
leftOutTags('totals', totals, totalTags, () => true, manner.total);
const { context, judged } = learnContext(told, foldOf, rowsSaid, itemsSaid);
const itemRight = pooled(judged);
const weights: [string, Model][] = [],
  shareRight: Partial<Record<Role, [number, number][]>> = {};
for (const role of roles) {
  shareRight[role] = pooled(leftOut(role));
  if (option.write) weights.push([role, quantised(learn(tasks[role].map((t) => t.choice)))]);
}
if (option.write) {
  written(
    '../../core/reading/head/weights.ts',
    `import type { Packed } from '../learned/model.ts';

/** ${learnedFrom} */
export const weights = ${packs(weights)} satisfies Record<string, Packed>;

/** By role: the share with which a value was chosen up to which, and how many such were right in families that were left out. */
export const shareRight: Record<keyof typeof weights, [number, number][]> = ${JSON.stringify(shareRight)};
`,
  );
  const row = learnTags(rows.flat(), rowTags.length, manner.row).map(quantised),
    item = learnTags(items.flat(), itemTags.length, manner.item).map(quantised),
    total = learnTags(totals.flat(), totalTags.length, manner.total).map(quantised);
  written(
    '../../core/reading/rows/weights.ts',
    `import type { Dense } from '../learned/dense.ts';
import type { Packed } from '../learned/model.ts';
import type { TotalTag } from '../totals/features.ts';
import type { ItemTag, RowTag } from './tags.ts';

/** What a printed row is. ${learnedFrom} */
export const rowWeights: Record<RowTag, Packed> = ${packs(rowTags.map((tag, i) => [tag, row[i]!]))};

/** What a figure or word of a line is. */
export const itemWeights: Record<ItemTag, Packed> = ${packs(itemTags.map((tag, i) => [tag, item[i]!]))};

/** The share with which an item was told up to which, and how many such were right in families that were left out. */
export const itemRight: [number, number][] = ${JSON.stringify(itemRight)};

/** What a row, a figure and a word are among those round them. */
export const context: Record<'row' | 'figure' | 'word', Dense> = ${JSON.stringify(context)};

/** What a figure beside the lines is. */
export const totalWeights: Record<TotalTag, Packed> = ${packs(totalTags.map((tag, i) => [tag, total[i]!]))};
`,
  );
}
