import { X } from 'lucide-react';
import type { Basis } from '@ledgerline/core/charges';
import { dec, minorUnits, sum } from '@ledgerline/core/money';
import { amountOf } from '../matching/said';
import { money, showDay } from '../ui/format';
import { AmountField } from '../ui/typed';
import type { Chosen } from './share';

interface Props {
  chosen: readonly Chosen[];
  choose(chosen: Chosen[]): void;
  parts: ReadonlyMap<string, string>;
  basis: Basis;
  locked: boolean;
  currency: string;
  baseCurrency: string;
}

/** Of all of one line, in its own measure. */
const all = (each: string | null, quantity: string) => (each === null ? '' : dec(each).times(quantity).toDecimalPlaces(3).toFixed());

/** The goods that a charge is shared over, with what each bears. */
export function ChosenGoods({ chosen, choose, parts, basis, locked, currency, baseCurrency }: Props) {
  if (chosen.length === 0)
    return <p className="border-y hair py-3 text-[14px] quiet">Nothing is chosen. Find below what the charge was for.</p>;
  const total = sum([...parts.values()].map((p) => dec(p))).toFixed(minorUnits(currency));
  return (
    <div className="max-h-[34vh] overflow-auto">
      <table aria-label="Shared over" className="w-full text-[14px]">
        <thead className="sticky top-0 bg-base-200">
          <tr>
            <th className="plain text-left">Order</th>
            <th className="plain text-left">Came</th>
            <th className="plain text-left">Goods</th>
            <th className="plain num">Quantity</th>
            <th className="plain num">Value, {baseCurrency}</th>
            <th className="plain num">kg</th>
            <th className="plain num">m³</th>
            <th className="plain text-left">Where they are</th>
            <th className="plain num w-32">Bears, {currency}</th>
            <th className="plain w-8" />
          </tr>
        </thead>
        <tbody>
          {chosen.map((c, i) => {
            const { goods: g } = c;
            return (
              <tr key={g.id} className="border-b hair">
                <td className="plain">
                  <span className="code">{g.order}</span>
                  <div className="max-w-36 truncate text-[12px] quiet">{g.supplier}</div>
                </td>
                <td className="plain whitespace-nowrap">
                  {showDay(g.receivedOn)}
                  <div className="text-[12px] quiet">{g.receipt}</div>
                </td>
                <td className="plain max-w-48 truncate" title={g.description}>
                  {g.description}
                </td>
                <td className="plain num">{amountOf(g.quantity, g.unit)}</td>
                <td className="plain num">{g.value === null ? <span className="quiet">no rate</span> : money(g.value, baseCurrency)}</td>
                <td className="plain num">{all(g.weight, g.quantity)}</td>
                <td className="plain num">{all(g.volume, g.quantity)}</td>
                <td className="plain">
                  <span className="code" title={g.shown.map((s) => `${s.code} ${s.name}`).join(', ')}>
                    {g.shown.map((s) => s.code).join(' · ') || <span className="quiet">as the row</span>}
                  </span>
                </td>
                <td className="plain num">
                  {basis === 'by-hand' ? (
                    <AmountField
                      label={`Borne by ${g.description}`}
                      className="input input-sm w-28"
                      disabled={locked}
                      currency={currency}
                      value={c.typed}
                      onSave={(typed) => choose(chosen.map((o, k) => (k === i ? { ...o, typed } : o)))}
                    />
                  ) : (
                    <b className="font-semibold">{parts.has(g.id) ? money(parts.get(g.id)!, currency) : ''}</b>
                  )}
                </td>
                <td className="plain">
                  {!locked && (
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs px-1"
                      aria-label={`Leave out ${g.description} of ${g.order}`}
                      onClick={() => choose(chosen.filter((_, k) => k !== i))}
                    >
                      <X size={14} aria-hidden />
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
        {parts.size > 0 && (
          <tfoot>
            <tr>
              <td colSpan={8} className="plain quiet">
                {chosen.length} {chosen.length === 1 ? 'line' : 'lines'}
              </td>
              <td className="plain num">
                <b>{money(total, currency)}</b>
              </td>
              <td />
            </tr>
          </tfoot>
        )}
      </table>
    </div>
  );
}
