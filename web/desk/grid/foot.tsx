import type { ReactNode } from 'react';
import { dec, decOrNull, sum } from '@ledgerline/core/money';
import { money } from '../../ui/format';
import type { Desk } from '../use-desk';
import type { Column } from './columns';
import { isChoice } from './columns';
import type { Grid } from './use-grid';

/** Totals by column; of what is selected, where that is more than one cell. */
export function Foot({ desk, grid }: { desk: Desk; grid: Grid }) {
  const { bill } = desk;
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
      {(bill.shared.length > 0 || bill.lines.some((l) => l.further || columns.some((c) => isChoice(c) && l.marks[c.id]))) && (
        <tr className="text-[13px]">
          <td className="border-t hair" />
          <td colSpan={columns.length + 1} className="h-7 truncate border-t hair px-1.5">
            {selection ? <Said desk={desk} row={selection.head.row} column={columns[selection.head.column]!} /> : <Quiet>{unasked}</Quiet>}
          </td>
        </tr>
      )}
    </tfoot>
  );
}

const unasked = 'Take a cell in hand: here stands why it is coded so, or what else its row says on the page.';
const Quiet = ({ children }: { children: ReactNode }) => <span className="quiet">{children}</span>;

/** Why the cell in hand is coded so, or what it may be coded with; of other cells what else the page says in their row. */
function Said({ desk, row, column }: { desk: Desk; row: number; column: Column }) {
  const line = desk.bill.lines[row];
  const shared = line?.kind === 'charge' ? desk.bill.shared.find((s) => s.row === line.id) : undefined;
  if (shared)
    return (
      <>
        <Quiet>Row {row + 1} is</Quiet> {shared.said} <Quiet>(Alt+P shows how)</Quiet>
      </>
    );
  const coded = line?.marks[column.id];
  const offer = coded?.rivals?.[0];
  const named = offer && desk.choiceOf(offer.value);
  if (line && coded?.proof && isChoice(column))
    return (
      <>
        <Quiet>Suggested:</Quiet> {coded.proof}
      </>
    );
  if (line && isChoice(column) && named && line[column.id] === null)
    return (
      <>
        <Quiet>Not sure enough to fill in:</Quiet> {named.code} {named.name}, {offer.why} <Quiet>(F2 offers it)</Quiet>
      </>
    );
  const cells = line?.further ?? [];
  if (cells.length === 0) return null;
  return (
    <>
      <Quiet>Row {row + 1} also says</Quiet>
      {cells.map(({ heading, value }, i) => (
        <span key={i} className="ml-3">
          {heading && <Quiet>{heading} </Quiet>}
          <span className="tabular-nums">{value}</span>
        </span>
      ))}
    </>
  );
}
