import { serveProcess } from '../processes/serve.ts';

/** What a process of a pool is told to do in tests: to answer, or one of the ways to go wrong. */
export type Doing = { do: 'who' | 'exit' | 'hang' | 'reject' } | { do: 'eat'; kind: 'heap' | 'buffers' | 'wasm' };
export type Done = { pid: number; env: Record<string, string | undefined> } | { most: number };

const step = 16;
/** Takes memory until it is refused, and tells how much it had, in megabytes. */
function eat(kind: 'heap' | 'buffers' | 'wasm'): Done {
  const held: unknown[] = [];
  let most = 0;
  try {
    const wasm = kind === 'wasm' ? new WebAssembly.Memory({ initial: 0, maximum: 65_536 }) : null;
    for (; most < 4096; most += step) {
      if (kind === 'heap') held.push(Array.from({ length: step * 131_072 }, (_, i) => i + 0.5));
      else if (kind === 'buffers') held.push(Buffer.alloc(step * 1024 * 1024, 1));
      else {
        wasm!.grow(step * 16);
        new Uint8Array(wasm!.buffer).fill(1, most * 1024 * 1024);
      }
    }
  } catch {
    // Refused.
  }
  return { most };
}

serveProcess<Doing, Done>(async (doing) => {
  if (doing.do === 'exit') process.exit(3);
  if (doing.do === 'hang') for (;;);
  if (doing.do === 'reject') throw new Error('on purpose');
  if (doing.do === 'eat') return eat(doing.kind);
  return { pid: process.pid, env: process.env };
});
