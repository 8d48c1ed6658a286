import { parsePath } from '@ledgerline/core/bills';
import type { Bill, Exception } from '@ledgerline/contract';

/** Columns that one choice can fill on many rows at once. */
export type Chosen = 'accountId' | 'costCentreId' | 'taxCodeId';
/** What is to be settled, said once however many rows it is about. */
export interface Said {
  key: string;
  sentence: string;
  severity: Exception['severity'];
  /** Where the cursor goes for it. */
  path: string;
  all: Exception[];
  /** What one choice fills on all its rows, and which rows these are. */
  fill: { field: Chosen; lines: string[] } | null;
}

/** Told elsewhere: doubts stand at their fields, the proof stands at the foot. */
const elsewhere = ['unsure', 'proof-off'];

const needs: Record<string, [one: string, many: string]> = {
  'account-missing': ['needs an account', 'need an account'],
  'cost-centre-missing': ['needs a cost centre', 'need a cost centre'],
  'tax-code-missing': ['needs a tax code', 'need a tax code'],
  'account-closed': ['is on an account that is closed', 'are on accounts that are closed'],
  'cost-centre-closed': ['is on a cost centre that is closed', 'are on cost centres that are closed'],
  'tax-code-closed': ['has a tax code that is closed', 'have tax codes that are closed'],
  'amount-missing': ['has no amount', 'have no amount'],
  'description-missing': ['has no description', 'have no description'],
};
const choosable = ['accountId', 'costCentreId', 'taxCodeId'];

/** What is open on a bill as sentences, the weightiest first: what stops it before what asks, what is about the whole bill before its rows. */
export function saidOf(bill: Pick<Bill, 'exceptions' | 'lines'>): Said[] {
  const groups = new Map<string, Exception[]>();
  for (const e of bill.exceptions) {
    if (elsewhere.includes(e.code)) continue;
    const key = needs[e.code] ? e.code : `${e.code} ${e.path} ${e.key}`;
    groups.set(key, [...(groups.get(key) ?? []), e]);
  }
  const said = [...groups].map(([key, all]): Said => {
    const [first] = all as [Exception, ...Exception[]];
    const words = needs[first.code];
    const at = all.map((e) => parsePath(e.path)).filter((p) => p !== null && 'line' in p);
    const field = at[0] && 'cell' in at[0] && choosable.includes(at[0].cell) ? (at[0].cell as Chosen) : null;
    const lines = at.map((p) => p.line);
    const row = bill.lines.findIndex((l) => l.id === lines[0]) + 1;
    return {
      key,
      sentence: !words ? first.sentence : all.length === 1 ? `Row ${row} ${words[0]}.` : `${rowsOf(bill, lines)} ${words[1]}.`,
      severity: first.severity,
      path: first.path,
      all,
      fill: words && field && all.length > 1 ? { field, lines } : null,
    };
  });
  const weight = (s: Said) => (s.severity === 'stops' ? 0 : 2) + (needs[s.all[0]!.code] ? 1 : 0);
  return said.sort((a, b) => weight(a) - weight(b));
}

/** "All 7 rows", "7 rows", "Rows 2 and 5". */
function rowsOf(bill: Pick<Bill, 'lines'>, lines: string[]): string {
  if (lines.length === bill.lines.length) return `All ${lines.length} rows`;
  if (lines.length > 3) return `${lines.length} rows`;
  const numbers = lines.map((id) => bill.lines.findIndex((l) => l.id === id) + 1);
  return `Rows ${numbers.slice(0, -1).join(', ')} and ${numbers.at(-1)}`;
}
