import type { ReactNode } from 'react';
import type { Bill, Choices } from '@ledgerline/contract';
import { AmountField, DateField, TextField } from '../ui/typed';
import { Pick } from '../ui/pick';
import type { HeaderChange } from './draft';

interface Props {
  bill: Bill;
  choices: Choices;
  locked: boolean;
  set(change: HeaderChange): void;
  focus(path: string): void;
  newSupplier(name: string): void;
}

function Field({
  label,
  path,
  bill,
  hint,
  why,
  children,
}: {
  label: string;
  path: string;
  bill: Bill;
  hint?: string | null;
  why: string | null;
  children: ReactNode;
}) {
  const wanted = bill.exceptions.find((e) => e.path === path && e.blocking);
  return (
    <div data-field={path} className="min-w-0">
      <div className="flex justify-between gap-2 text-[12px]">
        <span className="quiet whitespace-nowrap">{label}</span>
        <span className={`truncate ${wanted ? 'text-error' : 'text-accent'}`} title={wanted?.sentence ?? why ?? hint ?? undefined}>
          {wanted ? (wanted.code.startsWith('differs') ? 'differs' : 'needed') : hint}
        </span>
      </div>
      {children}
    </div>
  );
}

/** The head of a bill, in the order in which an invoice is read. */
export function HeaderFields({ bill, choices, locked, set, focus, newSupplier }: Props) {
  const look = (path: string) =>
    `line-field ${bill.unsure.includes(path) ? 'unsure' : ''} ${bill.exceptions.some((e) => e.path === path && e.blocking) ? 'wanted' : ''}`;
  const proven = (path: string) => {
    const stored = bill.marks[path];
    if (bill.unsure.includes(path)) return 'look at this';
    if (stored?.repaired) return 'put right';
    return stored?.proof ? 'proven' : null;
  };
  const why = (path: string) => {
    const stored = bill.marks[path];
    if (!stored?.mark) return null;
    // What a person typed or clicked is as sure as they are.
    const sure = stored.confidence < 1 ? `${Math.round(stored.confidence * 1000) / 10} % sure` : null;
    return [stored.repaired ?? stored.proof, sure].filter(Boolean).join(' · ') || null;
  };
  const common = (path: string, label: string) => ({ label, className: look(path), disabled: locked, onFocus: () => focus(path) });
  const f = (label: string, path: string, children: ReactNode, hint?: string | null) => (
    <Field label={label} path={path} bill={bill} hint={hint ?? proven(path)} why={why(path)}>
      {children}
    </Field>
  );
  return (
    <div className="grid grid-cols-4 gap-x-5 gap-y-2 px-5 py-3">
      <div className="col-span-2">
        {f(
          'Supplier',
          'supplierId',
          <Pick
            {...common('supplierId', 'Supplier')}
            value={bill.supplierId}
            choices={choices.suppliers}
            fallback={bill.supplierName}
            onNew={newSupplier}
            onPick={(id) => {
              const chosen = choices.suppliers.find((s) => s.id === id);
              set({ supplierId: id, ...(chosen && !bill.terms ? { terms: chosen.terms } : {}) });
            }}
          />,
          bill.supplierId ? bill.supplierReason : null,
        )}
      </div>
      {f(
        'Kind',
        'kind',
        <select
          aria-label="Kind"
          className={look('kind')}
          disabled={locked}
          value={bill.kind}
          onFocus={() => focus('kind')}
          onChange={(e) => set({ kind: e.target.value as Bill['kind'] })}
        >
          <option value="invoice">Invoice</option>
          <option value="credit-note">Credit note</option>
        </select>,
      )}
      {f(
        bill.kind === 'invoice' ? 'Invoice number' : 'Credit note number',
        'invoiceNumber',
        <TextField
          {...common('invoiceNumber', 'Invoice number')}
          value={bill.invoiceNumber}
          onSave={(invoiceNumber) => set({ invoiceNumber })}
        />,
      )}
      {f(
        'Invoice date',
        'issueDate',
        <DateField {...common('issueDate', 'Invoice date')} value={bill.issueDate} onSave={(issueDate) => set({ issueDate })} />,
      )}
      {f(
        'Due',
        'dueDate',
        <DateField
          {...common('dueDate', 'Due')}
          value={bill.dueDate}
          from={bill.issueDate}
          onTerms={(terms) => set({ terms })}
          onSave={(dueDate) => set({ dueDate })}
        />,
      )}
      {f('Terms', 'terms', <TextField {...common('terms', 'Terms')} value={bill.terms} onSave={(terms) => set({ terms })} />)}
      {f(
        'Order',
        'purchaseOrder',
        <TextField {...common('purchaseOrder', 'Order')} value={bill.purchaseOrder} onSave={(purchaseOrder) => set({ purchaseOrder })} />,
      )}
      {f(
        'Currency',
        'currency',
        <input
          {...{ 'aria-label': 'Currency', className: look('currency'), disabled: locked }}
          list="currencies"
          value={bill.currency}
          maxLength={3}
          onFocus={() => focus('currency')}
          onChange={(e) => {
            const currency = e.target.value.toUpperCase();
            if (/^[A-Z]{3}$/.test(currency)) set({ currency });
          }}
        />,
      )}
      {f('Net', 'net', <AmountField {...common('net', 'Net')} currency={bill.currency} value={bill.net} onSave={(net) => set({ net })} />)}
      {f('Tax', 'tax', <AmountField {...common('tax', 'Tax')} currency={bill.currency} value={bill.tax} onSave={(tax) => set({ tax })} />)}
      {f(
        `Total ${bill.currency}`,
        'gross',
        <AmountField {...common('gross', 'Total')} currency={bill.currency} value={bill.gross} onSave={(gross) => set({ gross })} />,
      )}
      <datalist id="currencies">
        {choices.currencies.map((c) => (
          <option key={c} value={c} />
        ))}
      </datalist>
    </div>
  );
}
