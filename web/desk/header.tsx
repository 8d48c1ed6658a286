import type { ReactNode } from 'react';
import type { HeaderField, Operation } from '@ledgerline/core/bills';
import { discountDate, dueOf, instalments, parseTerms, termsMeant, type WorkingCalendar } from '@ledgerline/core/terms';
import { dec, roundTo } from '@ledgerline/core/money';
import type { Bill } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { OwnTerms, useOwnTerms } from '../settings/own-terms';
import { billsApi } from '../bills/api';
import { ChoiceField } from '../ui/choice-field';
import { money, showDay } from '../ui/format';
import { AmountField, DateField, TextField } from '../ui/typed';
import type { Desk } from './use-desk';

function Field({
  label,
  path,
  bill,
  hint,
  why,
  span,
  children,
}: {
  label: string;
  path: string;
  bill: Bill;
  hint?: string | null;
  why: string | null;
  span: string;
  children: ReactNode;
}) {
  const wanted = bill.exceptions.find((e) => e.path === path && e.severity === 'stops');
  return (
    <div data-field={path} className={`min-w-0 ${span}`}>
      <div className="flex justify-between gap-2 text-[12px]">
        <span className="quiet whitespace-nowrap">{label}</span>
        <span className={`truncate ${wanted ? 'text-error' : 'text-accent'}`} title={wanted?.sentence ?? why ?? hint ?? undefined}>
          {wanted ? (words[wanted.code] ?? 'needed') : hint}
        </span>
      </div>
      {children}
    </div>
  );
}
/** What stands beside a field that stops the bill, where it is not simply missing. */
const words: Record<string, string> = {
  'data-differs': 'differs',
  'bank-differs': 'bank details',
  duplicate: 'used before',
  'due-early': 'too early',
  'tax-unexplained': 'differs',
  'total-zero': 'zero',
  'total-negative': 'negative',
};

/** How sure a value is, and why, as far as it was read. */
function sureness(bill: Bill, path: string): { hint: string | null; why: string | null } {
  const stored = bill.marks[path];
  const hint = bill.unsure.includes(path) ? 'look at this' : stored?.repaired ? 'put right' : stored?.proof ? 'proven' : null;
  if (path === 'tax' && bill.taxByRates !== null && bill.tax !== null) {
    const off = dec(bill.tax).minus(bill.taxByRates).toFixed();
    return { hint: `${money(off, bill.currency)} off`, why: `The rates of the tax codes make ${money(bill.taxByRates, bill.currency)}` };
  }
  // What a person typed or clicked is as sure as they are.
  const sure = stored?.mark && stored.confidence < 1 ? `${Math.round(stored.confidence * 1000) / 10} % sure` : null;
  return { hint, why: [stored?.repaired ?? stored?.proof, sure].filter(Boolean).join(' · ') || null };
}

/** A supplier's terms, and the day that they make where none stands. */
function termsOf(bill: Bill, terms: string, calendar: WorkingCalendar): Operation[] {
  const due = bill.dueDate === null && bill.issueDate && bill.kind === 'invoice' ? dueOf(bill.issueDate, terms, calendar) : null;
  return [{ do: 'set', field: 'terms', value: terms }, ...(due ? [{ do: 'set' as const, field: 'dueDate' as const, value: due }] : [])];
}

/** What a bill earns that is paid in time, and until when; or what of it falls due when, where it is paid in parts. */
function payingOf({ issueDate, dueDate, terms, gross, kind, currency }: Bill, calendar: WorkingCalendar): [string, string] | null {
  if (!issueDate || !terms || !gross || kind !== 'invoice') return null;
  const whole = parseTerms(terms),
    until = whole && discountDate(issueDate, whole);
  if (until) {
    const earned = roundTo(dec(gross).times(whole.discount!.percent).div(100), currency).toFixed();
    return [
      `−${money(earned, currency)} by ${showDay(until).replace(/,? \d{4}$/, '')}`,
      `${whole.discount!.percent}% off where it is paid by ${showDay(until)}`,
    ];
  }
  if (dueDate !== dueOf(issueDate, terms, calendar)) return null;
  const parts = instalments(issueDate, terms, dec(gross), currency, calendar);
  return (
    parts && [`in ${parts.length} parts`, parts.map((p) => `${showDay(p.dueDate)}: ${money(p.amount.toFixed(), currency)}`).join(', ')]
  );
}

/** How much of the head's twelve columns a field has, where it is not a quarter. */
const spans: Partial<Record<HeaderField, string>> = {
  supplierId: 'col-span-6',
  currency: 'col-span-2',
  net: 'col-span-2',
  tax: 'col-span-2',
};

