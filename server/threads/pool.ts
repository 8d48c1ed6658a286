import { Worker } from 'node:worker_threads';

export interface ThreadLimits {
  seconds: number;
  megabytes: number;
}
/** Why a thread gave no answer: it ran out of time or memory, or broke. */
export type ThreadFault = 'too-long' | 'broken';

interface Job<Ask, Answer> {
  make: () => { ask: Ask; transfer: ArrayBuffer[] };
  tell: ((doing: string) => void) | undefined;
  done: (result: { answer: Answer } | { fault: ThreadFault }) => void;
}
type Said<Answer> = { doing: string } | { answer: Answer };

/** A few worker threads that share a line of work. A thread that fails or takes too long is ended and replaced. */
export class ThreadPool<Ask, Answer> {
  readonly #line: Job<Ask, Answer>[] = [];
  #idle: Worker[] = [];
  readonly #busy = new Set<Worker>();
  #closed = false;

  constructor(
    readonly file: URL,
    readonly size: number,
    readonly limits: ThreadLimits,
  ) {}

  /**
   * Answers once a thread has. What is asked is made when a thread is free, so that a long line costs no memory; what is in `transfer`
   * goes to the thread for good.
   */
  ask(
    make: () => { ask: Ask; transfer: ArrayBuffer[] },
    tell?: (doing: string) => void,
  ): Promise<{ answer: Answer } | { fault: ThreadFault }> {
    return new Promise((done) => {
      this.#line.push({ make, tell, done });
      this.#next();
    });
  }

  #worker(): Worker {
    return (
      this.#idle.pop() ??
      new Worker(new URL('./entry.mjs', import.meta.url), {
        workerData: { file: this.file.href },
        resourceLimits: { maxOldGenerationSizeMb: this.limits.megabytes },
        stdout: false,
        stderr: false,
      })
    );
  }

  #next(): void {
    if (this.#closed || this.#busy.size >= this.size) return;
    const job = this.#line.shift();
    if (!job) return;
    const worker = this.#worker();
    this.#busy.add(worker);
    const finish = (result: { answer: Answer } | { fault: ThreadFault }, reusable: boolean) => {
      clearTimeout(timer);
      worker.off('message', heard).off('error', failed).off('exit', gone);
      this.#busy.delete(worker);
      if (reusable && !this.#closed) {
        this.#idle.push(worker);
        worker.unref();
      } else void worker.terminate();
      job.done(result);
      this.#next();
    };
    const heard = (said: Said<Answer>) => {
      if ('answer' in said) finish(said, true);
      else job.tell?.(said.doing);
    };
    const failed = (error: NodeJS.ErrnoException) =>
      finish({ fault: error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? 'too-long' : 'broken' }, false);
    const gone = () => finish({ fault: 'broken' }, false);
    const timer = setTimeout(() => finish({ fault: 'too-long' }, false), this.limits.seconds * 1000);
    worker.ref();
    worker.on('message', heard).on('error', failed).on('exit', gone);
    const { ask, transfer } = job.make();
    worker.postMessage(ask, transfer);
  }

  async close(): Promise<void> {
    this.#closed = true;
    const workers = [...this.#idle, ...this.#busy];
    this.#idle = [];
    await Promise.all(workers.map((w) => w.terminate()));
  }
}
