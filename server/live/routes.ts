import { streamSSE } from 'hono/streaming';
import type { Api } from '../http/define.ts';

export function liveRoutes(api: Api): void {
  api.define(
    { method: 'get', path: '/live', access: 'signed-in', summary: 'Changes in your companies as they happen (server-sent events)' },
    async ({ c, services, caller }) => {
      const mine = new Set(caller.me.companies.map((one) => one.id));
      return streamSSE(c, async (stream) => {
        let areas = new Map<string, { area: string; company: string }>();
        let wake: (() => void) | null = null;
        const stop = services.live.watch((change) => {
          if (!mine.has(change.company)) return;
          areas.set(change.area + change.company, { area: change.area, company: change.company });
          wake?.();
        });
        stream.onAbort(() => {
          stop();
          wake?.();
        });
        await stream.writeSSE({ event: 'hello', data: '' });
        while (!stream.aborted) {
          if (areas.size === 0)
            await Promise.race([
              new Promise<void>((done) => {
                wake = done;
              }),
              stream.sleep(20_000),
            ]);
          // A burst of changes becomes one message an area.
          await stream.sleep(120);
          const told = [...areas.values()];
          areas = new Map();
          if (stream.aborted) break;
          if (told.length === 0) await stream.writeSSE({ event: 'still', data: '' });
          for (const one of told) await stream.writeSSE({ event: 'change', data: JSON.stringify(one) });
        }
        stop();
      });
    },
  );
}
