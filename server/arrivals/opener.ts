import { ProcessPool, type ProcessFault } from '../processes/pool.ts';
import type { OpenAnswer, OpenAsk, OpenedMessage } from './opening.ts';
import type { ArrivedFile } from './take.ts';
import { isPacked } from './unpack.ts';

export const openLimits = { seconds: 60, megabytes: 1280 };

/** Why something could not be taken apart. */
export type OpenFault = ProcessFault | 'damaged';

/** Takes messages and zips apart in a process of its own, with limits of time and memory. */
export class Opener {
  readonly #pool: ProcessPool<OpenAsk, OpenAnswer>;

  constructor(limits = openLimits) {
    this.#pool = new ProcessPool(new URL('./worker.ts', import.meta.url), 1, limits, ['mailparser', 'yauzl']);
  }

  /** A message taken apart, or why it can't be. */
  async message(raw: Uint8Array): Promise<OpenedMessage | { fault: OpenFault }> {
    const result = await this.#pool.ask(() => ({ want: 'message', raw }));
    if ('fault' in result) return result;
    return 'message' in result.answer ? result.answer.message : { fault: 'damaged' };
  }

  /** Files with what is packed in them beside them. One that breaks the opening is kept whole and says so. */
  async files(files: ArrivedFile[]): Promise<ArrivedFile[]> {
    const out: ArrivedFile[] = [];
    for (const file of files) {
      if (!isPacked(file)) {
        out.push(file);
        continue;
      }
      const result = await this.#pool.ask(() => ({ want: 'files', files: [file] }));
      if ('answer' in result && 'files' in result.answer) out.push(...result.answer.files);
      else out.push({ ...file, kept: { state: 'unreadable', note: 'This file cannot be opened safely. It is kept as it came.' } });
    }
    return out;
  }

  close(): Promise<void> {
    return this.#pool.close();
  }
}
