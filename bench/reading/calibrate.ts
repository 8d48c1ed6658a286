// npm run bench:calibrate [-- --count N] : measures how often a value read with a raw confidence is right, and writes the table that makes
// the confidence shown the measured one. One document in five is rough: labels misprinted or unknown, stamps, pieces shifted. Other seeds check the result.
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { readDocument } from '@ledgerline/core/reading';
import { make } from './draw.ts';
import { rough } from './rough.ts';
import { score, type Judged } from './score.ts';

const { values: option } = parseArgs({
  options: { count: { type: 'string', default: '1500' }, check: { type: 'boolean', default: false } },
});
const count = Number(option.count);
const seeds = (from: number) => Array.from({ length: count }, (_, i) => from + i);
const read = (raw: boolean) => (m: ReturnType<typeof make>) => readDocument(m.sheet.pages(), { raw });
const judge = (from: number, raw: boolean): Judged[] => [
  ...score(seeds(from), read(raw)).judged,
  ...score(seeds(from + count).slice(0, count / 4), read(raw), rough).judged,
];

/** Pools neighbouring groups until the measured share rises with the raw confidence (isotonic regression), each with one doubt added. */
function pooled(list: Judged[]): [number, number][] {
  const groups: { raw: number; right: number; all: number }[] = [];
  for (const { confidence, right } of [...list].sort((a, b) => a.confidence - b.confidence)) {
    const last = groups[groups.length - 1];
    if (last && last.raw === confidence) {
      last.all++;
      last.right += right ? 1 : 0;
    } else groups.push({ raw: confidence, all: 1, right: right ? 1 : 0 });
    for (
      let a = groups.at(-2), b = groups.at(-1);
      a && b && (a.right / a.all >= b.right / b.all || a.all < 20);
      a = groups.at(-2), b = groups.at(-1)
    ) {
      a.all += b.all;
      a.right += b.right;
      a.raw = b.raw;
      groups.pop();
    }
  }
  return groups.map((g) => [g.raw, Number(Math.min(0.995, (g.right + 0.5) / (g.all + 1)).toFixed(3))]);
}

/** The head's facts are measured where they are learned (`bench/learn`). */
const fields = [
  'kind',
  'supplier.iban',
  'currency',
  'netTotal',
  'taxTotal',
  'grossTotal',
  'lines.code',
  'lines.description',
  'lines.quantity',
  'lines.unitPrice',
  'lines.discountPercent',
  'lines.taxRate',
  'lines.amount',
];
if (!option.check) {
  const judged = judge(200_001, true);
  const table = Object.fromEntries(fields.map((field) => [field, pooled(judged.filter((j) => j.path === field))]));
  const text = `import type { Calibration } from './calibration.ts';\n\n/**\n * Measured by \`npm run bench:calibrate\` on ${1.25 * count} made-up documents, one in five rough: raw confidence up to which, and share that was right.\n */\nexport const measured: Calibration = {\n${Object.entries(
    table,
  )
    .map(
      ([field, steps]) =>
        `  '${field}': ${JSON.stringify(steps)
          .replace(/,(?=\d)/g, ', ')
          .replace(/\],\[/g, '], [')},`,
    )
    .join('\n')}\n};\n`;
  writeFileSync(fileURLToPath(new URL('../../core/reading/measured.ts', import.meta.url)), text);
}
// The check: on other documents, what is said with a confidence should be right that often.
const checked = judge(400_001, false);
for (const [from, to] of [
  [0, 0.5],
  [0.5, 0.8],
  [0.8, 0.9],
  [0.9, 0.95],
  [0.95, 0.98],
  [0.98, 1.01],
] as const) {
  const band = checked.filter((j) => j.confidence >= from && j.confidence < to);
  if (band.length)
    console.log(
      `${from.toFixed(2)}–${Math.min(1, to).toFixed(2)}: ${band.length} values, said ${(band.reduce((t, j) => t + j.confidence, 0) / band.length).toFixed(3)}, right ${(band.filter((j) => j.right).length / band.length).toFixed(3)}`,
    );
}
