import type { BillList, Choices, EntryList, SupplierList } from '@ledgerline/contract';
import { api, at, type Of } from '../app/api';
import { money } from '../ui/format';

/** Something to jump to: where it is, what it is called, and what tells it from others of its kind. */
export interface Target {
  id: string;
  kind: 'Bill' | 'Supplier' | 'Account' | 'Entry' | 'Place' | 'Action';
  label: string;
  detail: string;
  to: string;
}
interface Asked {
  q: string;
  ledger: boolean;
}
/** So many of a kind. */
const few = 5;

export const jumpApi = api.injectEndpoints({
  overrideExisting: 'throw',
  endpoints: (b) => ({
    /** Bills, suppliers, accounts and entries with a word: those that the server gives; what fails is left out. */
    jump: b.query<Target[], Of<Asked>>({
      async queryFn({ company, q, ledger }, _, __, fetch) {
        const ask = async <T>(path: string, params: object): Promise<T | null> => {
          const { data } = await fetch({ url: at(company, path), params: { ...params, q } });
          return (data as T | undefined) ?? null;
        };
        const [bills, suppliers, accounts, entries] = await Promise.all([
          ask<BillList>('/bills', { limit: few }),
          ask<SupplierList>('/suppliers', { limit: few }),
          ledger ? ask<Choices>('/choices', { of: 'accounts' }) : null,
          ledger ? ask<EntryList>('/entries', { limit: few }) : null,
        ]);
        return {
          data: [
            ...(bills?.bills ?? []).map((x): Target => ({
              id: x.id,
              kind: 'Bill',
              label: `${x.invoiceNumber ?? 'Without number'} ${x.supplier ?? ''}`,
              detail: `${x.currency} ${money(x.gross, x.currency)}`,
              to: `/bills/${x.id}`,
            })),
            ...(suppliers?.suppliers ?? []).map((x): Target => ({
              id: x.id,
              kind: 'Supplier',
              label: x.name,
              detail: x.code,
              to: `/suppliers/${x.id}`,
            })),
            ...(accounts?.choices ?? []).slice(0, few).map((x): Target => ({
              id: x.id,
              kind: 'Account',
              label: `${x.code} ${x.name}`,
              detail: 'its entries',
              to: `/ledger?account=${x.id}&code=${encodeURIComponent(x.code)}`,
            })),
            ...(entries?.entries ?? []).map((x): Target => ({
              id: x.id,
              kind: 'Entry',
              label: x.number,
              detail: x.description,
              to: `/ledger/${x.id}`,
            })),
          ],
        };
      },
      keepUnusedDataFor: 10,
    }),
  }),
});
