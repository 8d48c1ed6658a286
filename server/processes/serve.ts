/** In a process of a pool: answers every message, one after another. `tell` says meanwhile what is being done. */
export function serveProcess<Ask, Answer>(answer: (ask: Ask, tell: (doing: string) => void) => Promise<Answer>): void {
  // A stray rejection inside a library belongs to a page it gave up on; the work itself answers for the file.
  process.on('unhandledRejection', () => undefined);
  const send = (said: object) => void process.send?.(said);
  process.on('message', (ask: Ask) => {
    void answer(ask, (doing) => send({ doing })).then((done) => send({ answer: done }));
  });
}
