import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { Choice } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { ChoiceField } from '../ui/choice-field';
import { Dialog, DialogEnd } from '../ui/dialog';
import { billsApi } from './api';

/** Makes a bill by hand, a copy or a credit note, and opens it at the desk. */
export function useNewBill(): (body: { as: 'new' | 'copy' | 'credit-note'; supplierId?: string | null; billId?: string }) => Promise<void> {
  const { company } = usePlace();
  const [make] = billsApi.useNewBillMutation();
  const navigate = useNavigate();
  return async (body) => {
    try {
      const { id } = await make({ company: company.id, body }).unwrap();
      void navigate(`/bills/${id}`);
    } catch (e) {
      toast.error(sentenceOf(e));
    }
  };
}

/** A bill by hand: whose it is, as far as that is known. */
export function NewBillDialog({ close }: { close(): void }) {
  const { company } = usePlace();
  const make = useNewBill();
  const [supplier, choose] = useState<Choice | null>(null);
  return (
    <Dialog title="A bill by hand" close={close}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void make({ as: 'new', supplierId: supplier?.id ?? null });
        }}
      >
        <label
          className="block"
          // Enter takes the one in hand; only the next one makes the bill, so that none is made before the choice is known.
          onKeyDown={(e) => {
            if (e.key === 'Enter' && (e.target as HTMLElement).getAttribute('aria-expanded') === 'true') e.preventDefault();
          }}
        >
          <span className="quiet text-[13px]">Supplier</span>
          <ChoiceField
            company={company.id}
            of="suppliers"
            label="Supplier"
            className="input w-full"
            value={supplier?.id ?? null}
            chosen={supplier}
            onPick={choose}
          />
        </label>
        <p className="mt-2 text-[13px] quiet">Its document can come later: dropped on it, by mail or by scan.</p>
        <DialogEnd close={close} action={supplier ? 'Make it' : 'Make it without a supplier'} />
      </form>
    </Dialog>
  );
}
