import { useState } from 'react';
import { allocate, calculate, dec, decOrNull, formatAmount, sum } from '@ledgerline/core/money';
import type { BillLine, Choice, DistributionRow } from '@ledgerline/contract';
import { usePlace } from '../../app/company';
import { settingsApi } from '../../settings/api';
import { Dialog, DialogEnd } from '../../ui/dialog';

interface Props {
  line: BillLine;
  row: number;
  currency: string;
  close(): void;
  /** Shares of the amount, two or more, together all of it. */
  done(shares: string[], centres?: Choice[]): void;
}

/** The code and name that a key shows as "200 Arboretum", as a choice. */
function centreOf({ costCentreId, costCentre }: DistributionRow['parts'][number]): Choice {
  const [code = '', ...name] = costCentre.split(' ');
  return { id: costCentreId, code, name: name.join(' '), detail: null };
}

/** Parts one row into several: by percent or by amount, the last part is what is left; or over cost centres by a distribution key. */
export function SplitDialog({ line, row, currency, close, done }: Props) {
  const { company } = usePlace();
  const { currentData } = settingsApi.useDistributionsQuery({ company: company.id });
  const keys = (currentData?.distributions ?? []).filter((k) => k.active);
  const [by, setBy] = useState<'percent' | 'amount' | 'key'>(() => (localStorage.getItem('split') === 'key' ? 'key' : 'percent'));
  const [chosen, choose] = useState<string | null>(null);
  const key = by === 'key' ? (keys.find((k) => k.id === chosen) ?? keys[0]) : undefined;
  const [typed, setTyped] = useState<string[]>(['50']);
  const whole = by !== 'amount' ? dec(100) : (decOrNull(line.amount) ?? dec(0));
  const given = typed.map((t) => calculate(t));
  const fits = given.every((g) => g !== null && !g.isZero() && g.isNegative() === whole.isNegative());
  const rest = whole.minus(sum(given.flatMap((g) => g ?? [])));
  const good = fits && !rest.isZero() && rest.isNegative() === whole.isNegative();
  const shown = (n: typeof rest) => (by !== 'amount' ? `${n.toFixed()} %` : formatAmount(n, currency));
  return (
    <Dialog title={`Split row ${row + 1}`} close={close}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (key)
            done(key.parts.map((p) => p.weight), key.parts.map(centreOf)); // prettier-ignore
          else if (good) done([...given.map((g) => g!.abs().toFixed()), rest.abs().toFixed()]);
        }}
      >
        <p className="mb-3 quiet">
          {line.description.split('\n')[0]} · {line.amount && formatAmount(line.amount, currency)} {currency}
        </p>
        <div role="radiogroup" aria-label="By" className="mb-3 flex gap-4">
          {(['percent', 'amount', ...(keys.length > 0 ? (['key'] as const) : [])] as const).map((b) => (
            <label key={b} className="flex items-center gap-2">
              <input
                type="radio"
                name="by"
                className="radio radio-sm"
                checked={by === b}
                onChange={() => {
                  setBy(b);
                  // Whoever shares out by keys mostly does so again.
                  localStorage.setItem('split', b === 'key' ? 'key' : '');
                  setTyped(typed.map(() => ''));
                }}
              />
              {b === 'percent' ? 'By percent' : b === 'amount' ? 'By amount' : 'By a distribution key'}
            </label>
          ))}
        </div>
        {key ? (
          <ByKey keys={keys} chosen={key} choose={choose} amount={line.amount} currency={currency} />
        ) : (
          <>
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
          </>
        )}
        <DialogEnd close={close} action="Split" busy={!key && !good}>
          {!key && (
            <button type="button" className="btn btn-ghost" disabled={typed.length >= 19} onClick={() => setTyped([...typed, ''])}>
              Add a part
            </button>
          )}
        </DialogEnd>
      </form>
    </Dialog>
  );
}

/** The parts that a distribution key makes of the row, to the minor unit. */
function ByKey({
  keys,
  chosen,
  choose,
  amount,
  currency,
}: {
  keys: DistributionRow[];
  chosen: DistributionRow;
  choose(id: string): void;
  amount: string | null;
  currency: string;
}) {
  const shares = allocate(decOrNull(amount) ?? dec(0), chosen.parts.map((p) => dec(p.weight)), currency); // prettier-ignore
  return (
    <>
      <select
        aria-label="Distribution key"
        className="select select-sm mb-2 w-full"
        value={chosen.id}
        onChange={(e) => choose(e.target.value)}
        onKeyDown={(e) => {
          // A list of choices does not send its form by itself.
          if (e.key !== 'Enter') return;
          e.preventDefault();
          e.currentTarget.form?.requestSubmit();
        }}
        autoFocus
      >
        {keys.map((k) => (
          <option key={k.id} value={k.id}>
            {k.name}
          </option>
        ))}
      </select>
      <table aria-label="Parts" className="w-full text-[14px]">
        <tbody>
          {chosen.parts.map((p, i) => (
            <tr key={p.costCentreId} className="border-t hair">
              <td className="py-1">{p.costCentre}</td>
              <td className="text-right tabular-nums quiet">{Number(p.weight)}</td>
              <td className="w-32 text-right tabular-nums">{formatAmount(shares[i]!, currency)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
