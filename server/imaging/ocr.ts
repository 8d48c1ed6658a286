import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { createWorker, OEM, PSM, type Worker, type WorkerParams } from 'tesseract.js';
import type { Gray, SeenWord } from '@ledgerline/core/imaging';
import type { Language } from '@ledgerline/core/page';

const require = createRequire(import.meta.url);
/** How text is looked for: anywhere on a page, as one line, or as a block of rows. */
const modes = { sparse: PSM.SPARSE_TEXT, line: PSM.SINGLE_LINE, block: PSM.SINGLE_BLOCK };
export type Mode = keyof typeof modes;

/** Portable grey map (Netpbm P5): the plainest picture format that the engine opens. */
function pgm({ width, height, data }: Gray): Buffer {
  return Buffer.concat([Buffer.from(`P5\n${width} ${height}\n255\n`), data]);
}

/** Engines kept at once: English, in which a page's language is guessed, that of the page in hand, and one more; each takes some 80 MB. */
const mostEngines = 3;

/** The character recogniser: an engine for each language in use, in a thread of its own. */
export class Ocr {
  /** The one used longest ago comes first. */
  readonly #engines = new Map<Language, Worker>();
  /** What each engine was told last. */
  readonly #told = new WeakMap<Worker, string>();

  /** Loads the engine for a language, so that what is read next need not wait for it. */
  async load(language: Language): Promise<void> {
    await this.#ready(language);
  }

  async #ready(language: Language): Promise<Worker> {
    const there = this.#engines.get(language);
    this.#engines.delete(language);
    for (const [other, old] of this.#engines) {
      if (this.#engines.size < mostEngines) break;
      this.#engines.delete(other);
      await old.terminate();
    }
    const folder = join(dirname(require.resolve(`@tesseract.js-data/${language}/package.json`)), '4.0.0_best_int');
    const worker = there ?? (await createWorker(language, OEM.LSTM_ONLY, { langPath: folder, gzip: true, cacheMethod: 'none' }));
    this.#engines.set(language, worker);
    return worker;
  }

  /**
   * Recognises the text of a picture; `only` limits it to given characters. Boxes are in pixels of the picture. `meanwhile` is done while
   * the engine works, which has a thread of its own.
   */
  async read(
    gray: Gray,
    { language = 'eng', mode = 'sparse', dpi = 300, only = '' }: { language?: Language; mode?: Mode; dpi?: number; only?: string } = {},
    meanwhile?: () => void,
  ): Promise<SeenWord[]> {
    const worker = await this.#ready(language);
    const told = `${mode} ${dpi} ${only}`;
    if (this.#told.get(worker) !== told)
      await worker.setParameters({
        tessedit_pageseg_mode: modes[mode],
        user_defined_dpi: String(dpi),
        tessedit_char_whitelist: only,
        debug_file: '/dev/null',
      } as Partial<WorkerParams>);
    this.#told.set(worker, told);
    const answer = worker.recognize(pgm(gray), {}, { blocks: true, text: false });
    if (meanwhile) {
      // A failure in between is met below.
      answer.catch(() => undefined);
      // The picture is on its way to the engine only after what is due now.
      await new Promise((due) => setImmediate(due));
      meanwhile();
    }
    const { data } = await answer;
    const words: SeenWord[] = [];
    let count = 0;
    for (const block of data.blocks ?? [])
      for (const paragraph of block.paragraphs)
        for (const line of paragraph.lines) {
          const { x0: left, y0: from, x1: right, y1: to } = line.baseline;
          const slope = right === left ? 0 : (to - from) / (right - left);
          for (const { text, confidence, bbox } of line.words)
            words.push({ text, confidence: confidence / 100, ...bbox, base: from + slope * ((bbox.x0 + bbox.x1) / 2 - left), line: count });
          count++;
        }
    return words;
  }

  async close(): Promise<void> {
    for (const worker of this.#engines.values()) await worker.terminate();
    this.#engines.clear();
  }
}
