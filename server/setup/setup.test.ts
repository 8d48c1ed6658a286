import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { countries, guideSteps } from '@ledgerline/contract';
import { newAccount } from '../accounts/service.ts';
import { newPerson } from '../people/service.ts';
import { keepMessage } from '../mail/message.ts';
import { looking } from '../testing/arrivals.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { meOf } from '../auth/people.ts';
import { person } from '../db/schema/index.ts';
import { eq } from 'drizzle-orm';
import type { Caller } from '../commands/command.ts';
import { newCompany } from './company.ts';
import { guideOf, setStep } from './guide.ts';
import { setUp } from './service.ts';
import { currencyOf, startingTaxCodes } from './starting.ts';

const wish = { organisation: 'Marrowby', company: 'Marrowby Botanic Gardens', country: 'GB' as const, name: 'Kit Arden', email: 'Kit@marrowby.example', password: 'glasshouse and more' }; // prettier-ignore
let world: World;
beforeAll(async () => {
  world = await makeWorld(false);
  await setUp(world.services, wish);
});
afterAll(() => world.close());
const { rows } = looking(() => world);
async function kit(name = wish.company): Promise<Caller> {
  const me = (await meOf(world.database.db, eq(person.name, 'Kit Arden')))!;
  return { me, company: me.companies.find((c) => c.name === name)!, source: 'test' };
}
const guide = async () => guideOf(world.database.db, (await kit()).company.id);
const states = async () => (await guide()).steps.map((s) => s.state);
const say = async (step: string, state: string) => world.run(setStep, await kit(), { step }, { state });

describe('the first steps', () => {
  it('begin open; what the data tells is done by itself', async () => {
    expect((await guide()).over).toBe(false);
    expect(await states()).toEqual(guideSteps.map(() => 'open'));
    const put = { code: '6150', name: 'Glasshouse repairs', group: 'Premises', kind: 'expense', needsCostCentre: false, parentId: null, postable: true, taxCodeId: null, active: true, validFrom: null, validTo: null }; // prettier-ignore
    await world.run(newAccount, await kit(), {}, put);
    await world.run(newPerson, await kit(), {}, { name: 'Halina Voss', email: 'halina@marrowby.example', title: null, password: 'counting the pennies', roles: ['approver'] }); // prettier-ignore
    await rows(`update company set tax_id = 'GB1'`);
    expect(await states()).toEqual(['done', 'done', 'open', 'done', 'open', 'open', 'open']);
    const mailbox = async () => (await guide()).steps[4]!;
    expect((await mailbox()).fact).toBe('Nothing came to invoices@ledgerline.localhost so far');
    const raw = 'From: a@b.example\r\nTo: invoices@ledgerline.localhost\r\nSubject: hello\r\n\r\nHello\r\n';
    await keepMessage(world.services, [(await kit()).company.id], new TextEncoder().encode(raw), 'a@b.example');
    expect(await mailbox()).toMatchObject({ state: 'done', fact: '1 message came to invoices@ledgerline.localhost' });
    expect((await guide()).steps[1]!.fact).toBe('16 accounts');
  });
  it('are said to be fine, left out, and taken up again; the log knows who', async () => {
    await say('tax', 'fine');
    await say('suppliers', 'skipped');
    await say('suppliers', 'skipped');
    expect((await states()).slice(2, 7)).toEqual(['fine', 'done', 'done', 'skipped', 'open']);
    await say('suppliers', 'open');
    expect((await states())[5]).toBe('open');
    const log = await rows(`select note, before, after from event where subject_type = 'guide' order by seq`);
    expect(log.map((e) => [e.note, e.before.state, e.after.state])).toEqual([
      ['tax', 'open', 'fine'],
      ['suppliers', 'open', 'skipped'],
      ['suppliers', 'skipped', 'open'],
    ]);
    await expect(say('payroll', 'fine')).rejects.toMatchObject({ status: 404 });
  });
  it('are over once each is done or left out', async () => {
    for (const step of ['suppliers', 'document']) await say(step, 'skipped');
    expect((await guide()).over).toBe(true);
    await say('document', 'open');
    expect((await guide()).over).toBe(false);
  });
});

