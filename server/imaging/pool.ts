import type { Language } from '@ledgerline/core/page';
import { ThreadPool } from '../threads/pool.ts';
import type { Look, Scanned, ScanWanted, Seen } from './result.ts';
import type { PageAnswer, PageAsk } from './worker.ts';

export const scanLimits = { seconds: 120, megabytes: 1024 };

/** Reads pages that are pictures in threads of their own, two at once. */
export class ScanPool {
  readonly #threads: ThreadPool<PageAsk, PageAnswer>;

  constructor(size = 2, limits = scanLimits) {
    this.#threads = new ThreadPool(new URL('./worker.ts', import.meta.url), size, limits);
  }

  /** One page as words; a page that breaks the engine or takes too long comes back with why. */
  async scan(bytes: Uint8Array, wanted: ScanWanted, first: () => Language, tell?: (doing: string) => void): Promise<Scanned> {
    const { sha, page, turn } = wanted;
    const result = await this.#ask(() => ({ bytes: new Uint8Array(bytes), sha, page, want: 'scan', turn, first: first() }), tell);
    const failed = { sha, page, turn: turn ?? 0, auto: turn === null, read: null };
    if ('fault' in result) return { ...failed, fault: result.fault };
    if (!('scan' in result.answer)) return { ...failed, fault: 'fault' in result.answer ? result.answer.fault : 'broken' };
    const { turn: lay, ...read } = result.answer.scan;
    return { ...failed, turn: lay, read, fault: null };
  }

  /** Spots of pages read again; each page is opened once. A spot that can't be read has no words. */
  async look(files: Map<string, Uint8Array>, looks: Look[]): Promise<Seen[]> {
    const pages = new Map<string, Look[]>();
    for (const l of looks) pages.set(`${l.sha}:${l.page}`, [...(pages.get(`${l.sha}:${l.page}`) ?? []), l]);
    const done = await Promise.all(
      [...pages.values()].map(async (own): Promise<Seen[]> => {
        const { sha, page } = own[0]!;
        const result = await this.#ask(() => ({ bytes: new Uint8Array(files.get(sha)!), sha, page, want: 'spots', looks: own }));
        const spots = 'answer' in result && 'spots' in result.answer ? result.answer.spots : [];
        return own.map((look, i) => ({ ...look, words: spots[i] ?? [] }));
      }),
    );
    return done.flat();
  }

  /** A page as it was cleaned for reading, as PNG; null where it can't be drawn. */
  async clean(bytes: Uint8Array, sha: string, page: number, turn: number, wide = 1700): Promise<Uint8Array | null> {
    const result = await this.#ask(() => ({ bytes: new Uint8Array(bytes), sha, page, want: 'clean', turn, wide }));
    return 'answer' in result && 'png' in result.answer ? result.answer.png : null;
  }

  #ask(make: () => PageAsk, tell?: (doing: string) => void) {
    return this.#threads.ask(() => {
      const ask = make();
      return { ask, transfer: [ask.bytes.buffer as ArrayBuffer] };
    }, tell);
  }

  close = (): Promise<void> => this.#threads.close();
}