/** The head of a bill, in the order in which an invoice is read. */
export function HeaderFields({ desk, newSupplier }: { desk: Desk; newSupplier(name: string): void }) {
  const { company } = usePlace();
  const { data: money } = billsApi.useCurrenciesQuery({ company: company.id });
  const { bill, locked } = desk,
    paying = payingOf(bill, company),
    own = useOwnTerms();
  const look = (path: string) =>
    `line-field ${bill.unsure.includes(path) ? 'unsure' : ''} ${bill.exceptions.some((e) => e.path === path && e.severity === 'stops') ? 'wanted' : ''}`;
  const common = (path: string, label: string) => ({ label, className: look(path), disabled: locked, onFocus: () => desk.take(path) });
  const f = (label: string, path: HeaderField, children: ReactNode, hint?: string | null, why?: string) => {
    const sure = sureness(bill, path);
    return (
      <Field label={label} path={path} bill={bill} hint={hint ?? sure.hint} why={why ?? sure.why} span={spans[path] ?? 'col-span-3'}>
        {children}
      </Field>
    );
  };
  const text = (label: string, path: 'invoiceNumber' | 'purchaseOrder', shown = label) =>
    f(shown, path, <TextField {...common(path, label)} value={bill[path]} onSave={(v) => desk.set(path, v)} />);
  const amount = (label: string, path: 'net' | 'tax' | 'gross', shown = label) =>
    f(shown, path, <AmountField {...common(path, label)} currency={bill.currency} value={bill[path]} onSave={(v) => desk.set(path, v)} />);
  return (
    <div className="grid grid-cols-12 gap-x-5 gap-y-2 px-5 py-3">
      {f(
        'Supplier',
        'supplierId',
        <ChoiceField
          {...common('supplierId', 'Supplier')}
          company={company.id}
          of="suppliers"
          value={bill.supplierId}
          chosen={desk.choiceOf(bill.supplierId)}
          fallback={bill.supplierName}
          onNew={newSupplier}
          onPick={(c) => {
            if (c) desk.know(c);
            desk.edit(
              { do: 'set', field: 'supplierId', value: c?.id ?? null },
              ...(c?.terms && !bill.terms ? termsOf(bill, c.terms, company) : []),
            );
          }}
        />,
        bill.supplierId ? bill.supplierReason : null,
      )}
      {f(
        'Kind',
        'kind',
        <select
          aria-label="Kind"
          className={look('kind')}
          disabled={locked}
          value={bill.kind}
          onFocus={() => desk.take('kind')}
          onChange={(e) => desk.set('kind', e.target.value)}
        >
          <option value="invoice">Invoice</option>
          <option value="credit-note">Credit note</option>
        </select>,
      )}
      {text('Invoice number', 'invoiceNumber', bill.kind === 'invoice' ? 'Invoice number' : 'Credit note number')}
      {f(
        'Invoice date',
        'issueDate',
        <DateField {...common('issueDate', 'Invoice date')} value={bill.issueDate} onSave={(v) => desk.set('issueDate', v)} />,
      )}
      {f(
        'Due',
        'dueDate',
        <DateField
          {...common('dueDate', 'Due')}
          value={bill.dueDate}
          from={bill.issueDate}
          calendar={company}
          own={own}
          onTerms={(terms) => desk.set('terms', terms)}
          onSave={(v) => desk.set('dueDate', v)}
        />,
        paying?.[0],
        paying?.[1],
      )}
      {f(
        'Terms',
        'terms',
        <TextField
          {...common('terms', 'Terms')}
          list="own-terms"
          value={bill.terms}
          onSave={(v) => (v ? desk.edit(...termsOf(bill, termsMeant(v, own), company)) : desk.set('terms', v))}
        />,
      )}
      {text('Order', 'purchaseOrder')}
      {f(
        'Currency',
        'currency',
        <TextField
          {...common('currency', 'Currency')}
          list="currencies"
          value={bill.currency}
          fits={(v) => /^[A-Za-z]{3}$/.test(v)}
          onSave={(v) => desk.set('currency', (v ?? bill.currency).toUpperCase())}
        />,
      )}
      {f(
        'Amounts in rows',
        'pricesIncludeTax',
        <select
          aria-label="Amounts in rows"
          className={look('pricesIncludeTax')}
          disabled={locked}
          value={bill.pricesIncludeTax ? 'with' : 'without'}
          onFocus={() => desk.take('pricesIncludeTax')}
          onChange={(e) => desk.set('pricesIncludeTax', e.target.value === 'with')}
        >
          <option value="without">Without tax</option>
          <option value="with">With tax</option>
        </select>,
      )}
      {amount('Net', 'net')}
      {amount('Tax', 'tax')}
      {amount('Total', 'gross', `Total ${bill.currency}`)}
      <OwnTerms id="own-terms" />
      <datalist id="currencies">
        {(money?.currencies ?? []).map((c) => (
          <option key={c} value={c} />
        ))}
      </datalist>
    </div>
  );
}
