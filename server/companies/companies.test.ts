import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makePdf } from '@ledgerline/documents/maker';
import { rateOn } from '../bills/store.ts';
import { postBills } from '../ledger/posting.ts';
import { looking, takeFiles } from '../testing/arrivals.ts';
import { invoiceOf, makeWorld, testDay, type World } from '../testing/world.ts';
import { companySettings, setCompany } from './service.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const { billsOf } = looking(() => world);
const kit = (code = 'MBG') => world.as('Kit Arden', code);
async function set(more: object, code = 'MBG') {
  const { baseCurrency: _, country: _c, ...now } = await companySettings(world.database.db, world.master.company(code).id);
  await world.run(setCompany, await kit(code), {}, { ...now, ...more });
}

describe('other names of a company', () => {
  it('bring what is addressed to them to it', async () => {
    const own = invoiceOf(0, { number: 'B-1', lines: 2 }),
      of = async (number: string) => {
        const invoice = { ...own, number, buyer: { ...own.buyer, name: 'Tanglewood Potting Sheds' } };
        const id = await takeFiles(world, [{ name: `${number}.pdf`, mediaType: 'application/pdf', bytes: await makePdf(invoice) }], { channel: 'folder' }); // prettier-ignore
        return (await billsOf(id)).map((b) => b.company_id);
      };
    const [mbg, mnt] = ['MBG', 'MNT'].map((code) => world.master.company(code).id);
    expect(await of('B-2')).toEqual([mbg]);
    await set({ billToNames: [' Tanglewood Potting Sheds ', 'Tanglewood Potting Sheds'] }, 'MNT');
    expect((await companySettings(world.database.db, mnt!)).billToNames).toEqual(['Tanglewood Potting Sheds']);
    expect(await of('B-3')).toEqual([mnt]);
    const [event] = await world.rows(`select before, after from event where subject_type = 'company' and company_id = $1 order by seq desc limit 1`, mnt); // prettier-ignore
    expect(event).toEqual({ before: { billToNames: null }, after: { billToNames: 'Tanglewood Potting Sheds' } });
  });
});

describe('rates by month', () => {
  it('are those of the first of the bill’s month, or the last before it', async () => {
    const { id } = world.master.company('MBG');
    await world.rows(`delete from exchange_rate where company_id = $1`, id);
    await world.rows(`insert into exchange_rate (company_id, currency, day, rate) values ($1, 'EUR', '2026-10-30', 0.8), ($1, 'EUR', '2026-11-10', 0.9)`, id); // prettier-ignore
    const rate = (day: string) => rateOn(world.database.db, id, 'EUR', 'GBP', day);
    expect(await Promise.all(['2026-11-09', '2026-11-10', '2026-12-01', '2026-10-29'].map(rate))).toEqual(['0.8', '0.9', '0.9', null]);
    await set({ rateBy: 'month' });
    expect(await Promise.all(['2026-11-09', '2026-11-10', '2026-12-01', '2026-10-31'].map(rate))).toEqual(['0.8', '0.8', '0.9', null]);
    await set({ rateBy: 'day' });
    await expect(set({ rateBy: 'week' })).rejects.toMatchObject({ status: 400 });
  });
});

describe('a bill in parts', () => {
  const posted = async (number: string, more: object) => {
    const id = await world.build.bill({ number, stage: 'read', issueDate: '2026-11-02', lines: [{ amount: '100.01' }], tax: '20.00', ...more }); // prettier-ignore
    await world.rows(`update bill set terms = '50% 30 days, 50% 60 days' where id = $1`, id);
    await world.rows(`update bill set stage = 'coded', sent_by = $2, sent_at = now() where id = $1`, id, world.master.person('Ines Okafor')); // prettier-ignore
    await world.rows(`update bill set stage = 'approved', approved_by = $2, approved_at = now() where id = $1`, id, world.master.person('Marguerite Sable')); // prettier-ignore
    await world.run(postBills, await world.as('Halina Voss'), {}, { key: `parts-${number}`, billIds: [id], entryDate: testDay });
    return world.rows(`select due_date::text as due, amount, base_amount from open_item where source_id = $1 order by due_date`, id);
  };
  it('falls due part by part, on working days as the company wants it', async () => {
    expect(await posted('T-1', { dueDate: '2026-12-02' })).toEqual([
      { due: '2026-12-02', amount: '60.01', base_amount: '60.01' },
      { due: '2027-01-01', amount: '60', base_amount: '60' },
    ]);
    await set({ dueOn: 'next' });
    expect((await posted('T-2', { dueDate: '2026-12-02' })).map((i) => i.due)).toEqual(['2026-12-02', '2027-01-04']);
    // Entered when such a Saturday stayed what it is, posted since the company moves it.
    const earlier = await posted('T-6', { issueDate: '2026-11-05', dueDate: '2026-12-05' });
    expect(earlier.map((i) => i.due)).toEqual(['2026-12-05', '2027-01-04']);
    expect(await world.rows('select * from sums_off()')).toEqual([]);
  });
  it('falls due as a whole on a day that somebody set, and as a credit note', async () => {
    expect((await posted('T-3', { dueDate: '2026-12-15' })).map((i) => [i.due, i.amount])).toEqual([['2026-12-15', '120.01']]);
    expect(await posted('T-4', { dueDate: '2026-12-02', kind: 'credit-note' })).toHaveLength(1);
  });
  it('in another currency comes to the same in both', async () => {
    await world.rows(`delete from exchange_rate where company_id = $1`, world.master.company('MBG').id);
    await world.rows(`insert into exchange_rate (company_id, currency, day, rate) values ($1, 'EUR', '2026-10-30', 0.8333)`, world.master.company('MBG').id); // prettier-ignore
    const items = await posted('T-5', { dueDate: '2026-12-02', currency: 'EUR' });
    // 120.01 × 0.8333 = 100.004333: 100.00 in all, of which 50.004 and 49.996.
    expect(items.map((i) => [i.amount, Number(i.base_amount)])).toEqual([['60.01', 50], ['60', 50]]); // prettier-ignore
  });
});
