import { useState, type ClipboardEvent } from 'react';
import { toast } from 'sonner';
import { formatBlock, parseBlock } from '@ledgerline/core/clipboard';
import type { NumberStyle } from '@ledgerline/core/numbers';
import type { Choice, ChoiceKind } from '@ledgerline/contract';
import { sentenceOf } from '../../app/api';
import { usePlace } from '../../app/company';
import { billsApi } from '../../bills/api';
import { dateOrder, decimalSign, todayIso } from '../../ui/format';
import type { Desk } from '../use-desk';
import { clear, paste, toChoose, type Trouble } from './edits';
import type { Grid } from './use-grid';
import { plainOf } from './values';

const most = { rows: 2000, codes: 500 };
const told = (c: Choice, text: string): boolean => {
  const t = text.toLowerCase();
  return c.code.toLowerCase() === t || c.name.toLowerCase() === t || `${c.code} ${c.name}`.toLowerCase() === t;
};

/** Copies, cuts and pastes blocks of cells, as spreadsheets write them. `print`: how this bill's document writes figures. */
export function useGridClipboard(desk: Desk | null, grid: Grid | null, print: NumberStyle | null) {
  const { company } = usePlace();
  const [find] = billsApi.useLazyChoicesQuery();
  const [troubles, setTroubles] = useState<Trouble[]>([]);
  const ready = () => desk && grid?.block && (grid.editor.current?.typing() ?? 'no') === 'no';

  const onCopy = (e: ClipboardEvent, cut = false) => {
    if (!ready()) return;
    e.preventDefault();
    const { block, columns } = grid!;
    const cells = desk!.bill.lines
      .slice(block!.top, block!.bottom + 1)
      .map((line) => columns.slice(block!.left, block!.right + 1).map((c) => plainOf(line, c, decimalSign(), desk!.choiceOf)));
    e.clipboardData.setData('text/plain', formatBlock(cells));
    if (cut && !desk!.locked) desk!.edit(...clear(desk!.bill, columns, block!));
  };

  /** What codes and names were pasted, looked up: each text once. */
  const chosen = async (wanted: { of: ChoiceKind; text: string }[]): Promise<Map<string, Choice>> => {
    const found = new Map<string, Choice>();
    const rest = [...wanted],
      day = desk?.bill.issueDate;
    const one = async (): Promise<void> => {
      for (let next = rest.pop(); next; next = rest.pop()) {
        const { of, text } = next;
        const { choices } = await find({ company: company.id, of, q: text.slice(0, 100), ...(day ? { day } : {}) }, true).unwrap();
        const fit = choices.filter((c) => told(c, text));
        const choice = fit.find((c) => c.code.toLowerCase() === text.toLowerCase()) ?? (fit.length === 1 ? fit[0] : undefined);
        if (choice) found.set(`${of} ${text}`, choice);
      }
    };
    await Promise.all([one(), one(), one(), one()]);
    return found;
  };

  const onPaste = async (e: ClipboardEvent) => {
    if (!ready() || desk!.locked) return;
    e.preventDefault();
    const cells = parseBlock(e.clipboardData.getData('text/plain'));
    if (cells.length === 0) return;
    if (cells.length > most.rows) return void toast.error(`That is ${cells.length} rows. ${most.rows} at once is the most.`);
    const { bill } = desk!,
      { columns, block } = grid!;
    const aim = { bill, columns, block: block!, cells };
    const wanted = toChoose(aim);
    if (wanted.length > most.codes)
      return void toast.error(`That names ${wanted.length} different codes. ${most.codes} at once is the most.`);
    try {
      const choices = await chosen(wanted);
      for (const c of choices.values()) desk!.know(c);
      const own: NumberStyle = { decimal: decimalSign() };
      const { operations, troubles: left } = paste({
        ...aim,
        styles: print ? [own, print] : [own],
        today: todayIso(),
        order: dateOrder(),
        choose: (of, text) => choices.get(`${of} ${text}`) ?? null,
        newId: () => crypto.randomUUID(),
      });
      if (operations.length > 0) desk!.edit(...operations);
      setTroubles(left);
    } catch (error) {
      toast.error(`Nothing was pasted. ${sentenceOf(error)}`);
    }
  };
  return {
    onCopy,
    onCut: (e: ClipboardEvent) => onCopy(e, true),
    onPaste: (e: ClipboardEvent) => void onPaste(e),
    troubles,
    settled: () => setTroubles([]),
  };
}
