import { useState } from 'react';
import { calculate, dec, decOrNull, formatAmount, sum } from '@ledgerline/core/money';
import type { BillLine } from '@ledgerline/contract';
import { Dialog, DialogEnd } from '../../ui/dialog';

interface Props {
  line: BillLine;
  row: number;
  currency: string;
  close(): void;
  /** Shares of the amount, two or more, together all of it. */
  done(shares: string[]): void;
}

/** Parts one row into several, by percent or by amount; the last part is what is left. */
export function SplitDialog({ line, row, currency, close, done }: Props) {
  const [by, setBy] = useState<'percent' | 'amount'>('percent');
  const [typed, setTyped] = useState<string[]>(['50']);
  const whole = by === 'percent' ? dec(100) : (decOrNull(line.amount) ?? dec(0));
  const given = typed.map((t) => calculate(t));
  const fits = given.every((g) => g !== null && !g.isZero() && g.isNegative() === whole.isNegative());
  const rest = whole.minus(sum(given.flatMap((g) => g ?? [])));
  const good = fits && !rest.isZero() && rest.isNegative() === whole.isNegative();
  const shown = (n: typeof rest) => (by === 'percent' ? `${n.toFixed()} %` : formatAmount(n, currency));
  return (
    <Dialog title={`Split row ${row + 1}`} close={close}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (good) done([...given.map((g) => g!.abs().toFixed()), rest.abs().toFixed()]);
        }}
      >
        <p className="mb-3 quiet">
          {line.description.split('\n')[0]} · {line.amount && formatAmount(line.amount, currency)} {currency}
        </p>
        <div role="radiogroup" aria-label="By" className="mb-3 flex gap-4">
          {(['percent', 'amount'] as const).map((b) => (
            <label key={b} className="flex items-center gap-2">
              <input
                type="radio"
                name="by"
                className="radio radio-sm"
                checked={by === b}
                onChange={() => {
                  setBy(b);
                  setTyped(typed.map(() => ''));
                }}
              />
              {b === 'percent' ? 'By percent' : 'By amount'}
            </label>
          ))}
        </div>
        <div className="space-y-2">
          {typed.map((t, i) => (
            <label key={i} className="flex items-center gap-3">
              <span className="w-20">Part {i + 1}</span>
              <input
                data-first={i === 0 || undefined}
                className="input w-40 text-right"
                inputMode="decimal"
                value={t}
                onChange={(e) => setTyped(typed.map((old, j) => (j === i ? e.target.value : old)))}
                onFocus={(e) => e.target.select()}
              />
              {i > 0 && (
                <button type="button" className="btn btn-ghost btn-sm" onClick={() => setTyped(typed.filter((_, j) => j !== i))}>
                  Remove
                </button>
              )}
            </label>
          ))}
          <p className="flex items-center gap-3">
            <span className="w-20">Part {typed.length + 1}</span>
            <output className={`w-40 px-3 text-right tabular-nums ${good ? '' : 'text-error'}`}>{shown(rest)}</output>
            <span className="quiet">what is left</span>
          </p>
        </div>
        {!good && <p className="mt-2 text-error">Each part has to be more than nothing, and something has to be left.</p>}
        <DialogEnd close={close} action="Split" busy={!good}>
          <button type="button" className="btn btn-ghost" disabled={typed.length >= 19} onClick={() => setTyped([...typed, ''])}>
            Add a part
          </button>
        </DialogEnd>
      </form>
    </Dialog>
  );
}
