import { fork, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';

export interface ProcessLimits {
  seconds: number;
  /** Of memory that it may write to, all libraries together. */
  megabytes: number;
  /** Of it for what is young: much is made while a document is read, and little of it lasts. */
  young?: number;
}
/** Why a process gave no answer: it ran out of time or of memory, or broke. */
export type ProcessFault = 'too-long' | 'too-heavy' | 'broken';

/** What was asked is not answered because we end: it is nobody's fault, and is to be asked again by whoever comes next. */
export class Ending extends Error {}

interface Job<Ask, Answer> {
  make: () => Ask;
  tell: ((doing: string) => void) | undefined;
  done: (result: { answer: Answer } | { fault: ProcessFault }) => void;
  fail: (error: Ending) => void;
}
type Said<Answer> = { doing: string } | { answer: Answer };

const entry = fileURLToPath(new URL('./entry.mjs', import.meta.url));
/** What an engine or the system says when memory is used up: its abort, or a kill that was not ours. */
const heavy = new Set(['SIGABRT', 'SIGTRAP', 'SIGILL', 'SIGKILL', 'SIGBUS']);

/**
 * Starts a process that opens files from outside: its memory is limited by the system for whatever is allocated, by JavaScript or not
 * (Linux: RLIMIT_DATA), it gains no privileges, sees nothing of our settings, and dies with us.
 */
function started(file: URL, { megabytes, young }: ProcessLimits, libraries: string[]): ChildProcess {
  return fork(entry, [file.href, ...libraries], {
    execPath: '/usr/bin/prlimit',
    execArgv: [
      `--data=${megabytes * 1024 * 1024}`,
      '--core=0',
      '/usr/bin/setpriv',
      '--pdeathsig=KILL',
      '--no-new-privs',
      process.execPath,
      `--max-old-space-size=${Math.round(megabytes * 0.6)}`,
      ...(young ? [`--max-semi-space-size=${young}`] : []),
    ],
    env: { PATH: process.env['PATH'], NODE_ENV: process.env['NODE_ENV'] },
    serialization: 'advanced',
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  });
}

/** A few processes that share a line of work. One that fails, eats memory or takes too long is killed and replaced. */
export class ProcessPool<Ask, Answer> {
  readonly #line: Job<Ask, Answer>[] = [];
  #idle: ChildProcess[] = [];
  readonly #busy = new Set<ChildProcess>();
  #closed = false;

  constructor(
    readonly file: URL,
    readonly size: number,
    readonly limits: ProcessLimits,
    /** Large libraries that the file needs, so that it starts quickly. */
    readonly libraries: string[] = [],
  ) {}

  /** Answers once a process has. What is asked is made when one is free, so that a long line costs no memory. */
  ask(make: () => Ask, tell?: (doing: string) => void): Promise<{ answer: Answer } | { fault: ProcessFault }> {
    return new Promise((done, fail) => {
      if (this.#closed) return fail(new Ending());
      this.#line.push({ make, tell, done, fail });
      this.#next();
    });
  }

  #process(): ChildProcess {
    const there = this.#idle.pop();
    if (there) return there;
    const made = started(this.file, this.limits, this.libraries);
    // One that dies while it has nothing to do is not handed out again.
    made.once('exit', () => void (this.#idle = this.#idle.filter((p) => p !== made)));
    return made;
  }

  #next(): void {
    if (this.#closed || this.#busy.size >= this.size) return;
    const job = this.#line.shift();
    if (!job) return;
    const child = this.#process();
    this.#busy.add(child);
    let over = false;
    const finish = (result: { answer: Answer } | { fault: ProcessFault }, reusable: boolean) => {
      if (over) return;
      over = true;
      clearTimeout(timer);
      child.off('message', heard).off('error', failed).off('exit', gone);
      this.#busy.delete(child);
      if (reusable && !this.#closed) {
        this.#idle.push(child);
        child.unref();
        child.channel?.unref();
      } else {
        child.on('error', () => undefined);
        child.kill('SIGKILL');
      }
      if (this.#closed && 'fault' in result) return job.fail(new Ending());
      job.done(result);
      this.#next();
    };
    const heard = (said: Said<Answer>) => {
      if ('answer' in said) finish(said, true);
      else job.tell?.(said.doing);
    };
    const failed = () => finish({ fault: 'broken' }, false);
    const gone = (code: number | null, signal: string | null) =>
      finish({ fault: code === 134 || (signal && heavy.has(signal)) ? 'too-heavy' : 'broken' }, false);
    const timer = setTimeout(() => finish({ fault: 'too-long' }, false), this.limits.seconds * 1000);
    child.ref();
    child.channel?.ref();
    child.on('message', heard).on('error', failed).on('exit', gone);
    child.send(job.make() as object, (error) => {
      if (error) failed();
    });
  }

  /** Ends all processes; what was asked and not answered yet is told that we end. */
  async close(): Promise<void> {
    this.#closed = true;
    const children = [...this.#idle, ...this.#busy];
    this.#idle = [];
    for (const job of this.#line.splice(0)) job.fail(new Ending());
    await Promise.all(
      children.map(
        (child) =>
          new Promise<void>((done) => {
            if (child.exitCode !== null || child.signalCode !== null) return done();
            // One that was idle kept nobody from ending; its end is waited for.
            child.ref();
            child.once('exit', () => done());
            child.kill('SIGKILL');
          }),
      ),
    );
  }
}
