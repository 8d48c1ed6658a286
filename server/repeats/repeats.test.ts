import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { settleException } from '../bills/settle.ts';
import { sendOn } from '../bills/moves.ts';
import { takeFiles } from '../testing/arrivals.ts';
import { makePdf } from '@ledgerline/documents/maker';
import { arrive, invoiceOf, makeWorld, type World } from '../testing/world.ts';
import { changeRepeat, newRepeat } from './service.ts';
import { listRepeats } from './store.ts';
import { makeTurns } from './turns.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const ines = () => world.as('Ines Okafor');
const on = (day: string) => ({ ...world.services, now: () => new Date(`${day}T06:00:00Z`) });
const plain = { every: 'month' as const, weeks: null, until: null, fixed: true, documentWithin: null as number | null };
const repeatOf = async (billId: string, more: object) =>
  (await world.run(newRepeat, await ines(), {}, { billId, name: 'Rent', begins: '2026-11-01', ...plain, ...more })).id;
const turns = async (repeatId: string) =>
  (await world.rows('select id, turn::text, issue_date::text as dated, invoice_number as number, gross from bill where repeat_id = $1 order by turn', repeatId)); // prettier-ignore
const listed = async (id: string) => (await listRepeats(world.database.db, (await ines()).company.id)).find((r) => r.id === id);

describe('a bill that repeats', () => {
  it('is made on each of its days, once, with number and due date where no document comes, until its last', async () => {
    const rent = await world.build.bill({ number: 'RENT-OCT', issueDate: '2026-11-01' });
    await world.rows(`update bill set terms = 'net 10' where id = $1`, rent);
    const id = await repeatOf(rent, { until: '2027-01-15' });
    expect(await listed(id)).toMatchObject({ nextOn: '2026-12-01', gross: '120.00', waiting: 0, missed: 0 });
    expect([await makeTurns(on('2026-11-30')), await makeTurns(on('2026-12-01')), await makeTurns(on('2026-12-01'))]).toEqual([0, 1, 0]);
    expect(await turns(id)).toMatchObject([{ turn: '2026-12-01', dated: '2026-12-01', number: 'Rent 2026-12-01', gross: '120.00' }]);
    const made = await world.show((await turns(id))[0].id);
    // It is the bill of whoever made it repeat: they cannot approve it.
    expect(made.workedOn).toEqual([(await ines()).me.id]);
    expect(made).toMatchObject({ dueDate: '2026-12-11', assignee: null, lines: [{ amount: '100.00' }] });
    expect(made.exceptions.filter((e) => e.severity === 'stops')).toEqual([]);
    // The server was away over two turns: both are made, and no more after the last day.
    expect(await makeTurns(on('2027-03-05'))).toBe(1);
    expect((await listed(id))!.nextOn).toBeNull();
  });
  it('with amounts to fill in waits for its document, which joins by supplier and date and fills them', async () => {
    const first = await arrive(world, invoiceOf(0, { number: 'POWER-10', issueDate: '2026-10-05' }));
    const id = await repeatOf(first, { name: 'Power', begins: '2026-11-18', fixed: false, documentWithin: 10 });
    await makeTurns(on('2026-11-18'));
    const [turn] = await turns(id);
    expect(turn).toMatchObject({ gross: null, number: null });
    const waiting = await world.show(turn.id);
    expect(waiting.exceptions.map((e) => e.code)).toContain('document-awaited');
    await expect(world.run(sendOn, await ines(), { id: turn.id }, { rowVersion: waiting.rowVersion })).rejects.toMatchObject({
      status: 422,
    });
    // One that is far off in time stays a bill of its own.
    await arrive(world, invoiceOf(0, { number: 'POWER-09', issueDate: '2026-09-01' }));
    const came = invoiceOf(0, { number: 'POWER-11', issueDate: '2026-11-21' });
    await takeFiles(world, [{ name: 'power.pdf', mediaType: 'application/pdf', bytes: await makePdf(came) }]);
    const bill = await world.show(turn.id);
    expect(bill).toMatchObject({ invoiceNumber: 'POWER-11', issueDate: '2026-11-21', gross: came.gross });
    expect(bill.documentId).not.toBeNull();
    expect(bill.events.at(-1)).toMatchObject({ verb: expect.stringMatching(/joined|changed/) });
    expect(bill.events.map((e) => e.note)).toContain('power.pdf came and fits');
    expect(bill.exceptions.map((e) => e.code)).not.toContain('document-awaited');
  });
  it('with fixed amounts takes no document of another amount; one that does not come is missed and says so, and can be confirmed', async () => {
    const first = await arrive(world, invoiceOf(1, { number: 'LEASE-1', issueDate: '2026-10-01' }));
    const gross = (await world.show(first)).gross;
    const id = await repeatOf(first, { name: 'Lease', begins: '2026-11-10', documentWithin: 5 });
    await makeTurns(on('2026-11-10'));
    const [turn] = await turns(id);
    const other = await arrive(world, invoiceOf(1, { number: 'LEASE-2', issueDate: '2026-11-11', lines: 3 }));
    expect((await world.show(other)).gross).not.toBe(gross);
    expect((await world.show(turn.id)).documentId).toBeNull();
    expect(await listed(id)).toMatchObject({ waiting: 1, missed: 0 });
    await makeTurns(on('2026-11-17'));
    expect(await listed(id)).toMatchObject({ waiting: 0, missed: 1 });
    const missed = await world.show(turn.id);
    const e = missed.exceptions.find((x) => x.code === 'document-missed')!;
    expect(e.sentence).toBe('Its document was expected by 2026-11-15 and has not come. Ask for it; or confirm to go on without.');
    const settled = await world.run(settleException, await ines(), { id: turn.id }, { rowVersion: missed.rowVersion, code: e.code, path: e.path, key: e.key, how: 'confirm' }); // prettier-ignore
    expect(settled.exceptions.map((x) => x.code)).not.toContain('document-missed');
  });
  it('is changed and ended for what is still to come; what does not go together is refused in words', async () => {
    const id = await repeatOf(await world.build.bill({ number: 'W-1', issueDate: '2026-10-20' }), {
      name: 'Weekly',
      every: 'weeks',
      weeks: 2,
      begins: '2026-11-02',
    });
    const change = async (more: object) =>
      world.run(
        changeRepeat,
        await ines(),
        { id },
        { rowVersion: (await listed(id))!.rowVersion, name: 'Weekly', begins: '2026-11-02', ...plain, ...more },
      );
    await makeTurns(on('2026-11-16'));
    expect((await turns(id)).map((t) => t.turn)).toEqual(['2026-11-02', '2026-11-16']);
    await change({ every: 'month' });
    expect((await listed(id))!.nextOn).toBe('2026-12-02');
    await change({ until: '2026-11-20' });
    expect((await listed(id))!.nextOn).toBeNull();
    await expect(change({ every: 'weeks' })).rejects.toThrow('Say how many weeks');
    await expect(change({ until: '2026-11-01' })).rejects.toThrow('The last day is before the first');
    await expect(world.run(changeRepeat, await world.as('Ines Okafor', 'MNT'), { id }, { rowVersion: 1, name: 'Theirs', begins: '2026-11-02', ...plain })).rejects.toMatchObject({ status: 404 }); // prettier-ignore
    await expect(world.run(newRepeat, await ines(), {}, { billId: await world.build.bill({ supplier: null }), name: 'No', begins: '2026-11-02', ...plain })).rejects.toThrow('Choose the supplier first'); // prettier-ignore
  });
});
