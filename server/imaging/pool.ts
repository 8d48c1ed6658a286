import type { Language } from '@ledgerline/core/page';
import { ProcessPool } from '../processes/pool.ts';
import type { Look, Scanned, ScanWanted, Seen } from './result.ts';
import type { PageAnswer, PageAsk } from './worker.ts';

export const scanLimits = { seconds: 120, megabytes: 1024 };

/** Reads pages that are pictures in processes of their own, two at once; one more answers people who wait at the desk, one draws pages to be looked at. */
export class ScanPool {
  readonly #pages: ProcessPool<PageAsk, PageAnswer>;
  readonly #desk: ProcessPool<PageAsk, PageAnswer>;
  readonly #shown: ProcessPool<PageAsk, PageAnswer>;
  /** The page that the desk's process opened last, the one that is being opened, and the one that somebody looks at. */
  #opened = '';
  #opening: Promise<boolean> = Promise.resolve(true);
  #wanted = '';

  constructor(size = 2, limits = scanLimits) {
    const file = new URL('./worker.ts', import.meta.url);
    const libraries = [new URL('../reading/pdfjs.mjs', import.meta.url).href, 'sharp', 'tesseract.js', 'date-fns'];
    this.#pages = new ProcessPool(file, size, limits, libraries);
    this.#desk = new ProcessPool(file, 1, limits, libraries);
    this.#shown = new ProcessPool(file, 1, limits, libraries);
  }

  /** One page as words; a page that breaks the engine or takes too long comes back with why. */
  async scan(bytes: Uint8Array, wanted: ScanWanted, likely: () => Language | null, tell?: (doing: string) => void): Promise<Scanned> {
    const { sha, page, turn } = wanted;
    const make = (): PageAsk => ({ bytes, sha, page, want: 'scan', turn, likely: likely() });
    const result = await this.#pages.ask(make, tell);
    const failed = { sha, page, turn: turn ?? 0, auto: turn === null, read: null };
    if ('fault' in result) return { ...failed, fault: result.fault };
    if (!('scan' in result.answer)) return { ...failed, fault: 'fault' in result.answer ? result.answer.fault : 'broken' };
    const { turn: lay, ...read } = result.answer.scan;
    return { ...failed, turn: lay, read, fault: null };
  }

  /** Spots of pages read again; each page is opened once. A spot that can't be read has no words. `atDesk`: somebody waits for it. */
  async look(files: Map<string, Uint8Array>, looks: Look[], atDesk = false): Promise<Seen[]> {
    const pages = new Map<string, Look[]>();
    for (const l of looks) pages.set(`${l.sha}:${l.page}`, [...(pages.get(`${l.sha}:${l.page}`) ?? []), l]);
    const done = await Promise.all(
      [...pages.values()].map(async (own): Promise<Seen[]> => {
        const { sha, page } = own[0]!;
        const make = (): PageAsk => ({ bytes: files.get(sha)!, sha, page, want: 'spots', looks: own });
        if (atDesk) this.#opened = `${sha}:${page}`;
        const result = await (atDesk ? this.#desk : this.#pages).ask(make);
        const spots = 'answer' in result && 'spots' in result.answer ? result.answer.spots : [];
        return own.map((look, i) => ({ ...look, words: spots[i] ?? [] }));
      }),
    );
    return done.flat();
  }

  /**
   * Opens a page and loads its language for the desk, so that a box drawn there is read at once; nothing to do for the page that was
   * opened last. One page at a time: whoever leafs through bills has only the one they stop at opened. False where it was not.
   */
  async ready(bytes: () => Promise<Uint8Array | null>, sha: string, page: number, language: Language): Promise<boolean> {
    const key = `${sha}:${page}`;
    this.#wanted = key;
    await this.#opening;
    if (this.#opened === key) return true;
    if (this.#wanted !== key) return false;
    this.#opened = key;
    const opening = this.#open(bytes, sha, page, language).catch(() => false);
    this.#opening = opening;
    const done = await opening;
    if (!done && this.#opened === key) this.#opened = '';
    return done;
  }

  async #open(bytes: () => Promise<Uint8Array | null>, sha: string, page: number, language: Language): Promise<boolean> {
    const file = await bytes();
    if (!file) return false;
    const result = await this.#desk.ask(() => ({ bytes: file, sha, page, want: 'ready', language }));
    return 'answer' in result && 'ready' in result.answer;
  }

  /** A page as it was cleaned for reading, as PNG; null where it can't be drawn. */
  async clean(bytes: Uint8Array, sha: string, page: number, turn: number, wide = 1700): Promise<Uint8Array | null> {
    this.#opened = `${sha}:${page}`;
    const result = await this.#desk.ask(() => ({ bytes: bytes, sha, page, want: 'clean', turn, wide }));
    return 'answer' in result && 'png' in result.answer ? result.answer.png : null;
  }

  /** A page of a picture file as it came, as PNG; null where it can't be drawn. */
  async show(bytes: Uint8Array, page: number, wide = 1700): Promise<Uint8Array | null> {
    const result = await this.#shown.ask(() => ({ bytes, sha: '', page, want: 'show', wide }));
    return 'answer' in result && 'png' in result.answer ? result.answer.png : null;
  }

  async close(): Promise<void> {
    await Promise.all([this.#pages.close(), this.#desk.close(), this.#shown.close()]);
  }
}
