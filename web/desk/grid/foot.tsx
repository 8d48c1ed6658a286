import { dec, decOrNull, sum } from '@ledgerline/core/money';
import type { Bill } from '@ledgerline/contract';
import { money } from '../../ui/format';
import type { Grid } from './use-grid';

/** Totals by column; of what is selected, where that is more than one cell. */
export function Foot({ bill, grid }: { bill: Bill; grid: Grid }) {
  const { block, columns, selection } = grid;
  const many = block !== null && selection !== null && (block.top !== block.bottom || block.left !== block.right) ? block : null;
  const lines = many ? bill.lines.slice(many.top, many.bottom + 1) : bill.lines;
  const units = new Set(lines.filter((l) => l.quantity !== null).map((l) => l.unit ?? ''));
  const total = (id: 'quantity' | 'amount'): string => {
    const values = lines.flatMap((l) => decOrNull(l[id]) ?? []);
    if (values.length === 0 || (id === 'quantity' && units.size > 1)) return '';
    const all = sum(values).toFixed();
    return id === 'amount' ? money(all, bill.currency) : dec(all).toFixed();
  };
  const within = (c: number) => !many || (c >= many.left && c <= many.right);
  return (
    <tfoot className="sticky bottom-0 z-10 bg-base-200">
      <tr className="text-[13px]">
        <td className="border-t hair" />
        {columns.map((c, i) => (
          <td key={c.id} className={`h-7 border-t hair px-1.5 ${c.num ? 'whitespace-nowrap tabular-nums' : 'truncate'}`}>
            {c.id === 'description' ? (
              <span className="quiet">
                {many
                  ? `${lines.length * (many.right - many.left + 1)} cells selected`
                  : `${lines.length} ${lines.length === 1 ? 'row' : 'rows'}`}
              </span>
            ) : c.id === 'quantity' || c.id === 'amount' ? (
              // A sum is longer than what it adds: it may reach over the column before it.
              within(i) && <b className="flex justify-end font-semibold">{total(c.id)}</b>
            ) : null}
          </td>
        ))}
        <td className="border-t hair" />
      </tr>
      {bill.lines.some((l) => l.further) && (
        <tr className="text-[13px]">
          <td className="border-t hair" />
          <td colSpan={columns.length + 1} className="h-7 truncate border-t hair px-1.5">
            <Further bill={bill} row={selection?.head.row ?? null} />
          </td>
        </tr>
      )}
    </tfoot>
  );
}

/** What else the page says in the row in hand, each under its heading. */
function Further({ bill, row }: { bill: Bill; row: number | null }) {
  const cells = row === null ? null : (bill.lines[row]?.further ?? []);
  if (!cells) return <span className="quiet">Rows say more on the page than the grid has: take one in hand to see it.</span>;
  if (cells.length === 0) return <span className="quiet">Row {row! + 1} says nothing else on the page.</span>;
  return (
    <>
      <span className="quiet">Row {row! + 1} also says</span>
      {cells.map(({ heading, value }, i) => (
        <span key={i} className="ml-3">
          {heading && <span className="quiet">{heading} </span>}
          <span className="tabular-nums">{value}</span>
        </span>
      ))}
    </>
  );
}
