import { parentPort } from 'node:worker_threads';
import { readAsked } from './readfile.ts';
import type { Asked } from './result.ts';

// A stray rejection inside the PDF library belongs to a page it gave up on; the read itself answers for the file.
process.on('unhandledRejection', () => undefined);
parentPort?.on('message', (asked: Asked) => {
  void readAsked(asked).then((result) => parentPort?.postMessage(result));
});
