import { useState } from 'react';
import { toast } from 'sonner';
import type { Choice } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { suppliersApi } from '../suppliers/api';
import { focusField } from './focus';
import { doubtsOf } from './use-desk-keys';
import type { Desk } from './use-desk';

/** A bill's supplier that is not among the suppliers yet: made at once from what the page says, or in a dialog that begins with it. */
export function useNewSupplier(desk: Desk | null) {
  const { company, can } = usePlace();
  const [send, { isLoading }] = suppliersApi.useNewSupplierMutation();
  const [name, ask] = useState<string | null>(null);
  const bill = desk?.bill;
  const begun = bill && {
    name: name ?? bill.supplierName ?? '',
    taxId: bill.supplierTaxId,
    iban: bill.supplierIban,
    currency: bill.currency,
    terms: bill.terms,
  };
  const take = (made: Choice) => {
    ask(null);
    desk!.know(made);
    desk!.set('supplierId', made.id);
    const next = doubtsOf(desk!).find((path) => path !== 'supplierId');
    if (next) setTimeout(() => focusField(next));
  };
  return {
    /** Null while no dialog is asked for. */
    begun: name === null ? null : begun!,
    ask,
    take,
    may: Boolean(
      desk && !desk.locked && !isLoading && can('suppliers:edit') && bill?.exceptions.some((e) => e.code === 'supplier-missing'),
    ),
    /** Makes it from the page alone; where that can't be, the dialog says why. */
    async make(): Promise<void> {
      if (!bill?.supplierName || !begun) return ask(bill?.supplierName ?? '');
      try {
        const body = { email: null, phone: null, address: null, ...begun, name: bill.supplierName };
        const made = await send({ company: company.id, body }).unwrap();
        toast(`${made.name} is a supplier now${begun.iban ? '. Its bank details count once a second person has verified them' : ''}`);
        take(made);
      } catch (error) {
        toast.error(sentenceOf(error));
        ask(bill.supplierName);
      }
    },
  };
}
