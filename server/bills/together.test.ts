import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makePdf } from '@ledgerline/documents/maker';
import { addNote, sawNotes } from '../notes/service.ts';
import { unseenBy } from '../notes/store.ts';
import { todayFor } from '../today/store.ts';
import { arrive, invoiceOf, makeWorld, testDay, type World } from '../testing/world.ts';
import { setCompany } from '../companies/service.ts';
import { newBill } from './by-hand.ts';
import { changeBill } from './change.ts';
import { documentsFor, fileForBill } from './documents.ts';
import { comeBack } from './come-back.ts';
import { assignBill, takeNext } from './hands.ts';
import { moveToCompany } from './move-company.ts';
import { approve, restore, returnBill, sendOn, setAside } from './moves.ts';
import { atBill, leftBill } from './presence.ts';
import { listBills, nextBill } from './search.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const as = (name: string, code?: string) => world.as(name, code);
const version = async (id: string, code?: string) => (await world.show(id, code)).rowVersion;
const ids = { not: [] as string[], prefer: [] as string[] };

describe('the shared queue', () => {
  it('gives twenty clerks who ask at once twenty different bills, round after round, and the rest nothing', async () => {
    const built: string[] = [];
    for (let i = 0; i < 50; i++) built.push(await world.build.bill({ number: `Q-${i}` }));
    const ines = await as('Ines Okafor');
    const clerks = await Promise.all(
      Array.from({ length: 20 }, async (_, i) => {
        const id = crypto.randomUUID();
        await world.rows(
          "insert into person (id, name, email, password_hash) values ($1, $2, $3, '-')",
          id,
          `Clerk ${i}`,
          `clerk${i}@x.example`,
        );
        await world.rows("insert into membership (person_id, company_id, role) values ($1, $2, 'clerk')", id, ines.company.id);
        return { ...ines, me: { ...ines.me, id, name: `Clerk ${i}` } };
      }),
    );
    const held = new Map<string, string>();
    for (const expected of [20, 20, 10]) {
      const got = await Promise.all(
        clerks.map(async (who) => {
          const not = [...held].flatMap(([id, by]) => (by === who.me.id ? [id] : []));
          return { by: who.me.id, id: (await world.run(takeNext, who, {}, { prefer: [], not })).id };
        }),
      );
      const fresh = got.filter((g) => g.id !== null);
      expect(new Set(fresh.map((g) => g.id)).size).toBe(expected);
      expect(fresh).toHaveLength(expected);
      for (const { by, id } of fresh) {
        expect(held.has(id!), 'taken before').toBe(false);
        held.set(id!, by);
      }
    }
    for (const row of await world.rows('select id, assignee_id from bill')) expect(held.get(row.id)).toBe(row.assignee_id);
    await world.rows("update bill set stage = 'discarded', assignee_id = null where id = any($1)", built);
  });
  it('goes by discount, due date, amount or age, as the company says; a preferred one first; never what somebody else has', async () => {
    const [old, soon, large] = [
      await world.build.bill({ number: 'O-1', createdAt: new Date('2026-01-01'), dueDate: '2026-12-30', lines: [{ amount: '10.00' }] }),
      await world.build.bill({ number: 'O-2', createdAt: new Date('2026-01-02'), dueDate: '2026-11-30', lines: [{ amount: '20.00' }] }),
      await world.build.bill({ number: 'O-3', createdAt: new Date('2026-01-03'), dueDate: '2026-12-31', lines: [{ amount: '30.00' }] }),
    ];
    const ines = await as('Ines Okafor'),
      kit = await as('Kit Arden');
    await world.run(changeBill, ines, { id: old }, { rowVersion: 1, operations: [{ do: 'set', field: 'terms', value: '2/10 n30' }] });
    expect((await world.show(old)).discountUntil).not.toBeNull();
    const settings = { name: ines.company.name, taxId: null, mailAddress: ines.company.mailAddress };
    const first = async (queueOrder: string, more: Partial<typeof ids> = {}) => {
      await world.run(setCompany, kit, {}, { ...settings, queueOrder });
      const { id } = await world.run(takeNext, ines, {}, { ...ids, ...more });
      await world.rows('update bill set assignee_id = null');
      return id;
    };
    expect([await first('age'), await first('due'), await first('amount'), await first('discount')]).toEqual([old, soon, large, old]);
    expect(await first('age', { prefer: [large] })).toBe(large);
    expect(await first('age', { not: [old] })).toBe(soon);
    await world.run(assignBill, ines, { id: old }, { rowVersion: await version(old), personId: (await as('Tobias Fenn')).me.id });
    expect((await world.run(takeNext, ines, {}, ids)).id).toBe(soon);
    expect((await nextBill(world.database.db, ines.company.id, (await as('Tobias Fenn')).me.id, 'review', undefined)).id).toBe(old);
    await world.run(setCompany, kit, {}, { ...settings, queueOrder: 'age' });
  });
  it('a bill is assigned, taken over and given back; only to somebody who may work on it; found by whose hands it is in', async () => {
    const id = await world.build.bill({ number: 'H-1' });
    const ines = await as('Ines Okafor'),
      tobias = await as('Tobias Fenn');
    const assign = async (personId: string | null) => world.run(assignBill, ines, { id }, { rowVersion: await version(id), personId });
    expect((await assign(tobias.me.id)).assignee?.name).toBe('Tobias Fenn');
    await expect(assign((await as('Halina Voss')).me.id)).rejects.toThrow('Only somebody who works on bills');
    const found = async (who: typeof ines, q: string) =>
      (await listBills(world.database.db, who, { q }, testDay)).map((r) => r.row.invoiceNumber);
    expect([await found(tobias, 'hands:me h-1'), await found(ines, 'hands:me h-1'), await found(ines, 'hands:tobias h-1')]).toEqual([['H-1'], [], ['H-1']]); // prettier-ignore
    await assign(ines.me.id);
    await assign(null);
    expect(await found(ines, 'hands:nobody h-1')).toEqual(['H-1']);
    expect((await world.show(id)).events.map((e) => [e.verb, e.changes[0]?.after]).slice(-3)).toEqual([
      ['assigned', 'Tobias Fenn'],
      ['taken over', 'Ines Okafor'],
      ['given back', null],
    ]);
  });
  it('a returned bill comes back into the hands of who sent it', async () => {
    const id = await world.build.bill({ number: 'H-2' });
    await world.run(sendOn, await as('Ines Okafor'), { id }, { rowVersion: 1 });
    const back = await world.run(returnBill, await as('Marguerite Sable'), { id }, { rowVersion: 2, note: 'Wrong centre' });
    expect(back.assignee?.name).toBe('Ines Okafor');
  });
});

