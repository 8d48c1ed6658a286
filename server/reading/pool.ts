import type { Language } from '@ledgerline/core/page';
import type { Context } from '@ledgerline/core/reading';
import { ScanPool } from '../imaging/pool.ts';
import type { Scanned, ScanWanted } from '../imaging/result.ts';
import { ProcessPool, type ProcessLimits } from '../processes/pool.ts';
import type { Asked, PageSource, ReadResult, Separator, Wanting } from './result.ts';

export interface ReadLimits extends ProcessLimits {
  bytes: number;
}
export const readLimits: ReadLimits = { seconds: 30, megabytes: 768, young: 64, bytes: 40 * 1024 * 1024 };

/** How far the pages of a document have been read as pictures. */
export interface Progress {
  done: number;
  of: number;
  doing: string;
}

/** Where pages that were read as pictures are kept, so that none is read twice; and who hears how far it is. */
export interface Shelf {
  find(wanted: ScanWanted[]): Promise<Scanned[]>;
  put(scan: Scanned): Promise<void>;
  /** Scans a page and keeps it while nobody else does the same; one that somebody has kept meanwhile is taken from there. */
  alone(wanted: ScanWanted, scan: () => Promise<Scanned>): Promise<Scanned>;
  tell?(progress: Progress): void;
}

const nothingKept: Shelf = { find: async () => [], put: async () => undefined, alone: (_, scan) => scan() };

/** Reads files in processes with limits of time and memory; pages that are pictures are read by the pool for those. */
export class ReadingPool {
  readonly #processes: ProcessPool<Asked, ReadResult | Wanting>;

  constructor(
    size = 1,
    readonly limits: ReadLimits = readLimits,
    readonly scans = new ScanPool(),
  ) {
    this.#processes = new ProcessPool(new URL('./worker.ts', import.meta.url), size, limits, [
      new URL('./pdfjs.mjs', import.meta.url).href,
      'sharp',
      'date-fns',
    ]);
  }

  /** Reads a file as it came and takes it apart into its documents. */
  read(bytes: Uint8Array, sha = '', known: Context = {}): Promise<ReadResult> {
    return this.readAll([{ sha, bytes }], null, nothingKept, 'none', known);
  }

  /** Reads a whole file (`order` null), or given pages of files as one document, pictures among them. */
  async readAll(
    files: Asked['files'],
    order: PageSource[] | null,
    shelf: Shelf = nothingKept,
    separator: Separator = 'none',
    known: Context = {},
  ): Promise<ReadResult> {
    const result = await this.#whole(files, order, shelf, separator, true, known);
    return result.ok === 'wanting' ? { ok: false, fault: 'broken', pages: 0 } : result;
  }

  /** The same, but answers with the pages that would have to be read as pictures first, where there are any that nobody has kept. */
  readQuickly(
    files: Asked['files'],
    order: PageSource[] | null,
    shelf: Shelf,
    separator: Separator,
    known: Context = {},
  ): Promise<ReadResult | Wanting> {
    return this.#whole(files, order, shelf, separator, false, known);
  }

  async #whole(
    all: Asked['files'],
    order: PageSource[] | null,
    shelf: Shelf,
    separator: Separator,
    patient: boolean,
    known: Context,
  ): Promise<ReadResult | Wanting> {
    const files = new Map(all.map((f) => [f.sha, f.bytes]));
    let asked: Asked = { files: all, order, scans: [], seen: null, separator, known };
    // First the pages, then the spots of them: each round brings all that was asked for, so there are three at most.
    for (let round = 0; round < 4; round++) {
      const result = await this.#ask(asked);
      if (result.ok !== 'wanting') return result;
      if (result.scans.length > 0) {
        const kept = await shelf.find(result.scans);
        if (!patient && kept.length < result.scans.length) return result;
        asked = { ...asked, scans: [...asked.scans, ...(await this.#scan(files, result.scans, kept, shelf))] };
      } else {
        shelf.tell?.({ done: asked.scans.length, of: asked.scans.length, doing: 'looking again at what is unsure' });
        asked = { ...asked, seen: await this.scans.look(files, result.looks) };
      }
    }
    return { ok: false, fault: 'broken', pages: 0 };
  }

  async #scan(files: Map<string, Uint8Array>, wanted: ScanWanted[], kept: Scanned[], shelf: Shelf): Promise<Scanned[]> {
    const key = (s: { sha: string; page: number }) => `${s.sha}:${s.page}`;
    const there = new Set(kept.map(key));
    let language: Language | null = kept.find((k) => k.read)?.read?.scan?.language ?? null,
      done = kept.length;
    const rest = await Promise.all(
      wanted
        .filter((w) => !there.has(key(w)))
        .map(async (want) => {
          const told = (doing: string) => shelf.tell?.({ done, of: wanted.length, doing: `${doing} page ${want.page}` });
          const scan = await shelf.alone(want, () => this.scans.scan(files.get(want.sha)!, want, () => language, told));
          language = scan.read?.scan?.language ?? language;
          done++;
          return scan;
        }),
    );
    return [...kept, ...rest];
  }

  async #ask(asked: Asked): Promise<ReadResult | Wanting> {
    if (asked.files.some((f) => f.bytes.length > this.limits.bytes)) return { ok: false, fault: 'too-large', pages: 0 };
    const result = await this.#processes.ask(() => asked);
    return 'answer' in result ? result.answer : { ok: false, fault: result.fault, pages: 0 };
  }

  async close(): Promise<void> {
    await Promise.all([this.#processes.close(), this.scans.close()]);
  }
}
