import { findDates, type DateOrder } from '@ledgerline/core/dates';
import { decideStyle, type NumberStyle } from '@ledgerline/core/numbers';
import type { Bill } from '@ledgerline/contract';
import type { ShownPage } from '../ui/page-view';
import { wordsIn } from './place';

/** How a document prints numbers, and dates of three numbers. */
export interface Print {
  numbers: NumberStyle;
  order: DateOrder;
}

/** Day and month stand as in the dates that were read from the same document: "03/11/2026" that was read as 3 November says day first. */
export function printOf(bill: Pick<Bill, 'marks' | 'issueDate' | 'dueDate'>, pages: readonly ShownPage[]): Print {
  const orders = (['issueDate', 'dueDate'] as const).flatMap((field): DateOrder[] => {
    const mark = bill.marks[field]?.mark,
      page = pages.find((p) => p.number === mark?.page);
    if (!mark || !page || !bill[field]) return [];
    const grown = { x: mark.x - 2, y: mark.y - 2, w: mark.w + 4, h: mark.h + 4 };
    const dates = findDates(wordsIn(page, grown))[0]?.dates ?? {};
    const fits = (Object.keys(dates) as DateOrder[]).filter((order) => dates[order] === bill[field]);
    return fits.length === 1 ? fits : [];
  });
  return {
    numbers: decideStyle(pages.flatMap((p) => p.words.map((w) => ({ ...w, font: '' })))),
    order: orders[0] ?? 'day-first',
  };
}
