import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { makePdf } from '@ledgerline/documents/maker';
import { retryable } from '../testing/failing.ts';
import { transaction } from '../events/record.ts';
import { readAgain } from '../arrivals/pages.ts';
import { readArrived, readJob } from '../reading/service.ts';
import { takeFiles } from '../testing/arrivals.ts';
import { invoiceOf, makeWorld, type World } from '../testing/world.ts';
import { startJobs, type Jobs } from './jobs.ts';
import { sweepJobs } from './sweep.ts';

let world: World, jobs: Jobs;
beforeAll(async () => {
  world = await makeWorld();
  jobs = await startJobs(world.url);
  world.services.queue = jobs;
});
afterAll(async () => {
  await jobs.close();
  await world.close();
});
const queued = async (id: string) =>
  (await world.rows(`select count(*)::int as n from pgboss.job where singleton_key = $1 and state < 'active'`, id))[0].n as number;
const file = async (number: string) => ({ name: `${number}.pdf`, bytes: await makePdf(invoiceOf(1, { number, lines: 1 })) });
const documentOf = async (arrivalId: string) => (await world.rows('select * from document where arrival_id = $1', arrivalId))[0];

describe('work', () => {
  it('is queued with what needs it, or not at all', async () => {
    const doc = await documentOf(await takeFiles(world, [await file('J-1')]));
    expect(await queued(doc.id)).toBe(1);
    await expect(
      transaction(world.database.db, async (tx) => {
        await jobs.reading(tx, '01900000-0000-7000-8000-00000000dead');
        throw new Error('on purpose');
      }),
    ).rejects.toThrow('on purpose');
    expect(await queued('01900000-0000-7000-8000-00000000dead')).toBe(0);
    await transaction(world.database.db, (tx) => jobs.reading(tx, doc.id));
    expect(await queued(doc.id), 'asked for twice, it waits once').toBe(1);
  });
  it('that was left lying is queued again by the sweep: a job that is gone, a worker that died; what is in hand is not', async () => {
    const [gone, died, held] = await Promise.all(
      ['J-2', 'J-3', 'J-4'].map(async (n) => documentOf(await takeFiles(world, [await file(n)]))),
    );
    await world.rows(`delete from pgboss.job where singleton_key in ($1, $2, $3)`, gone.id, died.id, held.id);
    await world.rows(`update document set state = 'reading' where id in ($1, $2)`, died.id, held.id);
    const { alone } = await import('../db/alone.ts');
    await alone(world.database.pool, `document ${held.id}`, async () => {
      await sweepJobs(world.services);
      expect(await Promise.all([gone, died, held].map((d) => queued(d.id)))).toEqual([1, 1, 0]);
      await readArrived(world.services, held.id);
      expect((await world.rows('select state from document where id = $1', held.id))[0].state, 'somebody is at it').toBe('reading');
    });
    await sweepJobs(world.services);
    expect(await queued(held.id)).toBe(1);
  });
  it('that fails again and again says so where people see it, and can be tried again', async () => {
    const error = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    const doc = await documentOf(await takeFiles(world, [await file('J-5')]));
    const restore = retryable(world, 'document_page');
    await restore.break();
    for (const _ of [1, 2]) await expect(readJob(world.services, doc.id, false)).rejects.toThrow();
    expect((await world.rows('select state from document where id = $1', doc.id))[0].state).toBe('reading');
    await readJob(world.services, doc.id, false);
    const [after] = await world.rows('select state, note from document where id = $1', doc.id);
    expect(after).toEqual({ state: 'unreadable', note: expect.stringContaining('try again') });
    expect((await world.rows('select count(*)::int as n from bill where document_id = $1', doc.id))[0].n, 'nothing half-done').toBe(0);
    await restore.mend();
    await world.run(readAgain, await world.as('Ines Okafor'), { id: doc.id }, {});
    expect(await queued(doc.id)).toBeGreaterThan(0);
    await readJob(world.services, doc.id, false);
    expect((await world.rows('select invoice_number from bill where document_id = $1', doc.id))[0].invoice_number).toBe('J-5');
    error.mockRestore();
  });
  it('is no failure where the database was away', async () => {
    const doc = await documentOf(await takeFiles(world, [await file('J-6')]));
    const { reader } = world.services;
    world.services.reader = { readQuickly: () => Promise.reject(Object.assign(new Error('x'), { code: '57P01' })) } as never;
    for (const _ of [1, 2, 3, 4, 5]) await expect(readJob(world.services, doc.id, false)).rejects.toThrow();
    world.services.reader = reader;
    await readJob(world.services, doc.id, false);
    expect((await world.rows('select tries, state from document where id = $1', doc.id))[0]).toEqual({ tries: 0, state: 'read' });
  });
  it('goes on where the queue cannot note how it went, and leaves nothing of what failed in it', async () => {
    const error = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    await world.rows(`create function jobs_full() returns trigger language plpgsql as $$
      begin raise exception 'no room' using errcode = '53100'; end $$`);
    await world.rows(`create trigger jobs_full before update on pgboss.job for each row
      when (new.state in ('completed', 'failed', 'retry')) execute function jobs_full()`);
    const [good, bad, later] = [1, 2, 3].map((n) => `01900000-0000-7000-8000-00000000000${n}`) as [string, string, string];
    const queue = (id: string) => transaction(world.database.db, (tx) => jobs.reading(tx, id));
    const done: string[] = [];
    const worker = await startJobs(world.url);
    worker.work({
      open: () => Promise.resolve(),
      bringIn: () => Promise.resolve(),
      read: (id) => {
        done.push(id);
        return id === bad ? Promise.reject(Object.assign(new Error('told'), { params: ['\u0000 of a document'] })) : Promise.resolve();
      },
    });
    await queue(good);
    await queue(bad);
    await vi.waitFor(() => expect(done).toEqual(expect.arrayContaining([good, bad])), 10_000);
    // Replaced, not dropped: that would wait for what the worker holds, and it for this.
    await world.rows(`create or replace function jobs_full() returns trigger language plpgsql as $$ begin return new; end $$`);
    await queue(later);
    await queue(bad);
    const job = async (id: string, state: string) =>
      (await world.rows(`select output from pgboss.job where singleton_key = $1 and state = $2`, id, state))[0];
    await vi.waitFor(async () => expect(await job(later, 'completed')).toBeDefined(), 10_000);
    await vi.waitFor(async () => expect(await job(bad, 'retry')).toEqual({ output: null }), 10_000);
    await worker.close();
    error.mockRestore();
  });
});
