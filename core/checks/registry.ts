import { documentChecks } from './document.ts';
import { habitChecks } from './habits.ts';
import { headerChecks } from './header.ts';
import { identityChecks } from './identity.ts';
import { lineChecks } from './lines.ts';
import { orderChecks } from './orders.ts';
import { sumChecks } from './sums.ts';
import { supplierChecks } from './supplier.ts';
import { timeChecks } from './times.ts';
import type { Check, CheckedBill, CheckedLine, CodingFacts, Exception, Facts, Setting } from './types.ts';

/** All checks, in the order in which a clerk reads a bill. A new check is one more entry in one of these lists. */
export const checks: readonly Check[] = [
  ...documentChecks,
  ...headerChecks,
  ...supplierChecks,
  ...identityChecks,
  ...habitChecks,
  ...timeChecks,
  ...orderChecks,
  ...lineChecks,
  ...sumChecks,
];
const byCode = new Map(checks.map((c) => [c.code, c]));

/** The check with a code; undefined for one that this version does not have. */
export const checkOf = (code: string): Check | undefined => byCode.get(code);

/** Everything that the checks find on a bill now. A company's settings change severities where a check allows it, or switch it off. */
export function runChecks(bill: CheckedBill, facts: Facts, settings: ReadonlyMap<string, Setting> = new Map()): Exception[] {
  return checks.flatMap((check) => {
    const severity = check.adjustable ? (settings.get(check.code) ?? check.severity) : check.severity;
    if (severity === 'off') return [];
    return check
      .run(bill, facts)
      .map(
        ({
          path,
          sentence,
          many = null,
          key = '',
          choices = [],
          changes = [],
          other = null,
          earlier = [],
          found = null,
          expected = null,
        }) => ({
          code: check.code,
          path,
          key,
          sentence,
          many,
          severity,
          settledBy: check.settledBy,
          choices,
          changes,
          other,
          earlier: [...earlier],
          found,
          expected,
        }),
      );
  });
}

const codingNeeds: readonly (keyof Facts)[] = [
  'closed',
  'gathering',
  'assetAccounts',
  'needsCostCentre',
  'dimensions',
  'needsDimensions',
  'combinations',
  'codes',
] satisfies (keyof CodingFacts)[];
/** The checks of what rows are coded with: what the lists say may have changed since a bill was sent on. */
const codingChecks = checks.filter((c) => c.needs.length > 0 && c.needs.every((n) => codingNeeds.includes(n)));

/** Why rows cannot be posted as they are coded, as the company's lists stand now: the first sentence; null where they can. */
export function stopsCoding(lines: readonly CheckedLine[], facts: CodingFacts): string | null {
  for (const check of codingChecks) {
    const [found] = check.run({ lines } as CheckedBill, facts as Facts);
    if (found) return found.sentence;
  }
  return null;
}
