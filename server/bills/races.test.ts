import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chainBreak } from '../events/store.ts';
import { setPeriod } from '../ledger/periods.ts';
import { postBills } from '../ledger/posting.ts';
import { verifyAccount, retireAccount, proposeAccount } from '../suppliers/bank.ts';
import { newSupplier } from '../suppliers/service.ts';
import { makeWorld, testDay, type World } from '../testing/world.ts';
import { changeBill } from './change.ts';
import { approve, discard, returnBill, sendOn, setAside, takeBack } from './moves.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const as = (name: string) => world.as(name);
const outcome = async (...work: Promise<unknown>[]) =>
  (await Promise.allSettled(work)).map((r) => (r.status === 'fulfilled' ? 'done' : (r.reason as { status?: number }).status));
const version = async (id: string) => (await world.show(id)).rowVersion;

describe('at the same moment', () => {
  it('two approvers: one approves, the other is told', async () => {
    const id = await world.build.bill({ stage: 'coded' });
    const rowVersion = await version(id);
    const both = await outcome(
      world.run(approve, await as('Marguerite Sable'), { id }, { rowVersion }),
      world.run(approve, await as('Rufus Pell'), { id }, { rowVersion }),
    );
    expect(both.sort()).toEqual([409, 'done']);
    expect((await world.rows(`select count(*)::int as n from event where subject_id = $1 and verb = 'approved'`, id))[0].n).toBe(1);
  });
  it('approving and taking back: one of the two', async () => {
    for (let i = 0; i < 5; i++) {
      const id = await world.build.bill({ stage: 'coded' });
      const rowVersion = await version(id);
      const both = await outcome(
        world.run(approve, await as('Marguerite Sable'), { id }, { rowVersion }),
        world.run(takeBack, await as('Ines Okafor'), { id }, { rowVersion }),
      );
      expect(both.sort()).toEqual([409, 'done']);
      const [row] = await world.rows('select stage, approved_by is null as open from bill where id = $1', id);
      expect(row.stage === 'approved').toBe(!row.open);
    }
  });
  it('sending on and changing: what was sent is what was checked', async () => {
    for (let i = 0; i < 5; i++) {
      const id = await world.build.bill();
      const rowVersion = await version(id);
      const operations = [{ do: 'set', field: 'gross', value: '999.00' }];
      const both = await outcome(
        world.run(sendOn, await as('Ines Okafor'), { id }, { rowVersion }),
        world.run(changeBill, await as('Tobias Fenn'), { id }, { rowVersion, operations }),
      );
      expect(both.sort()).toEqual([409, 'done']);
      const [row] = await world.rows('select stage, gross from bill where id = $1', id);
      expect([
        ['coded', '120.00'],
        ['read', '999.00'],
      ]).toContainEqual([row.stage, row.gross]);
    }
  });
  it('posting and returning: posted whole, or returned and nothing posted', async () => {
    for (let i = 0; i < 5; i++) {
      const id = await world.build.bill({ stage: 'approved' });
      const rowVersion = await version(id);
      const both = await outcome(
        world.run(postBills, await as('Halina Voss'), {}, { key: `race-post-${i}-return`, billIds: [id], entryDate: testDay }),
        world.run(returnBill, await as('Marguerite Sable'), { id }, { rowVersion, note: 'wait' }),
      );
      expect(both.sort()).toEqual([409, 'done']);
      const [{ n }] = await world.rows('select count(*)::int as n from journal_entry where source_id = $1', id);
      const [{ stage }] = await world.rows('select stage from bill where id = $1', id);
      expect([
        ['posted', 1],
        ['returned', 0],
      ]).toContainEqual([stage, n]);
    }
  });
  it('posting and closing the period: posted before it closes, or not at all', async () => {
    for (let i = 0; i < 5; i++) {
      const id = await world.build.bill({ stage: 'approved' });
      const month = { year: 2026, month: 6 };
      await world.run(setPeriod, await as('Halina Voss'), {}, { ...month, open: true });
      const both = await outcome(
        world.run(postBills, await as('Halina Voss'), {}, { key: `race-close-${i}-x`, billIds: [id], entryDate: '2026-06-15' }),
        world.run(setPeriod, await as('Halina Voss'), {}, { ...month, open: false }),
      );
      expect(both[1]).toBe('done');
      expect(['done', 422]).toContain(both[0]);
      const [{ n }] = await world.rows('select count(*)::int as n from journal_entry where source_id = $1', id);
      expect(n).toBe(both[0] === 'done' ? 1 : 0);
    }
  });
  it('twenty posters: numbers without gaps, each bill once, books balanced', async () => {
    const ids = await world.build.bills(20, (i) => ({ stage: 'approved', number: `RACE-${i}` }));
    const halina = await as('Halina Voss');
    // Each bill is asked for twice, under two keys: one of them posts it.
    const all = await Promise.allSettled(
      ids.flatMap((id, i) =>
        ['a', 'b'].map((k) => world.run(postBills, halina, {}, { key: `race-${i}-${k}-key`, billIds: [id], entryDate: testDay })),
      ),
    );
    expect(all.filter((r) => r.status === 'fulfilled')).toHaveLength(20);
    const numbers = (
      await world.rows('select number from journal_entry where company_id = $1 and year = 2026 order by number', halina.company.id)
    ).map((r) => r.number);
    expect(numbers).toEqual(numbers.map((_, i) => i + 1));
    const [{ off }] = await world.rows('select sum(debit - credit) as off from journal_line');
    expect(Number(off)).toBe(0);
  }, 60_000);
  it('the same invoice number sent on from two bills: one goes on, the other names it', async () => {
    const ids = await world.build.bills(2, () => ({ number: 'TWICE-1' }));
    const both = await Promise.allSettled(ids.map(async (id) => world.run(sendOn, await as('Ines Okafor'), { id }, { rowVersion: 1 })));
    // Each sees the other bill, so neither goes on until one of them is gone.
    expect(both.map((r) => r.status)).toEqual(['rejected', 'rejected']);
    await world.run(discard, await as('Ines Okafor'), { id: ids[0]! }, { rowVersion: await version(ids[0]!), note: 'the other one' });
    expect((await world.run(sendOn, await as('Ines Okafor'), { id: ids[1]! }, { rowVersion: await version(ids[1]!) })).stage).toBe('coded');
  });
  it('a supplier made by two clerks is there once', async () => {
    const body = { name: 'Made Twice Ltd', taxId: null, iban: null, email: null, phone: null, address: null, currency: 'GBP', terms: null };
    const both = await outcome(
      world.run(newSupplier, await as('Ines Okafor'), {}, body),
      world.run(newSupplier, await as('Tobias Fenn'), {}, body),
    );
    expect(both.sort()).toEqual([409, 'done']);
    const codes = (await world.rows(`select code from supplier where company_id = $1`, world.master.company('MBG').id)).map((r) => r.code);
    expect(new Set(codes).size).toBe(codes.length);
  });
  it('verifying and retiring bank details: one after the other, never verified after they were retired', async () => {
    const supplierId = world.master.supplier(world.someSupplier('MBG')!);
    const { id } = await world.run(
      proposeAccount,
      await as('Ines Okafor'),
      { id: supplierId },
      { iban: 'FR620009900011050500013M026', note: 'letter' },
    );
    await outcome(
      world.run(verifyAccount, await as('Halina Voss'), { id }, { how: 'called them' }),
      world.run(retireAccount, await as('Kit Arden'), { id }, {}),
    );
    const [row] = await world.rows('select verified_at, retired_at from bank_account where id = $1', id);
    expect(row.retired_at).not.toBe(null);
    const verbs = (
      await world.rows(`select verb from event where subject_id = $1 and verb like 'bank account%' order by seq`, supplierId)
    ).map((r) => r.verb);
    expect([
      ['bank account entered', 'bank account verified', 'bank account retired'],
      ['bank account entered', 'bank account retired'],
    ]).toContainEqual(verbs);
  });
  it('forty writers of every kind never wait for each other for ever, and the log stays whole', async () => {
    const ids = await world.build.bills(20, () => ({}));
    const work = ids.flatMap((id, i) => [
      (async () =>
        world.run(
          changeBill,
          await as(i % 2 ? 'Ines Okafor' : 'Tobias Fenn'),
          { id },
          { rowVersion: 1, operations: [{ do: 'set', field: 'terms', value: `net ${i}` }] },
        ))(),
      (async () => world.run(setAside, await as('Ines Okafor'), { id }, { rowVersion: 1, note: 'wait' }))(),
    ]);
    const all = await outcome(...work);
    expect(all.filter((o) => o === 'done')).toHaveLength(20);
    expect(all.filter((o) => o === 409)).toHaveLength(20);
    expect(await chainBreak(world.database.db, world.master.company('MBG').id)).toBe(null);
  }, 60_000);
});
