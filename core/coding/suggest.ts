import { plainName } from '../matching/index.ts';

export interface Coding {
  accountId: string | null;
  costCentreId: string | null;
  taxCodeId: string | null;
}
/** A line of this supplier as it was posted. */
export interface PastLine extends Coding {
  description: string;
  code: string | null;
}
export interface Suggestion extends Coding {
  /** One sentence. */ reason: string;
}
export interface RateCode {
  id: string;
  rate: string;
  reverseCharge: boolean;
}

const words = (text: string): Set<string> =>
  new Set(
    plainName(text)
      .split(' ')
      .filter((w) => w.length > 2 && !/^\d+$/.test(w)),
  );

function likeness(a: Set<string>, b: Set<string>): number {
  const common = [...a].filter((w) => b.has(w)).length;
  return (common / Math.max(1, Math.min(a.size, b.size))) * Math.min(1, common / 2 + 0.5);
}

/**
 * Coding for a line: the way the supplier's most alike past lines were coded, else the supplier's usual coding. A tax rate that
 * the page states overrules the tax code.
 */
export function suggest(
  line: { description: string; code: string | null; taxRate: string | null },
  past: PastLine[],
  usual: Coding | null,
  codes: RateCode[],
): Suggestion | null {
  const own = words(line.description);
  const scored = past
    .map((p) => ({ p, score: (line.code && p.code === line.code ? 1.5 : 0) + likeness(own, words(p.description)) }))
    .filter((s) => s.score >= 0.6);
  const votes = new Map<string, { p: PastLine; score: number; count: number }>();
  for (const { p, score } of scored) {
    const key = `${p.accountId}/${p.costCentreId}`;
    const vote = votes.get(key);
    votes.set(key, { p, score: (vote?.score ?? 0) + score, count: (vote?.count ?? 0) + 1 });
  }
  const best = [...votes.values()].sort((a, b) => b.score - a.score)[0];
  const base: Suggestion | null = best
    ? { ...pick(best.p), reason: `${best.count} of ${scored.length} lines like this from this supplier` }
    : usual?.accountId
      ? { ...pick(usual), reason: 'Usual for this supplier' }
      : null;
  const stated = line.taxRate === null ? null : codes.find((c) => !c.reverseCharge && Number(c.rate) === Number(line.taxRate));
  if (!base)
    return stated ? { accountId: null, costCentreId: null, taxCodeId: stated.id, reason: `${Number(stated.rate)}% on the page` } : null;
  return stated && stated.id !== base.taxCodeId && !codes.some((c) => c.id === base.taxCodeId && Number(c.rate) === Number(stated.rate))
    ? { ...base, taxCodeId: stated.id, reason: `${base.reason}; ${Number(stated.rate)}% on the page` }
    : base;
}

const pick = ({ accountId, costCentreId, taxCodeId }: Coding): Coding => ({ accountId, costCentreId, taxCodeId });