describe('set aside until a day', () => {
  it('comes back on it, by itself, with its reason; not before, and once', async () => {
    const id = await world.build.bill({ number: 'A-1' });
    const aside = async (until: string | null) =>
      world.run(setAside, await as('Ines Okafor'), { id }, { rowVersion: await version(id), note: 'Waiting for the delivery', until });
    await expect(aside(testDay)).rejects.toThrow('Choose a day after today');
    expect(await aside('2026-11-25')).toMatchObject({ stage: 'set-aside', asideUntil: '2026-11-25' });
    expect(await comeBack(world.services)).toBe(0);
    const later = { ...world.services, now: () => new Date('2026-11-25T06:00:00Z') };
    expect([await comeBack(later), await comeBack(later)]).toEqual([1, 0]);
    const back = await world.show(id);
    expect(back).toMatchObject({ stage: 'read', asideUntil: null, note: 'Waiting for the delivery' });
    expect(back.events.at(-1)).toMatchObject({ verb: 'came back', person: null });
  });
  it('without a day it waits; taken up again by hand the day is forgotten', async () => {
    const id = await world.build.bill({ number: 'A-2' });
    const ines = await as('Ines Okafor');
    await world.run(setAside, ines, { id }, { rowVersion: 1, note: 'For later', until: '2026-12-24' });
    expect(await world.run(restore, ines, { id }, { rowVersion: 2 })).toMatchObject({ stage: 'read', asideUntil: null });
  });
});

describe('notes', () => {
  it('reach whom they name under Today until they have seen the bill, and stay as they were written', async () => {
    const id = await world.build.bill({ number: 'N-1' });
    const ines = await as('Ines Okafor'),
      marguerite = await as('Marguerite Sable'),
      rufus = await as('Rufus Pell', 'MNT');
    const noted = await world.run(addNote, ines, { id }, { text: '@Marguerite Is this yours?', mentions: [marguerite.me.id, ines.me.id] });
    expect(noted.notes).toMatchObject([
      { person: 'Ines Okafor', text: '@Marguerite Is this yours?', mentions: [{ name: 'Marguerite Sable' }] },
    ]);
    const mentions = async (who: typeof ines) => (await todayFor(world.database.db, who, testDay)).mentions.map((m) => m.invoiceNumber);
    expect([await mentions(marguerite), await mentions(ines)]).toEqual([['N-1'], []]);
    await world.run(sawNotes, marguerite, { id }, {});
    expect(await mentions(marguerite)).toEqual([]);
    await expect(world.database.pool.query('update bill_note set text = $1', ['x'])).rejects.toThrow('permission denied');
    // Neither somebody of another company, nor to somebody of another company.
    await expect(world.run(addNote, rufus, { id }, { text: 'Hello', mentions: [] })).rejects.toMatchObject({ status: 404 });
    await expect(world.run(addNote, ines, { id }, { text: 'Hello', mentions: [crypto.randomUUID()] })).rejects.toMatchObject({
      status: 422,
    });
    expect(await unseenBy(world.database.db, rufus.company.id, marguerite.me.id)).toEqual([]);
  });
});

