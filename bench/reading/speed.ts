// npm run bench: time to read made-up documents beside pdftotext on the same files, in the same run. Prints ratios.
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { takeApart } from '@ledgerline/core/pile';
import { readDocument } from '@ledgerline/core/reading';
import { makePdf } from '@ledgerline/documents/maker';
import { makeInvoice } from '@ledgerline/documents/invoice';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';
import { pagesOfPdf } from '@ledgerline/server/reading/pdf';

if (spawnSync('pdftotext', ['-v']).error) {
  console.error('pdftotext, which reading is compared with, is not installed: apt-get install poppler-utils, then start the bench again.');
  process.exit(1);
}
const folder = mkdtempSync(join(tmpdir(), 'ledgerline-bench-'));
const median = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
/** A process that reads all day has read as many as this before. */
const before = 60;
for (const [lines, files] of [
  [4, 24],
  [60, 15],
  [180, 15],
] as const) {
  const whole: number[] = [],
    core: number[] = [],
    peer: number[] = [];
  let printed = 0;
  // The first rounds warm up; the last is measured.
  for (let i = -before; i < files; i++) {
    const n = i + before;
    const bytes = await makePdf(makeInvoice(suppliers[n % 15]!, seeded(n), { number: `B-${n}1`, issueDate: '2026-11-16', lines }));
    const path = join(folder, `${lines}-${i}.pdf`);
    writeFileSync(path, bytes);
    const t0 = performance.now();
    const pages = await pagesOfPdf(bytes);
    const t1 = performance.now();
    for (const document of takeApart(pages)) readDocument(document);
    printed = pages.length;
    const t2 = performance.now();
    execFileSync('pdftotext', ['-bbox-layout', path, '/dev/null']);
    const t3 = performance.now();
    if (i < 0) continue;
    whole.push(t2 - t0);
    core.push(t2 - t1);
    peer.push(t3 - t2);
  }
  console.log(
    `${lines} lines on ${printed} ${printed === 1 ? 'page' : 'pages'}: whole ${median(whole).toFixed(1)} ms, core ${median(core).toFixed(1)} ms (${(median(core) / printed).toFixed(1)} a page), pdftotext ${median(peer).toFixed(1)} ms, ratio ${(median(whole) / median(peer)).toFixed(2)}`,
  );
}
rmSync(folder, { recursive: true });
