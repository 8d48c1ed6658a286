// npm run bench:fuzz [-- --count N --from SEED] : damages made-up PDFs, e-invoices and pictures, seeded, and reads them as the server does. Each must
// be answered within the limit: read, or refused in words.
import { parseArgs } from 'node:util';
import { ciiOf, hybridOf, ublOf } from '@ledgerline/documents/einvoice';
import { makeInvoice } from '@ledgerline/documents/invoice';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';
import { ReadingPool } from '../../server/reading/pool.ts';
import { make } from './draw.ts';
import { damaged } from './damage.ts';

const { values: option } = parseArgs({ options: { count: { type: 'string', default: '3000' }, from: { type: 'string', default: '1' } } });
const pool = new ReadingPool(2, { seconds: 10, megabytes: 768, bytes: 40 * 1024 * 1024 });
const answers = new Map<string, number>();
let slowest = 0;
const whole: Uint8Array[] = [];
for (let i = 0; i < 60; i++) {
  const invoice = makeInvoice(suppliers[i % suppliers.length]!, seeded(i), { number: `F-${i}`, issueDate: '2026-11-16' });
  whole.push(
    await make(700_000 + i).sheet.pdf(),
    new TextEncoder().encode(ublOf(invoice)),
    new TextEncoder().encode(ciiOf(invoice)),
    await hybridOf(invoice),
  );
}
const from = Number(option.from),
  count = Number(option.count);
async function lane(start: number): Promise<void> {
  for (let seed = start; seed < from + count; seed += 2) {
    const t = performance.now();
    const result = await pool.read(damaged(whole[seed % whole.length]!, seed));
    slowest = Math.max(slowest, performance.now() - t);
    const answer = result.ok ? 'read' : result.fault;
    answers.set(answer, (answers.get(answer) ?? 0) + 1);
  }
}
await Promise.all([lane(from), lane(from + 1)]);
await pool.close();
console.log(
  `${count} damaged files, slowest ${(slowest / 1000).toFixed(2)} s:`,
  Object.fromEntries([...answers].sort((a, b) => b[1] - a[1])),
);
