import { FormatRegistry } from '@sinclair/typebox';
import { Value } from '@sinclair/typebox/value';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { applyOperation } from '@ledgerline/core/bills';
import { isIsoDate } from '@ledgerline/core/dates';
import { cellSchemas, headerSchemas, type Bill } from '@ledgerline/contract';
import { fillFrom } from './fill';
import type { Print } from './print';

FormatRegistry.Set('date', isIsoDate);
const schemas = { ...headerSchemas, ...cellSchemas };
const mark = { page: 1, x: 1, y: 2, w: 3, h: 4 };
const empty = Object.fromEntries(Object.keys(cellSchemas).map((cell) => [cell, null]));
const line = { ...empty, id: 'l', kind: 'line', description: 'Pots', quantity: '1', priceQuantity: '1', amount: '5.00', marks: {} };
const bill = { currency: 'GBP', unsure: [], marks: {}, lines: [line] } as unknown as Bill;
/** A row's cells; the place of a value may stay known. */
const cells = ({ lines }: Pick<Bill, 'lines'>) => lines.map(({ marks: _, ...rest }) => rest);
const paths = fc.constantFrom(
  ...Object.keys(headerSchemas),
  ...Object.keys(cellSchemas).map((cell) => `l.${cell}`),
  'x.amount',
  'nothing',
  '',
);
const print: fc.Arbitrary<Print> = fc.record({
  numbers: fc.constantFrom({ decimal: '.' as const }, { decimal: ',' as const }),
  order: fc.constantFrom('day-first' as const, 'month-first' as const),
});
const word = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 30 }),
  fc.stringMatching(/^[£€-]?[0-9]{1,30}[.,]?[0-9]{0,9}$/),
  fc.stringMatching(/^[0-9]{1,2}[/.-][0-9]{1,2}[/.-][0-9]{2,4}$/),
  fc.constantFrom('31/02/2026', '1e400', '٣٤', 'x'.repeat(900), '(12.00)', '12,50-'),
);

it('whatever word of a page is clicked, what it puts into a field fits that field, or it puts nothing', () =>
  fc.assert(
    fc.property(paths, word, print, fc.boolean(), (path, text, as, spot) => {
      const operation = fillFrom(bill, path, text, mark, as, spot);
      if (!operation) return;
      expect(['set', 'set-cell']).toContain(operation.do);
      if (operation.do !== 'set' && operation.do !== 'set-cell') return;
      const fits = (value: unknown) => Value.Check(schemas[operation.field], value);
      expect(fits(operation.value), `${path} from ${JSON.stringify(text)}: ${JSON.stringify(operation.value)}`).toBe(true);
      expect(operation.mark).toEqual(mark);
    }),
    { numRuns: 2000 },
  ));
it('and undo takes it back', () =>
  fc.assert(
    fc.property(paths, word, print, (path, text, as) => {
      const operation = fillFrom(bill, path, text, mark, as);
      if (!operation) return;
      const { bill: after, inverse } = applyOperation(bill, operation);
      const back = inverse ? applyOperation(after, inverse).bill : after;
      expect([back.net, back.tax, back.gross, back.invoiceNumber, cells(back)]).toEqual([
        bill.net,
        bill.tax,
        bill.gross,
        bill.invoiceNumber,
        cells(bill),
      ]);
    }),
  ));
