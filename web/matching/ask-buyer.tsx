import { useState } from 'react';
import { toast } from 'sonner';
import type { BillOrders } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { billsApi } from '../bills/api';
import type { Desk } from '../desk/use-desk';
import { notesApi } from '../notes/api';
import { questionOf } from './said';

/** A question about what is not as ordered, drafted, to a colleague: a note on the bill, which they find under Today and answer there. */
export function AskBuyer({ desk, lines, currency, close }: { desk: Desk; lines: BillOrders['lines']; currency: string; close(): void }) {
  const { company, me } = usePlace();
  const { data } = billsApi.useColleaguesQuery({ company: company.id });
  const [add, { isLoading }] = notesApi.useAddNoteMutation();
  const people = (data?.people ?? []).filter((p) => p.id !== me.id);
  const [to, setTo] = useState('');
  const { bill } = desk;
  const [text, setText] = useState(() =>
    questionOf(lines, currency, {
      invoiceNumber: bill.invoiceNumber,
      supplier: desk.choiceOf(bill.supplierId)?.name ?? bill.supplierName ?? 'this supplier',
    }),
  );
  const who = people.find((p) => p.id === to);
  const mail = `mailto:?subject=${encodeURIComponent(`Invoice ${bill.invoiceNumber ?? ''}`)}&body=${encodeURIComponent(text)}`;
  const send = () =>
    void add({ company: company.id, id: bill.id, body: { text: `@${who!.name} ${text}`.slice(0, 2000), mentions: [to] } })
      .unwrap()
      .then(() => {
        toast(`${who!.name} was asked. The answer comes as a note on this bill`);
        close();
      })
      .catch((error: unknown) => toast.error(sentenceOf(error)));
  return (
    <section aria-label="Ask about it" className="mt-3 border-t hair pt-3">
      <div className="flex items-center gap-3">
        <label className="flex items-center gap-2 text-[14px]">
          Ask
          <select autoFocus aria-label="Who is asked" className="select select-sm w-56" value={to} onChange={(e) => setTo(e.target.value)}>
            <option value="">somebody …</option>
            {people.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </select>
        </label>
        <a className="text-[13px] text-accent hover:underline" href={mail}>
          Write a mail instead
        </a>
        <button className="btn btn-sm btn-primary ml-auto" disabled={!who || isLoading || !text.trim()} onClick={send}>
          Ask
        </button>
      </div>
      <textarea
        aria-label="The question"
        className="textarea mt-2 w-full text-[14px]"
        rows={Math.min(6, text.split('\n').length + 1)}
        maxLength={1900}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
    </section>
  );
}
