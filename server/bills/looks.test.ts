import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { arrive, invoiceOf, makeWorld, type World } from '../testing/world.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const said = async (id: string) => (await world.show(id)).exceptions.map((e) => [e.code, e.other, e.sentence]);
const supplier = () => world.someSupplier('MBG')!;
/** A page as a supplier lays it out, with its figures. */
const page = (number: string, day: string, total: string) =>
  `Fernwick Glass Limited Invoice Number ${number} Date ${day} Account 40512 GB123456789 Panes 12.50 Putty 88.10 Canes 43.27 Total ${total} Payment Telephone`.split(' '); // prettier-ignore
const billed = async (words: string[], wish: object = {}) =>
  world.build.bill({ supplier: supplier(), ...wish, documentId: await world.build.document({ words }) });

describe('the same paper twice', () => {
  it('asks, and names the other bill, whatever number was read', async () => {
    const first = await billed(page('QH-20411', '2026-11-03', '172.64'), { number: 'QH-20411', issueDate: '2026-11-03' });
    const again = await billed(page('QH-20A7Z', '2026-11-03', '172.64'), { number: '9917', issueDate: '2026-11-03' });
    expect(await said(again)).toEqual([
      ['same-paper', first, 'The page says the same as that of QH-20411 of 3 Nov 2026, in the same places. Is it the same paper?'],
    ]);
    const unread = await billed(page('QH-20411', '2026-11-03', '172.64'), { supplier: null, number: '55512', gross: '120.00' });
    await world.rows('update bill set issue_date = null, gross = null where id = $1', unread);
    expect((await said(unread)).map(([code, other]) => [code, other])).toContainEqual(['same-paper', first]);
    // What was put aside for good is no bill any more.
    await world.rows(`update bill set stage = 'discarded' where id = any($1)`, [[first, unread]]);
    expect(await said(again)).toEqual([]);
  });
  it('is not another day’s, nor another total, nor said where the number tells it already', async () => {
    await billed(page('QH-3', '2026-11-05', '200.00'), { number: 'QH-30777', issueDate: '2026-11-05' });
    expect(await said(await billed(page('QH-4', '2026-12-05', '200.00'), { number: '7741', issueDate: '2026-11-06' }))).toEqual([]);
    const dearer = { number: '7742', issueDate: '2026-11-05', lines: [{ amount: '101.00' }] };
    expect(await said(await billed(page('QH-3', '2026-11-05', '200.00'), dearer))).toEqual([]);
    const codes = (await said(await billed(page('QH-3', '2026-11-05', '200.00'), { number: 'QH-307770', issueDate: '2026-11-05' }))).map(([code]) => code); // prettier-ignore
    expect(codes).toEqual(['duplicate-alike']);
  });
  it('in another company it is told without its id', async () => {
    const of = page('ZZ-1', '2026-11-09', '61.00');
    await world.build.bill({ company: 'MNT', number: 'ZZ-20188', issueDate: '2026-11-09', documentId: await world.build.document({ company: 'MNT', words: of }) }); // prettier-ignore
    expect(await said(await billed(of, { number: 'YY-88310', issueDate: '2026-11-09' }))).toMatchObject([
      ['same-paper', null, expect.stringContaining('of ZZ-20188 of 9 Nov 2026 in ')],
    ]);
  });
  it('is found of pages that were read, not only of those that a test wrote', async () => {
    const sent = invoiceOf(5, { number: 'KP-70417' });
    const first = await arrive(world, sent);
    const again = await arrive(world, { ...sent, number: 'XM-51938' });
    expect(await said(again)).toContainEqual(['same-paper', first, expect.any(String)]);
  });
});

describe('a page that looks unlike its supplier’s others', () => {
  it('asks from three on, and not where one looked like it', async () => {
    const like = page('A', 'B', 'C').filter((w) => /^\p{L}{3,}$/u.test(w));
    const of = world.someSupplier('MNT')!;
    const make = async (words: string[], number: string, stage: 'read' | 'coded') =>
      world.build.bill({ company: 'MNT', supplier: of, currency: 'EUR', number, stage, lines: [{ amount: `${10 + number.length}.0${number.at(-1)}` }], documentId: await world.build.document({ company: 'MNT', words }) }); // prettier-ignore
    const other = [...like].reverse();
    const codes = async (id: string) => (await world.show(id, 'MNT')).exceptions.map((e) => [e.code, e.sentence]);
    await make(like, 'L-1', 'coded');
    await make(like, 'L-2', 'coded');
    expect(await codes(await make(other, 'L-3', 'read'))).toEqual([]);
    await make(like, 'L-4', 'coded');
    expect(await codes(await make(other, 'L-5', 'read'))).toEqual([['layout-new', `The page looks unlike the last 3 of ${of}.`]]);
    expect(await codes(await make(like, 'L-6', 'read'))).toEqual([]);
    await make(other, 'L-7', 'coded');
    expect(await codes(await make(other, 'L-8', 'read'))).toEqual([]);
  });
});
