import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { makeApi } from '../app.ts';
import { doorOf } from '../http/door.ts';
import { browser } from '../testing/browser.ts';
import { mailOf, password } from '../testing/master.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { sessionLimits } from './sessions.ts';

/** Three browsers, two people, a clock: who is signed in where, against a model that knows only begin, last use and end. */
let world: World;
let clock = new Date('2026-11-23T08:00:00Z').getTime();
beforeAll(async () => {
  world = await makeWorld();
  world.services.now = () => new Date(clock);
});
afterAll(() => world.close());

const people = [mailOf('Ines Okafor'), mailOf('Kit Arden')];
const minute = 60_000;
interface Model {
  who: number;
  began: number;
  used: number;
}
const at = fc.nat(2);
const act = fc.oneof(
  { weight: 4, arbitrary: fc.record({ do: fc.constant('in' as const), at, who: fc.nat(1) }) },
  { weight: 5, arbitrary: fc.record({ do: fc.constant('use' as const), at, idle: fc.boolean() }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('out' as const), at }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('elsewhere' as const), at }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('end' as const), at, other: at }) },
  { weight: 5, arbitrary: fc.record({ do: fc.constant('wait' as const), minutes: fc.integer({ min: 2, max: 200 }) }) },
);

it('a session is there as long as the model says, and nowhere else', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 4, maxLength: 24 }), async (acts) => {
      await world.rows('delete from session');
      await world.rows('delete from attempt');
      const api = makeApi({ ...world.services, door: { ...doorOf(), proxies: 1 } }, true);
      const browsers = [1, 2, 3].map((n) => browser(api.app, { 'x-forwarded-for': `192.0.2.${n}` }));
      const model: (Model | null)[] = [null, null, null];
      const lives = (m: Model | null | undefined): m is Model =>
        Boolean(m) && clock - m!.began < sessionLimits.hours * 60 * minute && clock - m!.used < sessionLimits.idleMinutes * minute;
      const touch = (m: Model) => void (clock - m.used > minute && (m.used = clock));
      for (const a of acts) {
        if (a.do === 'wait') {
          clock += a.minutes * minute;
          continue;
        }
        const own = browsers[a.at]!,
          m = model[a.at];
        if (a.do === 'in') {
          expect((await own('POST', '/session', { email: people[a.who], password })).status).toBe(200);
          model[a.at] = { who: a.who, began: clock, used: clock };
        } else if (a.do === 'use') {
          const { status, data } = await own('GET', '/sessions', undefined, a.idle ? { 'ledgerline-idle': '1' } : {});
          expect(status).toBe(lives(m) ? 200 : 401);
          if (!lives(m)) continue;
          if (!a.idle) touch(m);
          const mine = model.flatMap((o, i) => (lives(o) && o.who === m.who ? [`192.0.2.${i + 1}`] : []));
          expect(data.sessions.map((s: { address: string }) => s.address).sort()).toEqual(mine.sort());
        } else if (a.do === 'out') {
          await own('DELETE', '/session', {});
          model[a.at] = null;
        } else if (a.do === 'elsewhere') {
          expect((await own('DELETE', '/sessions', {})).status).toBe(lives(m) ? 200 : 401);
          if (!lives(m)) continue;
          touch(m);
          for (const [i, o] of model.entries()) if (i !== a.at && o?.who === m.who) model[i] = null;
        } else {
          const address = `192.0.2.${a.other + 1}`;
          const [row] = await world.rows('select id from session where address = $1', address);
          if (!row) continue;
          const { status } = await own('DELETE', `/sessions/${row.id}`, {});
          const theirs = model[a.other];
          expect(status).toBe(!lives(m) ? 401 : theirs?.who === m.who ? 200 : 404);
          if (!lives(m)) continue;
          touch(m);
          if (status === 200) model[a.other] = null;
        }
      }
      for (const [i, own] of browsers.entries())
        expect((await own('GET', '/sessions', undefined, { 'ledgerline-idle': '1' })).status, `browser ${i}`).toBe(
          lives(model[i]) ? 200 : 401,
        );
    }),
    { numRuns: 40, endOnFailure: true },
  );
}, 120_000);
