import { cellPath, dimensionFields } from '@ledgerline/core/bills';
import type { Bill } from '@ledgerline/contract';
import { money } from '../ui/format';

/** A bill's lines with their coding, to be read: a table, or cards on a phone. */
export function Coding({ bill, look }: { bill: Bill; look(path: string): void }) {
  const named = (id: string | null) => bill.named.find((c) => c.id === id);
  const totals: [string, string | null][] = [
    ['Net', bill.net],
    ['Tax', bill.tax],
    ['Total', bill.gross],
  ];
  return (
    <table className="w-full text-[14px] max-md:block">
      <thead className="bg-base-200 max-md:hidden">
        <tr>
          <th className="plain">Line</th>
          <th className="plain">Account</th>
          <th className="plain">Cost centre</th>
          <th className="plain">Tax</th>
          <th className="plain num">Amount</th>
        </tr>
      </thead>
      <tbody className="max-md:block">
        {bill.lines.map((l) => (
          <tr
            key={l.id}
            className="hover:bg-base-200 max-md:grid max-md:grid-cols-[1fr_auto] hair max-md:border-t max-md:px-2 max-md:py-1"
            onMouseEnter={() => look(cellPath(l.id, 'amount'))}
          >
            <td
              className="plain max-w-52 truncate max-md:!h-auto max-md:max-w-none max-md:!border-0 max-md:whitespace-normal"
              title={l.description}
            >
              {l.quantity && <span className="quiet">{l.quantity} × </span>}
              {l.description}
            </td>
            <td className="plain max-w-44 truncate max-md:order-3 max-md:!h-auto max-md:!border-0 max-md:text-[13px]">
              <span className="code">{named(l.accountId)?.code}</span> {named(l.accountId)?.name}
            </td>
            <td className="plain max-w-36 truncate max-md:order-4 max-md:!h-auto max-md:!border-0 max-md:text-right max-md:text-[13px]">
              {[l.costCentreId, ...dimensionFields.map((field) => l[field])].flatMap((id) => named(id)?.name ?? []).join(' · ')}
            </td>
            <td className="plain code max-md:hidden">{named(l.taxCodeId)?.code}</td>
            <td className="plain num max-md:order-2 max-md:!h-auto max-md:!border-0">{money(l.amount, bill.currency)}</td>
          </tr>
        ))}
        {totals.map(([label, value]) => (
          <tr
            key={label}
            className={`max-md:flex max-md:justify-between hair max-md:border-t max-md:px-2 ${label === 'Total' ? 'font-semibold' : ''}`}
          >
            <td className="plain max-md:!border-0" colSpan={4}>
              {label}
            </td>
            <td className="plain num max-md:!border-0">{money(value, bill.currency)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
