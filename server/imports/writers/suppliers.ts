import { eq, sql } from 'drizzle-orm';
import { keyOf, lists, type ImportValues } from '@ledgerline/core/imports';
import { squash } from '@ledgerline/core/reading';
import { bankAccount, costCentre, ledgerAccount, supplier, taxCode } from '../../db/schema/index.ts';
import type { Executor } from '../../db/client.ts';
import { col } from '../../db/column.ts';
import { listedTerms } from '../../terms/store.ts';
import { accountIds, centreIds, taxCodeIds } from './ids.ts';
import { idOf, text, type Current, type Writer, type Written } from './types.ts';
import { upsert } from './upsert.ts';

const spec = lists.suppliers;
const taxIdOf = (value: unknown): string | null => squash(text(value) ?? '') || null;

/** Suppliers by what must be another's alone; made once for each list of them. */
const indexes = new WeakMap<ReadonlyMap<string, Current>, Record<'name' | 'taxId' | 'iban', Map<string, Current>>>();
function indexOf(others: ReadonlyMap<string, Current>) {
  let found = indexes.get(others);
  if (!found) {
    found = { name: new Map(), taxId: new Map(), iban: new Map() };
    for (const one of others.values())
      for (const of of ['name', 'taxId', 'iban'] as const) {
        const value = text(one.values[of]);
        if (value) found[of].set(value.toLowerCase(), one);
      }
    indexes.set(others, found);
  }
  return found;
}

/** A row with bank details that the supplier does not have. */
const entered = (row: Written): boolean => text(row.values['iban']) !== null && row.values['iban'] !== row.before?.['iban'];

/** Bank details of a file wait for a second person, as if they had been typed. */
async function proposeAccounts(
  tx: Executor,
  companyId: string,
  rows: readonly Written[],
  by: { personId: string; at: Date; file: string },
): Promise<void> {
  const fresh = rows.filter(entered);
  if (fresh.length === 0) return;
  await tx.insert(bankAccount).values(
    fresh.map((r) => ({
      companyId,
      supplierId: r.id,
      iban: text(r.values['iban'])!,
      note: `From ${by.file}`.slice(0, 300),
      proposedBy: by.personId,
      proposedAt: by.at,
    })),
  );
}

export const supplierWriter: Writer = {
  spec,
  table: supplier,
  subject: 'supplier',
  fresh: () => ({
    taxId: null,
    email: null,
    phone: null,
    address: null,
    terms: null,
    account: null,
    costCentre: null,
    taxCode: null,
    blocked: null,
    paymentsHeld: null,
    iban: null,
  }),
  tidy: (values, own) => ({
    ...values,
    taxId: taxIdOf(values['taxId']),
    email: text(values['email'])?.toLowerCase() ?? null,
    // What waits for a second person already is not entered again.
    iban: own?.ibans?.includes(text(values['iban']) ?? '') ? (own.values['iban'] ?? null) : (values['iban'] ?? null),
  }),
  // As where it is typed.
  acts: (row) => (entered(row) ? [{ verb: 'bank account entered', note: null, after: { iban: row.values['iban'] } }] : []),
  async current(tx, companyId) {
    const ibans = sql<string[]>`array(select a.iban from bank_account a where a.supplier_id = ${col(supplier.id)} and a.retired_at is null
      order by a.verified_at is null, a.proposed_at desc)`;
    const rows = await tx
      .select({ s: supplier, account: ledgerAccount.code, costCentre: costCentre.code, taxCode: taxCode.code, ibans })
      .from(supplier)
      .leftJoin(ledgerAccount, eq(ledgerAccount.id, supplier.accountId))
      .leftJoin(costCentre, eq(costCentre.id, supplier.costCentreId))
      .leftJoin(taxCode, eq(taxCode.id, supplier.taxCodeId))
      .where(eq(supplier.companyId, companyId));
    return new Map(
      rows.map(({ s: { id, code, name, taxId, email, phone, address, currency, terms, blocked, paymentsHeld }, ibans: own, ...named }) => {
        const values: ImportValues = {
          code,
          name,
          taxId,
          email,
          phone,
          address,
          currency,
          terms,
          ...named,
          blocked,
          paymentsHeld,
          iban: own[0] ?? null,
        };
        return [keyOf(spec, values), { id, values, ibans: own }];
      }),
    );
  },
  terms: listedTerms,
  ids: async (tx, companyId) => ({
    account: await accountIds(tx, companyId),
    'cost-centre': await centreIds(tx, companyId),
    'tax-code': await taxCodeIds(tx, companyId),
  }),
  doubts(values, others, own) {
    const index = indexOf(others);
    const another = (of: 'name' | 'taxId' | 'iban'): Current | null => {
      const found = index[of].get(text(values[of])?.toLowerCase() ?? '');
      return found && found.id !== own?.id ? found : null;
    };
    const [named, taxed, banked] = [another('name'), another('taxId'), another('iban')];
    const said = (severity: 'error' | 'warning', sentence: string) => ({ severity, sentence });
    return [
      ...(named ? [said('error', `${String(values['name'])} is supplier ${String(named.values['code'])} already.`)] : []),
      ...(taxed && taxed !== named ? [said('warning', `${String(taxed.values['name'])} has the same tax number.`)] : []),
      ...(banked && banked !== named ? [said('warning', `${String(banked.values['name'])} has the same bank account.`)] : []),
    ];
  },
  async put(tx, companyId, rows, ids, by) {
    await upsert(
      tx,
      supplier,
      rows.map(({ id, values: v }) => ({
        id,
        companyId,
        code: text(v['code'])!,
        name: text(v['name'])!,
        taxId: text(v['taxId']),
        email: text(v['email']),
        phone: text(v['phone']),
        address: text(v['address']),
        currency: text(v['currency'])!,
        terms: text(v['terms']),
        accountId: idOf(ids, 'account', v['account']),
        costCentreId: idOf(ids, 'cost-centre', v['costCentre']),
        taxCodeId: idOf(ids, 'tax-code', v['taxCode']),
        blocked: text(v['blocked']),
        paymentsHeld: text(v['paymentsHeld']),
      })),
      ['id'],
    );
    await proposeAccounts(tx, companyId, rows, by);
  },
};
