import { streamSSE } from 'hono/streaming';
import type { Api } from '../http/define.ts';
import type { Change } from './live.ts';

export function liveRoutes(api: Api): void {
  api.raw(
    { method: 'get', path: '/live', access: 'signed-in', summary: 'Changes in your companies as they happen (server-sent events)' },
    async ({ c, services, caller }) => {
      const mine = new Set(caller.me.companies.map((one) => one.id));
      return streamSSE(c, async (stream) => {
        let told = new Map<string, Change>();
        let wake: (() => void) | null = null;
        const stop = services.live.watch((change) => {
          if (!mine.has(change.company)) return;
          // A burst about very many things is told as one about their kind.
          if (told.size > 200) change = { ...change, id: null };
          told.set(`${change.company} ${change.type} ${change.id ?? ''}`, change);
          wake?.();
        });
        stream.onAbort(() => {
          stop();
          wake?.();
        });
        await stream.writeSSE({ event: 'hello', data: '' });
        while (!stream.aborted) {
          if (told.size === 0)
            await Promise.race([
              new Promise<void>((done) => {
                wake = done;
              }),
              stream.sleep(20_000),
            ]);
          // A burst of changes becomes one message.
          await stream.sleep(120);
          const changes = [...told.values()];
          told = new Map();
          if (stream.aborted) break;
          await stream.writeSSE(changes.length === 0 ? { event: 'still', data: '' } : { event: 'changes', data: JSON.stringify(changes) });
        }
        stop();
      });
    },
  );
}
