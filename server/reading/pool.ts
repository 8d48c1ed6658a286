import { Worker } from 'node:worker_threads';
import type { Asked, PageSource, ReadResult } from './result.ts';

export interface ReadLimits {
  seconds: number;
  megabytes: number;
  bytes: number;
}
export const readLimits: ReadLimits = { seconds: 30, megabytes: 768, bytes: 40 * 1024 * 1024 };

interface Job {
  asked: Asked;
  done: (result: ReadResult) => void;
}

/**
 * Reads files in worker threads, each with a limit of time and memory. A file that hangs or eats memory costs its own worker only;
 * the next file gets a fresh one.
 */
export class ReadingPool {
  readonly #queue: Job[] = [];
  #idle: Worker[] = [];
  #running = 0;
  #closed = false;

  constructor(
    readonly size = 1,
    readonly limits: ReadLimits = readLimits,
  ) {}

  /** Reads a file as it came and takes it apart into its documents. */
  read(bytes: Uint8Array, sha = ''): Promise<ReadResult> {
    return this.#ask({ files: [{ sha, bytes }], order: null });
  }

  /** Reads given pages of files as one document. */
  readPages(files: Asked['files'], order: PageSource[]): Promise<ReadResult> {
    return this.#ask({ files, order });
  }

  #ask(asked: Asked): Promise<ReadResult> {
    if (asked.files.some((f) => f.bytes.length > this.limits.bytes)) return Promise.resolve({ ok: false, fault: 'too-large', pages: 0 });
    return new Promise((done) => {
      this.#queue.push({ asked, done });
      this.#next();
    });
  }

  #worker(): Worker {
    return (
      this.#idle.pop() ??
      new Worker(new URL('./worker-entry.mjs', import.meta.url), {
        resourceLimits: { maxOldGenerationSizeMb: this.limits.megabytes },
        stdout: false,
        stderr: false,
      })
    );
  }

  #next(): void {
    if (this.#closed || this.#running >= this.size) return;
    const job = this.#queue.shift();
    if (!job) return;
    this.#running++;
    const worker = this.#worker();
    const finish = (result: ReadResult, reusable: boolean) => {
      clearTimeout(timer);
      worker.off('message', answered).off('error', failed).off('exit', gone);
      if (reusable && !this.#closed) {
        this.#idle.push(worker);
        worker.unref();
      } else void worker.terminate();
      this.#running--;
      job.done(result);
      this.#next();
    };
    const answered = (result: ReadResult) => finish(result, true);
    const failed = (error: NodeJS.ErrnoException) =>
      finish({ ok: false, fault: error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? 'too-long' : 'broken', pages: 0 }, false);
    const gone = () => finish({ ok: false, fault: 'broken', pages: 0 }, false);
    const timer = setTimeout(() => finish({ ok: false, fault: 'too-long', pages: 0 }, false), this.limits.seconds * 1000);
    worker.ref();
    worker.on('message', answered).on('error', failed).on('exit', gone);
    const files = job.asked.files.map(({ sha, bytes }) => ({ sha, bytes: new Uint8Array(bytes) }));
    worker.postMessage(
      { files, order: job.asked.order },
      files.map((f) => f.bytes.buffer),
    );
  }

  async close(): Promise<void> {
    this.#closed = true;
    const workers = this.#idle;
    this.#idle = [];
    await Promise.all(workers.map((w) => w.terminate()));
  }
}
