import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { sendOn } from '../bills/moves.ts';
import { settleException } from '../bills/settle.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { proposeAccount, retireAccount, verifyAccount } from './bank.ts';
import { changeSupplier, newSupplier } from './service.ts';

// Valid check digits, a bank that does not exist.
const [first, second] = ['GB37XQZB00161331926819', 'GB12XQZB00123456987654'];
let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const blank = { taxId: null, iban: null, email: null, phone: null, address: null, currency: 'GBP', terms: null };
const make = async (name: string, more: object = {}) =>
  world.run(newSupplier, await world.as('Ines Okafor'), {}, { ...blank, name, ...more });
const propose = async (id: string, iban: string, as = 'Ines Okafor', more: object = {}) =>
  world.run(proposeAccount, await world.as(as), { id }, { iban, note: 'From the invoice', ...more });
const verify = async (id: string, as = 'Halina Voss') =>
  world.run(verifyAccount, await world.as(as), { id }, { how: 'Called the number we had' });
const stops = async (id: string) => (await world.show(id)).exceptions.filter((e) => e.severity === 'stops').map((e) => e.code);

describe('bank details', () => {
  it('that are new stop the bill until a second person has verified them', async () => {
    const supplier = await make('Banked Ltd');
    const id = await world.build.bill({ iban: first });
    await world.rows('update bill set supplier_id = $2 where id = $1', id, supplier.id);
    expect(await stops(id)).toEqual(['bank-differs']);
    const account = await propose(supplier.id, first.replace(/(.{4})/g, '$1 '));
    expect(await stops(id)).toEqual(['bank-differs']);
    const before = (await world.show(id)).rowVersion;
    await expect(world.run(sendOn, await world.as('Ines Okafor'), { id }, { rowVersion: before })).rejects.toMatchObject({ status: 422 });
    await verify(account.id);
    expect(await stops(id)).toEqual([]);
    const [row] = await world.rows(`select state, how from bill_exception where bill_id = $1 and code = 'bank-differs'`, id);
    expect(row).toEqual({ state: 'settled', how: 'change' });
  });
  it('are verified by somebody else than who entered them, whatever the role, and by nobody twice', async () => {
    const supplier = await make('Second Person Ltd');
    const account = await propose(supplier.id, second, 'Halina Voss');
    await expect(verify(account.id)).rejects.toThrow('A second person has to verify them');
    await expect(verify(account.id, 'Ines Okafor')).rejects.toMatchObject({ status: 403 });
    await expect(
      world.rows(`update bank_account set verified_by = proposed_by, verified_at = now(), how = 'x' where id = $1`, account.id),
    ).rejects.toMatchObject({
      constraint: 'bank_account_second_person',
    });
    await verify(account.id, 'Kit Arden');
    await expect(verify(account.id, 'Kit Arden')).rejects.toThrow('verified already');
  });
  it('never change: they are retired, and new ones entered', async () => {
    const supplier = await make('Never Change Ltd', { iban: null });
    const { id } = await propose(supplier.id, 'DE30000000990532013000');
    for (const change of [`iban = 'X'`, `supplier_id = gen_random_uuid()`, `proposed_by = null`, `note = 'x'`])
      await expect(world.rows(`update bank_account set ${change} where id = $1`, id), change).rejects.toMatchObject({
        constraint: 'bank_account_stays',
      });
    await expect(world.rows('delete from bank_account where id = $1', id)).rejects.toMatchObject({ constraint: 'bank_account_stays' });
    await world.run(retireAccount, await world.as('Halina Voss'), { id }, {});
    await expect(verify(id, 'Kit Arden')).rejects.toThrow('retired');
  });
  it('with wrong check digits are refused at the field', async () => {
    const supplier = await make('Wrong Digits Ltd');
    await expect(propose(supplier.id, 'GB12XQZB00123456987655')).rejects.toMatchObject({ status: 422, errors: [{ path: 'iban' }] });
  });
  it('are overruled on one bill by a controller with a reason, and for that account alone', async () => {
    const supplier = await make('Overruled Ltd');
    const id = await world.build.bill({ iban: 'FR620009900011050500013M026' });
    await world.rows('update bill set supplier_id = $2 where id = $1', id, supplier.id);
    const [open] = (await world.show(id)).exceptions;
    const { code, path, key } = open!;
    const settle = async (as: string, reason?: string) =>
      world.run(
        settleException,
        await world.as(as),
        { id },
        { rowVersion: (await world.show(id)).rowVersion, code, path, key, how: 'overrule', ...(reason ? { reason } : {}) },
      );
    await expect(settle('Ines Okafor', 'looks right')).rejects.toMatchObject({ status: 403 });
    await expect(settle('Halina Voss')).rejects.toThrow('Give the reason.');
    const done = await settle('Halina Voss', 'Paid by standing order');
    expect([done.exceptions, done.settled.map((s) => [s.how, s.person, s.reason])]).toEqual([
      [],
      [['overrule', 'Halina Voss', 'Paid by standing order']],
    ]);
    await world.rows(`update bill set supplier_iban = 'NL91ABNA0417164300' where id = $1`, id);
    expect(await stops(id)).toEqual(['bank-differs']);
  });
});

