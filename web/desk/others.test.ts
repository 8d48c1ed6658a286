import { expect, it } from 'vitest';
import { emptyCells } from '@ledgerline/core/bills';
import type { Bill } from '@ledgerline/contract';
import type { ShownPage } from '../ui/page-view';
import { othersFor } from './others';

const word = (text: string, x: number, y: number) => ({ text, x, y, w: text.length * 5, h: 10 });
const page = (...words: ReturnType<typeof word>[]) => [{ number: 1, width: 595, height: 842, words }] as unknown as ShownPage[];
const print = { numbers: { decimal: '.' as const }, order: 'day-first' as const };
const bill = (over: object = {}): Bill =>
  ({
    currency: 'GBP',
    kind: 'invoice',
    net: '100.00',
    tax: '20.00',
    gross: '128.00',
    pricesIncludeTax: false,
    invoiceNumber: '4711',
    issueDate: '2026-11-03',
    marks: { gross: { mark: { page: 1, x: 500, y: 700, w: 30, h: 10 }, confidence: 0.6, proof: null } },
    unsure: [],
    lines: [{ ...emptyCells(), id: 'a', kind: 'line', description: 'Peat', amount: '100.00', marks: {} }],
    ...over,
  }) as unknown as Bill;
const values = (path: string, pages: ShownPage[], of = bill()) =>
  othersFor(of, path, pages, print).map((o) => ('value' in o ? o.value : null));

it('what makes the sums hold comes first, then what stands nearest; each once, never what stands there', () => {
  const pages = page(word('300.00', 500, 100), word('128.00', 500, 700), word('119.00', 500, 690), word('120.00', 100, 200), word('300.00', 500, 300)); // prettier-ignore
  expect(values('gross', pages)).toEqual(['120.00', '119.00', '300.00']);
});
it('a date may be of three words on a line; a reference has a digit and is no amount', () => {
  const pages = page(word('24', 100, 50), word('November', 120, 50), word('2026', 170, 50), word('INV-99', 300, 50), word('Total', 100, 90), word('12.00', 150, 90)); // prettier-ignore
  expect(values('issueDate', pages)).toEqual(['2026-11-24']);
  expect(values('invoiceNumber', pages)).toContain('INV-99');
  expect(values('invoiceNumber', pages)).not.toContain('12.00');
});
it('what reading weighed beside the value comes before what else the page has, each once', () => {
  const mark = { page: 1, x: 300, y: 50, w: 30, h: 10 };
  const of = bill({
    marks: {
      invoiceNumber: {
        mark: null,
        confidence: 0.6,
        proof: null,
        rivals: [
          { value: 'K 77', mark },
          { value: '4711', mark },
        ],
      },
    },
  });
  const pages = page(word('INV-99', 300, 50), word('K77', 300, 90));
  expect(values('invoiceNumber', pages, of).slice(0, 2)).toEqual(['K 77', 'INV-99']);
  expect(othersFor(of, 'invoiceNumber', pages, print)[0]).toMatchObject({ do: 'set', field: 'invoiceNumber', mark });
});
it('fields that no page has, and a page without words, have none', () =>
  expect([values('supplierId', page(word('1', 1, 1))), values('gross', page()), values('a.description', page(word('x', 1, 1)))]).toEqual([
    [],
    [],
    [],
  ]));
it('a cell of a row is gone through as well, with its place', () => {
  const [first] = othersFor(bill(), 'a.quantity', page(word('12', 200, 300)), print);
  expect(first).toMatchObject({ do: 'set-cell', line: 'a', field: 'quantity', value: '12', mark: { x: 200, y: 300 } });
});
