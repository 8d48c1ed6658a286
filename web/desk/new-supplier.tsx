import { useState } from 'react';
import type { Bill } from '@ledgerline/contract';
import { api, sentenceOf } from '../app/api';
import { Dialog } from '../ui/dialog';

/** A supplier made in place, filled with what the page shows. */
export function NewSupplierDialog({
  company,
  name,
  bill,
  done,
  close,
}: {
  company: string;
  name: string;
  bill: Bill;
  done(id: string): void;
  close(): void;
}) {
  const [make] = api.useNewSupplierMutation();
  const [trouble, setTrouble] = useState<string | null>(null);
  const field = (key: string, label: string, value = '', required = false) => (
    <label className="block text-[13px]">
      {label}
      <input name={key} defaultValue={value} required={required} autoFocus={key === 'name'} className="input input-sm mt-0.5 w-full" />
    </label>
  );
  return (
    <Dialog title="New supplier" close={close}>
      <form
        className="space-y-2"
        onSubmit={(e) => {
          e.preventDefault();
          const data = new FormData(e.currentTarget);
          const text = (key: string) => String(data.get(key) ?? '').trim() || null;
          make({
            company,
            body: {
              name: text('name') ?? '',
              taxId: text('taxId'),
              iban: text('iban'),
              email: text('email'),
              currency: text('currency') ?? bill.currency,
              terms: text('terms'),
              address: text('address'),
            },
          })
            .unwrap()
            .then(
              (s) => done(s.id),
              (error) => setTrouble(sentenceOf(error)),
            );
        }}
      >
        {trouble && (
          <p role="alert" className="text-error">
            {trouble}
          </p>
        )}
        {field('name', 'Name', name, true)}
        <div className="grid grid-cols-2 gap-2">
          {field('taxId', 'Tax number')}
          {field('iban', 'IBAN')}
          {field('email', 'Mail address')}
          {field('currency', 'Currency', bill.currency, true)}
          {field('terms', 'Payment terms')}
          {field('address', 'Address')}
        </div>
        <div className="flex justify-end gap-2 pt-2">
          <button type="button" className="btn" onClick={close}>
            Cancel
          </button>
          <button className="btn btn-primary">Make supplier</button>
        </div>
      </form>
    </Dialog>
  );
}
