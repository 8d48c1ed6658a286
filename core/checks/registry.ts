import { documentChecks } from './document.ts';
import { headerChecks } from './header.ts';
import { lineChecks } from './lines.ts';
import { sumChecks } from './sums.ts';
import { supplierChecks } from './supplier.ts';
import type { Check, CheckedBill, Exception, Facts, Setting } from './types.ts';

/** All checks, in the order in which a clerk reads a bill. A new check is one more entry in one of these lists. */
export const checks: readonly Check[] = [...documentChecks, ...headerChecks, ...supplierChecks, ...lineChecks, ...sumChecks];
const byCode = new Map(checks.map((c) => [c.code, c]));

/** The check with a code; undefined for one that this version does not have. */
export const checkOf = (code: string): Check | undefined => byCode.get(code);

/** Everything that the checks find on a bill now. A company's settings change severities where a check allows it, or switch it off. */
export function runChecks(bill: CheckedBill, facts: Facts, settings: ReadonlyMap<string, Setting> = new Map()): Exception[] {
  return checks.flatMap((check) => {
    const severity = check.adjustable ? (settings.get(check.code) ?? check.severity) : check.severity;
    if (severity === 'off') return [];
    return check.run(bill, facts).map(({ path, sentence, key = '', choices = [], changes = [] }) => ({
      code: check.code,
      path,
      key,
      sentence,
      severity,
      settledBy: check.settledBy,
      choices,
      changes,
    }));
  });
}
