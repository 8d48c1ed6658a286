import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Dense } from '../../core/reading/learned/dense.ts';
import type { Model } from '../../core/reading/learned/model.ts';
import type { Learned, Steps } from '../../core/reading/learned/weights.ts';
import { itemTags, rowTags } from '../../core/reading/rows/tags.ts';
import { totalTags } from '../../core/reading/totals/tags.ts';
import { roles } from './head.ts';
import { packed } from './models.ts';

const written = (path: string, text: string) => writeFileSync(fileURLToPath(new URL(path, import.meta.url)), text);
const packs = (entries: [string, Model][]): string => `{
${entries.map(([name, model]) => `  ${name}: { step: ${packed(model).step}, bytes: '${packed(model).bytes}' },`).join('\n')}
}`;

const units = (rows: Dense['out']): string => `[\n${rows.map((r) => `      [${r.join(', ')}],\n`).join('')}    ]`;
const nets = (all: Learned['context']): string =>
  `{\n${Object.entries(all)
    .map(([name, { hidden, out }]) => `  ${name}: {\n    hidden: ${units(hidden)},\n    out: ${units(out)},\n  },\n`)
    .join('')}}`;

/** Writes how often values that rules found were right, by the rules' own score. */
export const writeMeasured = (shares: Record<string, Steps>, documents: number): void =>
  written(
    '../../core/reading/measured.ts',
    `import type { Calibration } from './calibration.ts';

/** The rules' own score up to which, and the share that was right: \`npm run learn\`, ${documents} documents, each by weights that never saw its family. */
export const measured: Calibration = ${JSON.stringify(shares)};
`,
  );

/** Writes what was learned into the modules that reading takes it from. */
export function write({ head, headRight, row, item, total, itemRight, context }: Learned, from: string): void {
  written(
    '../../core/reading/head/weights.ts',
    `import type { Packed } from '../learned/model.ts';

/** ${from} */
export const weights = ${packs(roles.map((role) => [role, head[role]]))} satisfies Record<string, Packed>;

/** By role: the share with which a value was chosen up to which, and how many such were right in families that were left out. */
export const shareRight: Record<keyof typeof weights, [number, number][]> = ${JSON.stringify(headRight)};
`,
  );
  written(
    '../../core/reading/rows/weights.ts',
    `import type { Packed } from '../learned/model.ts';
import type { ItemTag, RowTag } from './tags.ts';

/** What a printed row is. ${from} */
export const rowWeights: Record<RowTag, Packed> = ${packs(rowTags.map((tag, i) => [tag, row[i]!]))};

/** What a figure or word of a line is. */
export const itemWeights: Record<ItemTag, Packed> = ${packs(itemTags.map((tag, i) => [tag, item[i]!]))};

/** The share with which an item was told up to which, and how many such were right in families that were left out. */
export const itemRight: [number, number][] = ${JSON.stringify(itemRight)};
`,
  );
  written(
    '../../core/reading/rows/network.ts',
    `import type { Dense } from '../learned/dense.ts';

/** What a row, a figure and a word are among those round them: a row of weights a unit. ${from} */
// prettier-ignore
export const context: Record<'row' | 'figure' | 'word', Dense> = ${nets(context)};
`,
  );
  written(
    '../../core/reading/totals/weights.ts',
    `import type { Packed } from '../learned/model.ts';
import type { TotalTag } from './tags.ts';

/** What a figure beside the lines is. ${from} */
export const totalWeights: Record<TotalTag, Packed> = ${packs(totalTags.map((tag, i) => [tag, total[i]!]))};
`,
  );
}