describe('two at one bill', () => {
  it('see each other, until one leaves or is not heard of', async () => {
    const id = await world.build.bill();
    const at = async (name: string, services = world.services) =>
      (await atBill.perform(services, await as(name), { id }, {})).others.map((o) => o.name);
    expect(await at('Ines Okafor')).toEqual([]);
    expect(await at('Tobias Fenn')).toEqual(['Ines Okafor']);
    expect(await at('Ines Okafor')).toEqual(['Tobias Fenn']);
    await world.run(leftBill, await as('Tobias Fenn'), { id }, {});
    expect(await at('Ines Okafor')).toEqual([]);
    const later = { ...world.services, now: () => new Date(world.services.now().getTime() + 60_000) };
    expect(await at('Tobias Fenn', later)).toEqual([]);
    await expect(atBill.perform(world.services, await as('Rufus Pell', 'MNT'), { id }, {})).rejects.toMatchObject({ status: 404 });
  });
});

describe('a bill in the wrong company', () => {
  it('is made anew in the right one with what was typed, supplier and coding as known there; both say so', async () => {
    const id = await arrive(world, invoiceOf(0, { number: 'W-1', lines: 2 }));
    const ines = await as('Ines Okafor');
    await world.run(changeBill, ines, { id }, { rowVersion: await version(id), operations: [{ do: 'set', field: 'purchaseOrder', value: 'PO-TYPED' }] }); // prettier-ignore
    const there = ines.me.companies.find((c) => c.code === 'MNT')!;
    const before = await world.show(id);
    const moved = await world.run(moveToCompany, ines, { id }, { rowVersion: before.rowVersion, companyId: there.id });
    const made = await world.show(moved.billId, 'MNT');
    expect(made).toMatchObject({
      companyId: there.id,
      stage: 'read',
      invoiceNumber: 'W-1',
      purchaseOrder: 'PO-TYPED',
      gross: before.gross,
    });
    expect(made.lines.map((l) => [l.description, l.amount])).toEqual(before.lines.map((l) => [l.description, l.amount]));
    expect(made.documentId).not.toBe(before.documentId);
    expect(made.events.at(-1)).toMatchObject({ verb: 'moved', note: `From ${ines.company.name}`, person: 'Ines Okafor' });
    const old = await world.show(id);
    expect(old).toMatchObject({ stage: 'discarded', note: `Moved to ${there.name}.` });
    const pages = async (documentId: string) =>
      (await world.rows('select count(*)::int as n from document_page where document_id = $1', documentId))[0].n;
    expect(await pages(made.documentId!)).toBe(await pages(before.documentId!));
    expect(await world.rows('select event_chain_break($1) as at', there.id)).toEqual([{ at: null }]);
  });
  it('takes the documents beside it along, its own that was brought for it, and who worked on it', async () => {
    const ines = await as('Ines Okafor');
    const { id } = await world.run(newBill, ines, {}, { as: 'new' });
    const file = async (number: string) => ({
      name: `${number}.pdf`,
      mediaType: 'application/pdf',
      bytes: await makePdf(invoiceOf(0, { number })),
    });
    await fileForBill(world.services, ines, id, 'own', () => file('W-7'));
    await world.drain();
    await fileForBill(world.services, ines, id, 'further', () => file('W-8'));
    await world.drain();
    await world.run(changeBill, await as('Tobias Fenn'), { id }, { rowVersion: await version(id), operations: [{ do: 'set', field: 'terms', value: 'net 9' }] }); // prettier-ignore
    const there = ines.me.companies.find((c) => c.code === 'MNT')!;
    const moved = await world.run(moveToCompany, ines, { id }, { rowVersion: await version(id), companyId: there.id });
    const made = await world.show(moved.billId, 'MNT');
    expect(made).toMatchObject({ invoiceNumber: 'W-7', terms: 'net 9' });
    expect(made.workedOn.sort()).toEqual([ines.me.id, (await as('Tobias Fenn')).me.id].sort());
    const { further } = await documentsFor(world.database.db, there.id, moved.billId, world.services.now());
    expect(further.map((d) => d.name)).toEqual(['W-8.pdf']);
  });
  it('not by somebody who may not work there, not to a company that they do not know, not once it is sent on', async () => {
    const id = await world.build.bill({ number: 'W-2' });
    const ines = await as('Ines Okafor');
    const move = async (companyId: string, who = ines) =>
      world.run(moveToCompany, who, { id }, { rowVersion: await version(id), companyId });
    await expect(move(crypto.randomUUID())).rejects.toMatchObject({ status: 404 });
    await expect(move(ines.company.id)).rejects.toMatchObject({ status: 404 });
    const there = ines.me.companies.find((c) => c.code === 'MNT')!;
    const unable = {
      ...ines,
      me: { ...ines.me, companies: ines.me.companies.map((c) => (c.code === 'MNT' ? { ...c, roles: ['approver'] } : c)) },
    };
    await expect(move(there.id, unable)).rejects.toMatchObject({ status: 403 });
    await world.run(sendOn, ines, { id }, { rowVersion: await version(id) });
    await world.run(approve, await as('Marguerite Sable'), { id }, { rowVersion: await version(id) });
    await expect(move(there.id)).rejects.toMatchObject({ status: 409 });
    expect((await world.show(id)).stage).toBe('approved');
  });
});
