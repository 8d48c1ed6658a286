// npm run learn -- --folder DIR [--folder DIR …] [--families a,b] [--made N] [--strange N] [--folds N] [--read] [--show PATH] [--keep FILE] [--write]
// Learns what facts of the head, rows, items and totals look like, from samples with truth (files NAME.pdf with NAME.truth.json) and
// the maker. Families are dealt into parts; each part is left out in turn to measure; then, with --write, it is learned from all and
// written into core/reading (head/weights.ts, rows/weights.ts, rows/network.ts, totals/weights.ts). With --read every document is read by weights that never
// saw its family, and compared (with --write how sure its rules may be is measured, too); --show lists the faults whose path contains it. --keep keeps what was
// learned of single things in a file, or takes it from there: what stands among others is learned anew, and read by the rules of now.
import { fork } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { deserialize, serialize } from 'node:v8';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { readDocument } from '../../core/reading/index.ts';
import { readingBy, type Learned, type Steps } from '../../core/reading/learned/weights.ts';
import { itemTags, rowTags, type ItemTag, type RowTag } from '../../core/reading/rows/tags.ts';
import { totalTags, type TotalTag } from '../../core/reading/totals/tags.ts';
import { learnContext, type LeftOut } from './context.ts';
import type { FoldLearned, FoldsWanted } from './fold.ts';
import { foldOf, gather, type Wanted } from './gather.ts';
import { roles, type Role } from './head.ts';
import { measured, shares } from './measure.ts';
import { pooled } from './models.ts';
import { itemExamples, tell, totalExamples, type Told } from './rows.ts';
import { report } from './report.ts';
import { scored } from './score.ts';
import type { Sample } from './samples.ts';
import { write, writeMeasured } from './write.ts';

const { values: option } = parseArgs({
  options: {
    folder: { type: 'string', multiple: true, default: [] },
    families: { type: 'string' },
    folds: { type: 'string', default: '4' },
    made: { type: 'string', default: '0' },
    strange: { type: 'string', default: '0' },
    show: { type: 'string' },
    keep: { type: 'string' },
    read: { type: 'boolean', default: false },
    write: { type: 'boolean', default: false },
  },
});
const wanted: Wanted = {
  folders: option.folder,
  families: option.families?.split(',') ?? null,
  made: Number(option.made),
  strange: Number(option.strange),
  folds: Number(option.folds),
};
/** The part that stands for all documents: nothing is left out. */
const all = -1;

/** Learns each part in one of a few processes. */
async function inProcesses(folds: number[]): Promise<FoldLearned[]> {
  const count = Math.min(availableParallelism(), folds.length);
  const done = await Promise.all(
    Array.from({ length: count }, (_, n) => {
      const child = fork(fileURLToPath(new URL('./fold.ts', import.meta.url)), { serialization: 'advanced' });
      child.send({ wanted, folds: folds.filter((_fold, i) => i % count === n) } satisfies FoldsWanted);
      return new Promise<FoldLearned[]>((resolve, reject) => {
        const learned: FoldLearned[] = [];
        child.on('message', (one: FoldLearned) => learned.push(one));
        child.on('close', (code) => (code === 0 ? resolve(learned) : reject(new Error(`Learning ended with ${code}.`))));
      });
    }),
  );
  return done.flat();
}

/** In how many documents all that matters was told right, by models that were not learned from their family. */
function sayTags<Tag extends string>(
  what: string,
  told: readonly Told[],
  tags: readonly Tag[],
  truth: (t: Told) => number[],
  logs: LeftOut<Tag>,
  matters: (tag: Tag) => boolean,
): void {
  const right = told.filter((t, d) =>
    truth(t).every((tag, i) => {
      const best = tags.reduce((a, b) => (logs[d]![i]![b] > logs[d]![i]![a] ? b : a));
      return best === tags[tag] || !(matters(best) || matters(tags[tag]!));
    }),
  ).length;
  console.log(`${what.padEnd(14)} all right in ${right} of ${told.length} documents (${((100 * right) / told.length).toFixed(1)}%)`);
}

/** Weights by part, those from all documents under `all`. */
async function learnAll(): Promise<Map<number, Learned>> {
  const samples = await gather(wanted);
  console.log(`${samples.length} samples of ${new Set(samples.map((s) => s.family)).size} families`);
  const folds = Array.from({ length: wanted.folds }, (_, k) => k);
  const kept = option.keep && existsSync(option.keep) ? (deserialize(readFileSync(option.keep)) as FoldLearned[]) : null;
  const parts = kept ?? (await inProcesses(option.write ? [...folds, all] : folds));
  if (option.keep && !kept) writeFileSync(option.keep, serialize(parts));
  const said = parts.filter((p) => p.fold !== all);
  const headRight = {} as Record<Role, Steps>;
  for (const role of roles) {
    const judged = said.flatMap((p) => p.head[role]);
    const right = judged.filter((j) => j.right).length;
    console.log(`${role.padEnd(14)} ${right} of ${judged.length} (${((100 * right) / judged.length).toFixed(1)}%)`);
    headRight[role] = pooled(judged);
  }
  const told = samples.flatMap((s) => (s.truth.kind === 'other' || s.truth.lines.length === 0 ? [] : (tell(s) ?? [])));
  const rows: LeftOut<RowTag> = [],
    items: LeftOut<ItemTag> = [],
    totals: LeftOut<TotalTag> = [];
  for (const one of said.flatMap((p) => p.said)) [rows[one.at], items[one.at], totals[one.at]] = [one.rows, one.items, one.totals];
  const tagsOf = (t: Told) => t.tags.map((tag) => rowTags.indexOf(tag));
  sayTags('rows of lines', told, rowTags, tagsOf, rows, (tag) => tag === 'line');
  sayTags(
    'items',
    told,
    itemTags,
    (t) => itemExamples(t).map((e) => e.tag),
    items,
    (tag) => tag !== 'other',
  );
  sayTags(
    'totals',
    told,
    totalTags,
    (t) => totalExamples(t).map((e) => e.tag),
    totals,
    () => true,
  );
  const context = learnContext(told, (t) => foldOf(t.sample.family, wanted.folds), rows, items);
  const itemRight = pooled(context.judged);
  return new Map(
    parts.map(({ fold, models }) => [fold, { ...models, headRight, itemRight, context: context.without.get(fold) ?? context.all }]),
  );
}

const learned = await learnAll();
if (option.write) {
  const samples = await gather(wanted);
  write(
    learned.get(all)!,
    `Learned by \`npm run learn\` from ${samples.length} documents of ${new Set(samples.map((s) => s.family)).size} families.`,
  );
}
if (option.read) {
  const samples = await gather({ ...wanted, made: 0 });
  const read = (sample: Sample, raw = false) =>
    readingBy(learned.get(foldOf(sample.family, wanted.folds))!, () => readDocument(sample.pages, { raw }));
  report(
    samples.map((sample) => ({ sample, score: scored(sample, read(sample)) })),
    option.show,
  );
  // Scores of rules are measured last: what was learned is weighed in them.
  if (option.write) writeMeasured(shares(samples.flatMap((sample) => measured(sample, read(sample, true), read(sample)))), samples.length);
}
