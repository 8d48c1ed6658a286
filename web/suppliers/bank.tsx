import { BadgeCheck, Clock, Landmark } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { spacedIban } from '@ledgerline/core/checks';
import { NewBankAccount, VerifyBankAccount, type BankAccount, type SupplierAccount } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { FormField } from '../ui/form';
import { FormDialog } from '../ui/form-dialog';
import { showDay } from '../ui/format';
import { suppliersApi } from './api';

/** A supplier's bank accounts: which count, which wait for a second person, who checked them and how. */
export function BankAccounts({ supplier, asked }: { supplier: SupplierAccount; asked: string | null }) {
  const { company, me, can } = usePlace();
  const [adding, add] = useState(asked !== null);
  const [verifying, verify] = useState<BankAccount | null>(null);
  const [retire] = suppliersApi.useRetireBankAccountMutation();
  const live = supplier.bankAccounts.filter((a) => a.state !== 'retired');
  return (
    <section aria-label="Bank accounts">
      <h2 className="flex items-center gap-2 text-[12px] quiet">Bank accounts</h2>
      {live.length === 0 && <p>None yet</p>}
      <ul className="space-y-2">
        {live.map((a) => (
          <li key={a.id}>
            <div className="code break-words">{spacedIban(a.iban)}</div>
            <div className={`flex items-center gap-1 text-[12px] ${a.state === 'verified' ? 'text-success' : 'text-error'}`}>
              {a.state === 'verified' ? <BadgeCheck size={13} aria-hidden /> : <Clock size={13} aria-hidden />}
              {a.state === 'verified' ? `verified ${showDay(a.verifiedAt!.slice(0, 10))}` : 'waits for a second person'}
            </div>
            <div className="text-[12px] quiet">
              {a.state === 'verified'
                ? [a.verifiedBy, a.how].filter(Boolean).join(': ')
                : [`entered by ${a.proposedBy ?? 'Ledgerline'}`, a.note].filter(Boolean).join(': ')}
            </div>
            {can('suppliers:verify') && (
              <div className="mt-1 flex gap-1">
                {a.state === 'waiting' && (
                  <button
                    className="btn btn-xs btn-outline"
                    disabled={a.proposedById === me.id}
                    title={a.proposedById === me.id ? 'You entered it yourself: somebody else has to verify it' : undefined}
                    onClick={() => verify(a)}
                  >
                    Verify
                  </button>
                )}
                <button
                  className="btn btn-xs btn-ghost"
                  onClick={() =>
                    void retire({ company: company.id, id: a.id, supplier: supplier.id })
                      .unwrap()
                      .catch((e: unknown) => toast.error(sentenceOf(e)))
                  }
                >
                  Retire
                </button>
              </div>
            )}
          </li>
        ))}
      </ul>
      {can('suppliers:edit') && (
        <button className="btn btn-xs mt-2" onClick={() => add(true)}>
          <Landmark size={13} aria-hidden />
          New bank details
        </button>
      )}
      {adding && can('suppliers:edit') && <NewAccount supplier={supplier} iban={asked ?? ''} close={() => add(false)} />}
      {verifying && <Verify supplier={supplier} account={verifying} close={() => verify(null)} />}
    </section>
  );
}

function NewAccount({ supplier, iban, close }: { supplier: SupplierAccount; iban: string; close(): void }) {
  const { company } = usePlace();
  const [make] = suppliersApi.useNewBankAccountMutation();
  return (
    <FormDialog
      title={`New bank details of ${supplier.name}`}
      schema={NewBankAccount}
      values={{ iban, note: iban ? 'From the invoice' : '' }}
      action="Enter"
      evenSo="Enter even so"
      send={(body) => make({ company: company.id, id: supplier.id, body }).unwrap().then(close)}
      close={close}
    >
      {(form) => (
        <>
          <FormField form={form} name="iban" label="IBAN" autoFocus hint="It counts once a second person has verified it" />
          <FormField form={form} name="note" label="Where it comes from" />
        </>
      )}
    </FormDialog>
  );
}

function Verify({ supplier, account, close }: { supplier: SupplierAccount; account: BankAccount; close(): void }) {
  const { company } = usePlace();
  const [verify] = suppliersApi.useVerifyBankAccountMutation();
  return (
    <FormDialog
      title="Verify bank details"
      schema={VerifyBankAccount}
      values={{ how: '' }}
      action="It is right"
      send={({ how }) => verify({ company: company.id, id: account.id, supplier: supplier.id, how }).unwrap().then(close)}
      close={close}
    >
      {(form) => (
        <>
          <p>
            <span className="code">{spacedIban(account.iban)}</span> of {supplier.name}, entered by {account.proposedBy ?? 'Ledgerline'}
            {account.note ? ` (${account.note})` : ''}. Ask the supplier in a way that you knew before: never at the number or address that
            came with the new details.
          </p>
          <FormField form={form} name="how" label="How you made sure" autoFocus hint="Called Mrs Arden at the number we had, 25 November" />
        </>
      )}
    </FormDialog>
  );
}
