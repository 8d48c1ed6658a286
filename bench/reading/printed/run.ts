// npm run bench:printed -- [--from N] [--count N] [--show PATH]: documents of the maker's strange structures as three PDF libraries and a
// browser print them, read from these files.
import { parseArgs } from 'node:util';
import { readDocument } from '@ledgerline/core/reading';
import { contentOfPdf } from '../../../server/reading/pdf.ts';
import { report } from '../../learn/report.ts';
import { strangeSamples } from '../../learn/samples.ts';
import { scored } from '../../learn/score.ts';
import { strange } from '../strange/index.ts';
import { openPrinters } from './printers.ts';

const { values: option } = parseArgs({
  options: { from: { type: 'string', default: '500001' }, count: { type: 'string', default: '40' }, show: { type: 'string' } },
});
const from = Number(option.from);
const { printers, close } = await openPrinters();
try {
  for (const [name, print] of Object.entries(printers)) {
    const read = [];
    for (const [i, sample] of strangeSamples(Number(option.count), from).entries()) {
      const { pages } = await contentOfPdf(await print(strange(from + i).sheet));
      read.push({ sample, score: scored(sample, readDocument(pages)) });
    }
    console.log(name);
    report(read, option.show);
  }
} finally {
  await close();
}
