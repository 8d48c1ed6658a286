// node --import tsx bench/reading/mail.ts FOLDER : takes messages apart (.eml with .truth.json beside them) and compares what is an invoice.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { squash } from '@ledgerline/core/reading';
import { openMessage } from '../../server/arrivals/opening.ts';
import { fileType } from '../../server/reading/filetype.ts';
import { ReadingPool } from '../../server/reading/pool.ts';

const folder = process.argv[2]!;
const pool = new ReadingPool();
let right = 0,
  all = 0;
for (const name of readdirSync(folder)
  .filter((f) => f.endsWith('.eml'))
  .sort()) {
  const truth = JSON.parse(readFileSync(join(folder, name.replace('.eml', '.truth.json')), 'utf8')) as {
    invoices: string[];
    same?: string[][];
  };
  const invoices: { name: string; number: string | null; data: boolean }[] = [];
  for (const file of (await openMessage(readFileSync(join(folder, name)))).files) {
    if (file.inline || file.kept || !['pdf', 'xml', 'picture'].includes(fileType(file.bytes))) continue;
    const result = await pool.read(file.bytes, file.name);
    const part = result.ok ? result.parts.find((p) => p.reading.kind !== 'other' && p.shown !== 'small') : undefined;
    if (part) invoices.push({ name: file.name, number: part.reading.header.invoiceNumber?.value ?? null, data: part.shown === 'data' });
  }
  const same = invoices
    .filter((a) => a.data)
    .flatMap((a) =>
      invoices
        .filter((b) => !b.data && b.number && a.number && squash(a.number) === squash(b.number))
        .map((b) => [b.name, a.name].sort().join('+')),
    );
  const good =
    invoices
      .map((i) => i.name)
      .sort()
      .join() === [...truth.invoices].sort().join() &&
    same.sort().join() ===
      (truth.same ?? [])
        .map((pair) => [...pair].sort().join('+'))
        .sort()
        .join();
  all++;
  if (good) right++;
  console.log(
    `${good ? 'right' : 'WRONG'} ${name}: ${invoices.map((i) => i.name).join(', ') || 'nothing'}${same.length ? `; one bill: ${same.join(' ')}` : ''}`,
  );
}
await pool.close();
console.log(`${right} of ${all} messages right`);
