// npm run bench:coding [-- --seed N] [--suppliers N] [--json]: how often the first suggestion for a posted line is right, on a made-up company
// (company.ts) and on the demo's two years. Eighteen months are learned; of the six after them each line is suggested first, then learned, as it
// is at work. Beside it, in the same run, the coding of the supplier's last line. Right: account, cost centre and tax code as they should be.
// --json: a last line { first, three, filledWrong, newThree, baselineFirst } of the made-up company, as shares.
import { parseArgs } from 'node:util';
import { addMonths } from '@ledgerline/core/dates';
import { codingFields as allFields, type Coding } from '@ledgerline/core/bills';
import { Memory, suggest, sure } from '@ledgerline/core/coding';
import { company, type PostedLine } from './company.ts';
import { demoLines } from './demo.ts';

/** What its companies are coded with. */
const codingFields = allFields.slice(0, 3);

const { values: option } = parseArgs({
  options: {
    seed: { type: 'string', default: '1' },
    suppliers: { type: 'string', default: '200' },
    json: { type: 'boolean', default: false },
  },
});

interface Score {
  lines: number;
  first: number;
  three: number;
  filled: number;
  filledWrong: number;
  newLines: number;
  newThree: number;
  baselineFirst: number;
  /** Of a bill of 200 lines, in milliseconds. */ bill: number;
}

function measure(posted: readonly PostedLine[]): Score {
  const from = addMonths(posted[0]!.line.day, 18),
    memory = new Memory();
  const s: Score = { lines: 0, first: 0, three: 0, filled: 0, filledWrong: 0, newLines: 0, newThree: 0, baselineFirst: 0, bill: 0 };
  const last = new Map<string, Coding>();
  /** Suppliers of whom nothing was posted before this day. */
  const begun = new Map<string, string>();
  for (const { line, coding, right } of posted) {
    const supplier = line.supplierId!;
    if (line.day >= from) {
      const said = suggest([{ ...line, taxRate: null }], memory, null, [])[0]!;
      s.lines++;
      const are = (of: Coding | undefined) => of !== undefined && codingFields.every((f) => of[f] === right[f]);
      const filled = codingFields.filter((f) => (said[f][0]?.share ?? 0) >= sure);
      if (codingFields.every((f) => said[f][0]?.id === right[f])) s.first++;
      if (codingFields.every((f) => said[f].some((o) => o.id === right[f]))) s.three++;
      if (filled.length === codingFields.length) s.filled++;
      if (filled.some((f) => said[f][0]!.id !== right[f])) s.filledWrong++;
      if (are(last.get(supplier))) s.baselineFirst++;
      if ((begun.get(supplier) ?? line.day) === line.day) {
        s.newLines++;
        if (said.accountId.some((o) => o.id === right.accountId)) s.newThree++;
      }
    }
    if (!begun.has(supplier)) begun.set(supplier, line.day);
    memory.learn(line, coding);
    last.set(supplier, coding);
  }
  // A bill of two hundred lines of one supplier, with all that was posted in sight; the least of five.
  const supplier = posted.at(-1)!.line.supplierId;
  const lines = Array.from({ length: 200 }, (_, i) => posted.filter((p) => p.line.supplierId === supplier)[i % 40] ?? posted[i]!);
  s.bill = Math.min(
    ...Array.from({ length: 5 }, () => {
      const start = performance.now();
      suggest(
        lines.map((p) => ({ ...p.line, taxRate: null })),
        memory,
        null,
        [],
      );
      return performance.now() - start;
    }),
  );
  return s;
}

const share = (of: number, all: number): number => Number((of / Math.max(1, all)).toFixed(4));
const percent = (of: number, all: number): string => `${(100 * share(of, all)).toFixed(1)}%`;
function say(name: string, s: Score): void {
  console.log(`${name}: ${s.lines} lines of the last six months`);
  console.log(
    `  first right ${percent(s.first, s.lines)} (as the supplier’s last line: ${percent(s.baselineFirst, s.lines)}), among three ${percent(s.three, s.lines)}`,
  );
  console.log(`  all three filled in ${percent(s.filled, s.lines)}, something filled in and wrong ${percent(s.filledWrong, s.lines)}`);
  console.log(`  suppliers with no history: account among three ${percent(s.newThree, s.newLines)} of ${s.newLines} lines`);
  console.log(`  a bill of 200 lines ${s.bill.toFixed(0)} ms`);
}

const made = measure(company(Number(option.seed), { suppliers: Number(option.suppliers) }));
say(`Made-up company of ${option.suppliers} suppliers (seed ${option.seed})`, made);
say('The demo’s two years', measure(demoLines()));
if (option.json)
  console.log(
    JSON.stringify({
      first: share(made.first, made.lines),
      three: share(made.three, made.lines),
      filledWrong: share(made.filledWrong, made.lines),
      newThree: share(made.newThree, made.newLines),
      baselineFirst: share(made.baselineFirst, made.lines),
    }),
  );
