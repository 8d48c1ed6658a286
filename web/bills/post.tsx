import { useRef, useState } from 'react';
import type { BillRow } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { Bearer } from '../ui/bearer';
import { Dialog } from '../ui/dialog';
import { DateField } from '../ui/typed';
import { billsApi } from './api';
import { money, todayIso } from '../ui/format';

/** The lines of a journal entry, as they are or as they would be. */
export function JournalTable({
  lines,
  base,
  total,
  currency,
}: {
  lines: {
    account: string;
    accountName: string;
    costCentre: string | null;
    dimensions: string[];
    taxCode: string | null;
    description: string;
    debit: string;
    credit: string;
  }[];
  base: string;
  total: string;
  currency: string;
}) {
  const amount = (v: string) => (Number(v) === 0 ? '' : money(v, base));
  return (
    <table className="w-full text-[13px]">
      <thead>
        <tr>
          <th className="plain">Account</th>
          <th className="plain">Cost centre</th>
          <th className="plain">Tax</th>
          <th className="plain num">Debit {base}</th>
          <th className="plain num">Credit {base}</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((l, i) => (
          <tr key={i} title={l.description}>
            <td className="plain max-w-56 truncate">
              <span className="code">{l.account}</span> {l.accountName}
            </td>
            <td className="plain max-w-44 truncate">
              <Bearer of={l} />
            </td>
            <td className="plain">{l.taxCode}</td>
            <td className="plain num">{amount(l.debit)}</td>
            <td className="plain num">{amount(l.credit)}</td>
          </tr>
        ))}
        <tr className="font-semibold">
          <td className="plain" colSpan={3}>
            {currency === base ? 'Balanced' : `Balanced, from ${currency}`}
          </td>
          <td className="plain num">{money(total, base)}</td>
          <td className="plain num">{money(total, base)}</td>
        </tr>
      </tbody>
    </table>
  );
}

function Preview({ company, bill }: { company: string; bill: BillRow }) {
  const { currentData: data, error } = billsApi.useJournalQuery({ company, id: bill.id });
  return (
    <section className="mb-4">
      <h3 className="font-semibold">
        {bill.supplier} {bill.invoiceNumber}
      </h3>
      {error ? (
        <p role="alert" className="text-error">
          {sentenceOf(error)}
        </p>
      ) : data ? (
        <>
          <JournalTable lines={data.lines} base={data.baseCurrency} total={data.total} currency={data.currency} />
          {data.rate !== '1' && (
            <p className="text-[13px] quiet">
              1 {data.currency} = {Number(data.rate)} {data.baseCurrency}
            </p>
          )}
        </>
      ) : null}
    </section>
  );
}

/** The journal before it exists, and the button that makes it. Pressed twice, it posts once. */
export function PostDialog({
  company,
  base,
  bills,
  done,
  close,
}: {
  company: string;
  base: string;
  bills: BillRow[];
  done(n: number): void;
  close(): void;
}) {
  const key = useRef(crypto.randomUUID());
  const [date, setDate] = useState(todayIso());
  const [post, { error, isLoading }] = billsApi.usePostMutation();
  return (
    <Dialog title={bills.length === 1 ? 'Post this bill' : `Post ${bills.length} bills`} wide close={close}>
      <p className="mb-2 text-[13px] quiet">All of them or none. After posting nothing can be changed. Amounts in {base}.</p>
      <div className="max-h-[50vh] overflow-auto">
        {bills.slice(0, 30).map((b) => (
          <Preview key={b.id} company={company} bill={b} />
        ))}
        {bills.length > 30 && <p>… and {bills.length - 30} more</p>}
      </div>
      {error && (
        <p role="alert" className="my-2 text-error">
          {sentenceOf(error)}
        </p>
      )}
      <div className="mt-3 flex items-center gap-3">
        <label className="flex items-center gap-2 text-[13px]">
          Entry date
          <span className="w-32">
            <DateField
              label="Entry date"
              value={date}
              onSave={(day) => {
                if (!day) return;
                setDate(day);
                key.current = crypto.randomUUID();
              }}
            />
          </span>
        </label>
        <button className="btn ml-auto" onClick={close}>
          Cancel
        </button>
        <button
          className="btn btn-primary"
          data-first
          disabled={isLoading}
          onClick={() =>
            void post({ company, body: { key: key.current, billIds: bills.map((b) => b.id), entryDate: date } })
              .unwrap()
              .then(
                (r) => done(r.posted.length),
                () => undefined,
              )
          }
        >
          Post
        </button>
      </div>
    </Dialog>
  );
}