describe('one company more', () => {
  const more = { name: 'Marrowby Nursery', country: 'DE', taxId: 'DE 811 907 980', mailAddress: 'Nursery@marrowby.example', chart: 'copy' };
  it('has this one’s chart, its country’s tax codes and currency, and whoever made it', async () => {
    await rows(`insert into cost_centre (id, company_id, code, name) select gen_random_uuid(), id, '200', 'Arboretum' from company`);
    await rows(`update ledger_account set parent_id = (select id from ledger_account where code = '6100') where code = '6150'`);
    await rows(`update ledger_account set active = false where code = '6900'`);
    const { id } = await world.run(newCompany, await kit(), {}, more);
    const [made] = await rows('select code, name, country, base_currency, tax_id, mail_address from company where id = $1', id);
    expect(made).toEqual({ code: 'MARR2', name: 'Marrowby Nursery', country: 'DE', base_currency: 'EUR', tax_id: 'DE811907980', mail_address: 'nursery@marrowby.example' }); // prettier-ignore
    const accounts = await rows(`select a.code, p.code as parent from ledger_account a left join ledger_account p on p.id = a.parent_id and p.company_id = a.company_id where a.company_id = $1 order by a.code`, id); // prettier-ignore
    expect(accounts).toHaveLength(15);
    expect(accounts.find((a) => a.code === '6150')).toEqual({ code: '6150', parent: '6100' });
    expect((await rows('select code from cost_centre where company_id = $1', id)).map((c) => c.code)).toEqual(['200']);
    expect((await rows('select code from tax_code where company_id = $1 order by code', id)).map((c) => c.code)).toEqual(['R19', 'V0', 'V19', 'V7']); // prettier-ignore
    expect((await kit('Marrowby Nursery')).company.roles.sort()).toEqual((await kit()).company.roles.sort());
    expect((await rows('select count(*)::int as n from period where company_id = $1', id))[0].n).toBe(36);
    expect((await rows(`select verb from event where company_id = $1`, id)).map((e) => e.verb)).toEqual(['made']);
  });
  it('is refused where the name or address is another’s, the chart lacks what posting needs, or somebody may not', async () => {
    const make = async (put: object, who?: Caller) => world.run(newCompany, who ?? (await kit()), {}, { ...more, ...put });
    await expect(make({ mailAddress: 'x@marrowby.example' })).rejects.toThrow('Another company has this name');
    await expect(make({ name: 'Another Ltd' })).rejects.toThrow('Another company has this mail address');
    await rows(`update ledger_account set active = false where kind = 'payable'`);
    await expect(make({ name: 'Third Ltd', mailAddress: 'third@marrowby.example' })).rejects.toThrow('no account for suppliers');
    expect(await rows(`select 1 from company where name = 'Third Ltd'`)).toEqual([]);
    await world.run(newCompany, await kit(), {}, { ...more, name: 'Fourth Ltd', mailAddress: 'fourth@marrowby.example', chart: 'small' });
    const own = await kit();
    const clerk = { ...own, company: { ...own.company, roles: ['clerk', 'controller'] } };
    await expect(make({ name: 'Fifth Ltd', mailAddress: 'fifth@marrowby.example' }, clerk)).rejects.toMatchObject({ status: 403 });
  });
  it('of each country has one code for what is taxed as usual, one for what is not, and one that it owes itself', () => {
    for (const country of countries) {
      const codes = startingTaxCodes[country];
      expect(codes.some((c) => Number(c.rate) >= 19 && !c.reverseCharge)).toBe(true);
      expect(codes.some((c) => Number(c.rate) === 0)).toBe(true);
      expect(codes.filter((c) => c.reverseCharge)).toHaveLength(1);
      expect(currencyOf(country)).toMatch(/^(GBP|EUR)$/);
    }
  });
});
