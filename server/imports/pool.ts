import { ProcessPool } from '../processes/pool.ts';
import type { Sheet } from './sheet.ts';

interface FileAsk {
  bytes: Uint8Array;
  list: string;
  /** The company's currency. */ base: string;
}
export type SheetAsk = FileAsk | { sheet: Sheet };
export type SheetAnswer = { sheet: Sheet } | { book: Uint8Array } | { wrong: string };

const limits = { seconds: 60, megabytes: 1280 };
const tooMuch = { wrong: 'This file is too large, or cannot be opened safely. Part it, or save it as .csv, and choose that.' };

/** Opens and writes spreadsheets in a process of its own, with limits of time and memory. */
export class SheetPool {
  readonly #pool = new ProcessPool<SheetAsk, SheetAnswer>(new URL('./worker.ts', import.meta.url), 1, limits, ['exceljs', 'papaparse']);

  /** A file's table, or what is wrong with it. */
  async open(ask: FileAsk): Promise<{ sheet: Sheet } | { wrong: string }> {
    const result = await this.#pool.ask(() => ask);
    return 'answer' in result && !('book' in result.answer) ? result.answer : tooMuch;
  }

  /** A table as an XLSX file; null where it is too large for one. */
  async write(sheet: Sheet): Promise<Uint8Array | null> {
    const result = await this.#pool.ask(() => ({ sheet }));
    return 'answer' in result && 'book' in result.answer ? result.answer.book : null;
  }

  close(): Promise<void> {
    return this.#pool.close();
  }
}
