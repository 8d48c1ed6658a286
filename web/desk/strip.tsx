import { CircleCheck, TriangleAlert } from 'lucide-react';
import type { Bill } from '@ledgerline/contract';
import type { Proof, Repair } from '@ledgerline/core/proof';
import { money } from '../ui/format';

/** The proof strip: the bill's sum as one sentence of figures, beside the invoice's own total, with likely repairs. */
export function ProofStrip({ bill, proof, locked, repair }: { bill: Bill; proof: Proof; locked: boolean; repair(r: Repair): void }) {
  const part = (label: string, amount: string, ok: boolean) => (
    <div className="whitespace-nowrap">
      <div className="quiet text-[12px] leading-4">{label}</div>
      <div className={`border-b-2 text-[17px] font-semibold leading-6 ${ok ? 'border-success' : 'border-warning'}`}>{amount}</div>
    </div>
  );
  const sign = (s: string) => (
    <span className="self-end pb-0.5 text-lg quiet" aria-hidden>
      {s}
    </span>
  );
  const show = (d: Proof['lines']) => money(d.toFixed(), bill.currency);
  return (
    <section
      aria-label="Proof"
      className="flex min-h-[62px] shrink-0 flex-wrap items-center gap-x-3 gap-y-1 border-t-2 hair bg-base-200 px-5 py-1.5"
    >
      {part(
        'lines',
        show(proof.lines),
        Object.values(proof.rows).every((r) => r !== false),
      )}
      {!proof.charges.isZero() && (
        <>
          {sign('+')}
          {part('charges', show(proof.charges), true)}
        </>
      )}
      {bill.pricesIncludeTax ? null : (
        <>
          {sign('+')}
          {part('tax', show(proof.tax), proof.holds)}
        </>
      )}
      {sign('=')}
      {part('makes', show(proof.total), proof.holds)}
      <span className="self-end pb-1 text-[13px] quiet">the invoice says</span>
      {part('total', money(bill.gross, bill.currency) || '—', proof.holds)}
      <div className="ml-auto flex flex-wrap items-center justify-end gap-2" aria-live="polite">
        <span className={`inline-flex items-center gap-1.5 font-semibold ${proof.holds ? 'text-success' : 'text-error'}`}>
          {proof.holds ? <CircleCheck size={16} aria-hidden /> : <TriangleAlert size={16} aria-hidden />}
          {proof.sentence}
        </span>
        {!locked &&
          proof.repairs.map((r, i) => (
            <button key={r.sentence} className="btn btn-sm btn-outline" title={i === 0 ? 'Alt+R' : undefined} onClick={() => repair(r)}>
              {r.sentence}
            </button>
          ))}
      </div>
    </section>
  );
}
