import { codingFields, parsePath, type CodingField } from '@ledgerline/core/bills';
import type { Bill, Exception } from '@ledgerline/contract';

/** What is to be settled, said once however many rows it is about. */
export interface Said {
  key: string;
  sentence: string;
  severity: Exception['severity'];
  /** Where the cursor goes for it. */
  path: string;
  all: Exception[];
  /** What one choice fills on all its rows, and which rows these are. */
  fill: { field: CodingField; lines: string[] } | null;
}

/** Told elsewhere: doubts stand at their fields, the proof stands at the foot. */
const elsewhere = ['unsure', 'proof-off'];

/** What is open on a bill as sentences, the weightiest first: what stops it before what asks, what is about the whole bill before its rows. */
export function saidOf(bill: Pick<Bill, 'exceptions' | 'lines'>): Said[] {
  const groups = new Map<string, Exception[]>();
  for (const e of bill.exceptions) {
    if (elsewhere.includes(e.code)) continue;
    const key = e.many ? `${e.code} ${e.path.split('.')[1]} ${e.many}` : `${e.code} ${e.path} ${e.key}`;
    groups.set(key, [...(groups.get(key) ?? []), e]);
  }
  const said = [...groups].map(([key, all]): Said => {
    const [first] = all as [Exception, ...Exception[]];
    const { many } = first;
    const at = all.map((e) => parsePath(e.path)).filter((p) => p !== null && 'line' in p);
    const cell = at[0] && 'cell' in at[0] ? at[0].cell : null,
      field = codingFields.find((f) => f === cell) ?? null;
    const lines = at.map((p) => p.line);
    return {
      key,
      sentence: many && all.length > 1 ? `${rowsOf(bill, lines)} ${many}.` : first.sentence,
      severity: first.severity,
      path: first.path,
      all,
      fill: many && field && all.length > 1 ? { field, lines } : null,
    };
  });
  const weight = (s: Said) => (s.severity === 'stops' ? 0 : 2) + (s.all[0]!.many ? 1 : 0);
  return said.sort((a, b) => weight(a) - weight(b));
}

/** "Both rows", "All 7 rows", "7 rows", "Rows 2 and 5". */
function rowsOf(bill: Pick<Bill, 'lines'>, lines: string[]): string {
  if (lines.length === bill.lines.length) return lines.length === 2 ? 'Both rows' : `All ${lines.length} rows`;
  if (lines.length > 3) return `${lines.length} rows`;
  const numbers = lines.map((id) => bill.lines.findIndex((l) => l.id === id) + 1);
  return `Rows ${numbers.slice(0, -1).join(', ')} and ${numbers.at(-1)}`;
}
