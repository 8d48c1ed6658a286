import { streamSSE } from 'hono/streaming';
import { isAlive } from '../auth/sessions.ts';
import type { Api } from '../http/define.ts';
import type { Change } from './live.ts';

/** A session that is over or lost its rights without anybody being told is noticed after this long, in milliseconds. */
const often = 20_000;

export function liveRoutes(api: Api): void {
  api.raw(
    { method: 'get', path: '/live', access: 'signed-in', summary: 'Changes in your companies as they happen (server-sent events)' },
    async ({ c, services, caller }) => {
      const own = (me: typeof caller.me) => new Set(me.companies.map((one) => one.id));
      let mine = own(caller.me),
        over = false;
      return streamSSE(c, async (stream) => {
        let told = new Map<string, Change>(),
          unsure = false;
        let wake: (() => void) | null = null;
        const stop = services.live.watch((change) => {
          if (change.type === 'session' && change.id === caller.sessionId) over = true;
          // Somebody's rights changed, perhaps this person's; or nothing was heard for a while.
          else if (change.type === 'person' || change.type === 'away') unsure = true;
          if (change.type === 'away') for (const company of mine) told.set(company, { type: 'away', company, id: null });
          else if (mine.has(change.company)) {
            // A burst about very many things is told as one about their kind.
            const kept = told.size > 200 ? { ...change, id: null } : change;
            told.set(`${kept.company} ${kept.type} ${kept.id ?? ''}`, kept);
          } else if (!over && !unsure) return;
          wake?.();
        });
        stream.onAbort(() => {
          stop();
          wake?.();
        });
        await stream.writeSSE({ event: 'hello', data: '' });
        let checked = services.now().getTime();
        while (!stream.aborted && !over) {
          if (told.size === 0 && !unsure)
            await Promise.race([
              new Promise<void>((done) => {
                wake = done;
              }),
              stream.sleep(often),
            ]);
          // A burst of changes becomes one message.
          await stream.sleep(120);
          if (stream.aborted || over) break;
          if (unsure || services.now().getTime() - checked >= often) {
            unsure = false;
            const me = await isAlive(services, caller.sessionId).catch(() => caller.me);
            if (!me) break;
            mine = own(me);
            checked = services.now().getTime();
          }
          const changes = [...told.values()].filter((change) => mine.has(change.company));
          told = new Map();
          await stream.writeSSE(changes.length === 0 ? { event: 'still', data: '' } : { event: 'changes', data: JSON.stringify(changes) });
        }
        stop();
        if (!stream.aborted) await stream.writeSSE({ event: 'over', data: '' });
      });
    },
  );
}
