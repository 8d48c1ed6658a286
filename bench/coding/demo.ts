import { past } from '@ledgerline/demo/history';
import { codingOf } from '@ledgerline/core/bills';
import type { PostedLine } from './company.ts';

/** The lines that the demo posts in its two years, as it codes them, in order of posting. */
export function demoLines(): PostedLine[] {
  return past('2026-11-27').flatMap(({ invoice }, n) =>
    invoice.lines.map((l, i): PostedLine => {
      const coding = codingOf({ accountId: l.account, costCentreId: invoice.supplier.centre, taxCodeId: l.rate });
      return {
        id: `${n} ${i}`,
        line: { supplierId: invoice.supplier.name, code: l.code, description: l.text, amount: l.amount, day: invoice.issueDate },
        coding,
        right: coding,
      };
    }),
  );
}
