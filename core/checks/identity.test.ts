import { describe, expect, it } from 'vitest';
import { identityChecks } from './identity.ts';
import type { CheckedBill, Facts, SupplierKnown } from './types.ts';

const known: SupplierKnown = {
  name: 'Fernwick',
  currency: 'GBP',
  taxIds: ['GB123456789'],
  habit: null,
  numbers: [],
  lastPrices: new Map(),
};
const facts: Partial<Facts> = { known, sender: null, bank: null, layoutNew: null, waiting: new Map(), verified: new Set() };
const run = (of: Partial<CheckedBill>, more: Partial<Facts> = {}) => {
  const bill = { supplierId: 's', supplierTaxId: null, supplierIban: null, ...of } as CheckedBill;
  return identityChecks.flatMap((c) => c.run(bill, { ...facts, ...more } as Facts).map((f) => ({ code: c.code, ...f })));
};
const said = (...of: Parameters<typeof run>) => run(...of).map((f) => `${f.code}: ${f.sentence}`);
const sender = { domain: 'fern-wick.example', known: false };
const bank = { supplier: 'Fernwick', verified: ['GB34 QUIL 1'], waiting: [] };
const waitingFor = (...found: ReturnType<typeof run>): Partial<Facts> => ({
  waiting: new Map(found.map((f) => [`${f.code} ${f.key}`, f.sentence])),
});

describe('whether a bill is from whom it says', () => {
  it('nothing where it is as it is known, or nothing is known', () => {
    expect(said({ supplierTaxId: 'GB 123 456 789', supplierIban: 'GB34QUIL1' }, { bank, sender: { ...sender, known: true } })).toEqual([]);
    expect(said({ supplierTaxId: 'GB999' }, { known: { ...known, taxIds: [] } })).toEqual([]);
    expect(said({ supplierTaxId: 'GB999' }, { known: null, sender })).toEqual([]);
  });
  it('one sign is said by itself', () => {
    expect(said({ supplierTaxId: 'GB999' })).toEqual(['tax-number-differs: The page says tax number GB999; Fernwick has GB123456789.']);
    expect(said({}, { sender })).toEqual(['sender-new: Nothing of Fernwick came from fern-wick.example before.']);
    expect(said({}, { layoutNew: 5 })).toEqual(['layout-new: The page looks unlike the last 5 of Fernwick.']);
  });
  it('another bank account alone is left to its own check', () => expect(said({ supplierIban: 'GB12' }, { bank })).toEqual([]));
  it('several are one story, which names them', () => {
    expect(said({ supplierIban: 'GB12', supplierTaxId: 'GB999' }, { bank, sender, layoutNew: 4 })).toEqual([
      'not-as-known: New bank account, new tax number, new sender and new look: this may not be Fernwick. Ask at a number that you know before anything is paid.',
    ]);
    expect(said({ supplierIban: 'GB12' }, { bank, sender })).toEqual([
      'not-as-known: New bank account and new sender: this may not be Fernwick. Ask at a number that you know before anything is paid.',
    ]);
  });
  it('what was found waits for a second person, whatever the supplier is known by since', () => {
    const found = run({ supplierTaxId: 'GB999' });
    const changed = { ...waitingFor(...found), known: { ...known, taxIds: ['GB999'] } };
    expect(found[0]).toMatchObject({ found: 'GB999', expected: 'GB123456789' });
    expect(run({ supplierTaxId: 'GB999' }, changed)).toEqual(found.map(({ code, path, key, sentence }) => ({ code, path, key, sentence })));
    const story = run({}, { sender, layoutNew: 4 });
    expect(run({}, { ...waitingFor(...story), sender: { ...sender, known: true } })).toEqual(story);
    expect(run({}, { ...waitingFor(...run({}, { sender })), sender: { ...sender, known: true } }).map((f) => f.code)).toEqual([
      'sender-new',
    ]);
  });
  it('what a second person has verified as a whole does not come back sign by sign', () => {
    const story = run({ supplierIban: 'GB12' }, { bank, sender });
    const verified = new Set(story.map((f) => `${f.code} ${f.key}`));
    // The account is verified, too: the sender alone is left.
    const account = { ...bank, verified: ['GB12'] };
    expect(said({ supplierIban: 'GB12' }, { bank: account, sender })).toHaveLength(1);
    expect(said({ supplierIban: 'GB12' }, { bank: account, sender, verified })).toEqual([]);
  });
  it('it ends where the page was misread, or is of another supplier', () => {
    const found = run({ supplierTaxId: 'GB999' });
    expect(run({ supplierTaxId: 'GB123456789' }, waitingFor(...found))).toEqual([]);
    expect(run({ supplierTaxId: 'GB999', supplierId: 't' }, { ...waitingFor(...found), known: { ...known, taxIds: ['GB999'] } })).toEqual(
      [],
    );
  });
});
