// npm run bench:ink -- [--from N] [--count N] : how often a word is right for how sure the recogniser was of it, over made-up pages on worn paper.
// What `inkConfidence` (core/reading/secondlook.ts) says is set from this. Also tells how many words of the pages were read at all.
import { parseArgs } from 'node:util';
import { wordsOfSeen } from '@ledgerline/core/imaging';
import { Ocr } from '../../server/imaging/ocr.ts';
import { prepareSheet, recognise, sheetOf } from '../../server/imaging/scan.ts';
import { contentOfPdf } from '../../server/reading/pdf.ts';
import { kinds, wornDocument } from './worn.ts';

const { values: option } = parseArgs({
  options: { from: { type: 'string', default: '600001' }, count: { type: 'string', default: '12' } },
});
const steps = [0, 0.5, 0.6, 0.7, 0.8, 0.85, 0.9, 0.93, 0.96, 1.01];
const plain = (text: string) => text.normalize('NFKC').replace(/[‘’]/g, "'").replace(/[–—]/g, '-');
const telling = (text: string) => /[\p{L}\p{N}]/u.test(text);

const ocr = new Ocr();
const bins = steps.map(() => ({ all: 0, right: 0, figures: 0, figuresRight: 0 }));
for (const kind of kinds) {
  let there = 0,
    found = 0;
  for (let i = 0; i < Number(option.count); i++) {
    const { made, file } = await wornDocument(Number(option.from) + i, kind, 1);
    const { pages } = await contentOfPdf(await made.sheet.pdf());
    const left = new Map<string, number>();
    for (const text of pages[0]!.words.flatMap((w) => plain(w.text).split(/\s+/)).filter(telling)) {
      left.set(text, (left.get(text) ?? 0) + 1);
      there++;
    }
    const ready = prepareSheet(await sheetOf(file, 1), null);
    const { seen } = await recognise(ocr, ready.gray, ready.dpi, 'eng');
    for (const { text, sure = 0 } of wordsOfSeen(seen, ready.dpi)) {
      if (!telling(text)) continue;
      const right = (left.get(plain(text)) ?? 0) > 0,
        bin = bins[steps.findLastIndex((s) => sure >= s)]!;
      if (right) {
        left.set(plain(text), left.get(plain(text))! - 1);
        found++;
        bin.right++;
      }
      bin.all++;
      if (/\d/.test(text)) {
        bin.figures++;
        if (right) bin.figuresRight++;
      }
    }
  }
  console.log(`${kind}: ${there} words on ${option.count} pages, ${((100 * found) / there).toFixed(1)}% read as they stand`);
}
await ocr.close();
const share = (a: number, b: number) => (b === 0 ? '-' : `${((100 * a) / b).toFixed(1)}%`);
for (const [i, bin] of bins.entries())
  if (bin.all > 0)
    console.log(
      `sure ${steps[i]!.toFixed(2)}–${Math.min(1, steps[i + 1]!).toFixed(2)}: ${bin.all} words, right ${share(bin.right, bin.all)}; ${bin.figures} figures and codes, right ${share(bin.figuresRight, bin.figures)}`,
    );
