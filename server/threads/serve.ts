import { parentPort } from 'node:worker_threads';

/** In a worker: answers every message of the pool, one after another. `tell` says meanwhile what is being done. */
export function serveThread<Ask, Answer>(answer: (ask: Ask, tell: (doing: string) => void) => Promise<Answer>): void {
  // A stray rejection inside a library belongs to a page it gave up on; the work itself answers for the file.
  process.on('unhandledRejection', () => undefined);
  parentPort?.on('message', (ask: Ask) => {
    void answer(ask, (doing) => parentPort?.postMessage({ doing })).then((done) => parentPort?.postMessage({ answer: done }));
  });
}