describe('the same tax number or bank account under a second supplier', () => {
  it('asks before it is made, and on its bills until somebody confirmed', async () => {
    await make('Original Ltd', { taxId: 'GB 111 2222 33', iban: 'NL91ABNA0417164300' });
    await expect(make('Copy Ltd', { taxId: 'gb111222233' })).rejects.toMatchObject({
      kind: 'asks',
      message: 'Original Ltd has the same tax number. Is it the same supplier?',
    });
    await expect(make('Copy Ltd', { iban: 'NL91 ABNA 0417 1643 00' })).rejects.toMatchObject({ kind: 'asks' });
    const copy = await make('Copy Ltd', { taxId: 'GB111222233', evenSo: true });
    const id = await world.build.bill();
    await world.rows('update bill set supplier_id = $2 where id = $1', id, copy.id);
    const [asks] = (await world.show(id)).exceptions;
    expect(asks).toMatchObject({ code: 'tax-number-shared', severity: 'asks', settledBy: ['confirm'] });
    const { code, path, key } = asks!;
    const rowVersion = (await world.show(id)).rowVersion;
    const done = await world.run(settleException, await world.as('Ines Okafor'), { id }, { rowVersion, code, path, key, how: 'confirm' });
    expect(done.exceptions).toEqual([]);
  });
  it('a change of a supplier is compared with its version, recorded, and checks its bills again', async () => {
    const supplier = await make('Changing Ltd');
    const id = await world.build.bill();
    await world.rows('update bill set supplier_id = $2 where id = $1', id, supplier.id);
    const change = {
      name: 'Changed Ltd',
      taxId: 'GB111222233',
      email: null,
      phone: null,
      address: null,
      currency: 'GBP',
      terms: 'net 30',
      coding: {},
      rowVersion: 1,
    };
    const run = async (body: object) => world.run(changeSupplier, await world.as('Ines Okafor'), { id: supplier.id }, body);
    await expect(run(change)).rejects.toMatchObject({ kind: 'asks' });
    await run({ ...change, evenSo: true });
    await expect(run({ ...change, evenSo: true })).rejects.toMatchObject({ kind: 'changed' });
    expect((await world.rows(`select code from bill_exception where bill_id = $1 and state = 'open'`, id)).map((r) => r.code)).toEqual([
      'tax-number-shared',
    ]);
    const [event] = await world.rows(`select before, after from event where subject_id = $1 and verb = 'changed'`, supplier.id);
    expect(event.after).toEqual({ name: 'Changed Ltd', taxId: 'GB111222233', terms: 'net 30' });
  });
});
