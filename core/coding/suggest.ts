import { contextsOf } from './contexts.ts';
import { Counts, rank, type Ranked } from './rank.ts';
import type { Coding, CodingField, History, LineSaid } from './types.ts';
import { whyOf } from './why.ts';

/** A value for a cell, how likely it is right (0 to 1), and one sentence why. */
export interface Option {
  id: string;
  share: number;
  why: string;
}
/** What each cell may be coded with, the likeliest first. */
export type Suggestions = Record<CodingField, Option[]>;
export interface RateCode {
  id: string;
  rate: string;
  reverseCharge: boolean;
}

/** From this share on a suggestion is filled in: `npm run bench:coding` says how often such ones are wrong. */
export const sure = 0.95;
/** What nothing was posted for is as sure as the supplier's own setting was elsewhere. */
const usualShare = 0.96,
  statedShare = 0.97,
  mostOptions = 3,
  usualWhy = () => 'Usual for this supplier';

/** A line as it is to be coded, with the rate that the page states for it, in percent. */
export type LineToCode = LineSaid & { taxRate: string | null };

/**
 * What lines may be coded with, by this company's posted lines like them and what is usual for their supplier. The cost centre follows from
 * the account, the tax code from it and from the rate that the page states: a stated rate leaves only codes of that rate, and never
 * brings in reverse charge. Lines of one bill are given together: what they have in common is counted once.
 */
export function suggest(lines: readonly LineToCode[], history: History, usual: Coding | null, codes: readonly RateCode[]): Suggestions[] {
  const counts = new Counts(history);
  return lines.map((line) => suggestOne(line, counts, usual, codes));
}

/**
 * Suggestions with the usual tax code of the likeliest account where nothing else says one: the least trusted, and as sure as the account.
 * A rate that the page states has to be the code's.
 */
export function withAccountTax(
  lines: readonly LineToCode[],
  suggestions: readonly Suggestions[],
  usualTax: ReadonlyMap<string, string>,
  codes: readonly RateCode[],
): Suggestions[] {
  return suggestions.map((s, i) => {
    const [account] = s.accountId,
      code = codes.find((c) => account && c.id === usualTax.get(account.id)),
      stated = lines[i]!.taxRate;
    if (s.taxCodeId.length > 0 || !account || !code || (stated !== null && Number(stated) !== Number(code.rate))) return s;
    return { ...s, taxCodeId: [{ id: code.id, share: Math.min(usualShare, account.share), why: 'Usual for this account' }] };
  });
}

/** An option whose sentence is made when it is offered: most are not. */
type Candidate = Omit<Option, 'why'> & { why(): string };
const offered = (candidates: readonly Candidate[]): Option[] =>
  candidates.slice(0, mostOptions).map(({ id, share, why }) => ({ id, share, why: why() }));

function suggestOne(line: LineToCode, counts: Counts, usual: Coding | null, codes: readonly RateCode[]): Suggestions {
  const standing = contextsOf(line);
  const accounts = withUsual(rank('accountId', standing, counts), usual?.accountId ?? null),
    [account] = accounts;
  const following = (field: CodingField) => withUsual(rank(field, standing, counts, account?.id), usual?.[field] ?? null);
  // What follows from an account is no surer than the account.
  const centres = following('costCentreId').map((o) => ({ ...o, share: Math.min(o.share, account?.share ?? 1) }));
  return {
    accountId: offered(accounts),
    costCentreId: offered(centres),
    taxCodeId: offered(withStated(following('taxCodeId'), line.taxRate, codes)),
  };
}

/** What is set at the supplier comes before what only other suppliers' lines say. */
function withUsual(ranked: readonly Ranked[], usual: string | null): Candidate[] {
  const options = ranked.map((r): Candidate => ({ id: r.id, share: r.share, why: () => whyOf(r) }));
  if (usual === null) return options;
  const own = ranked.some((r) => r.kind !== 'company' && r.kind !== 'words');
  if (own) return options.some((o) => o.id === usual) ? options : [...options, { id: usual, share: 0, why: usualWhy }];
  const rest = options.filter((o) => o.id !== usual);
  return [{ id: usual, share: usualShare, why: usualWhy }, ...rest.map((o) => ({ ...o, share: o.share * (1 - usualShare) }))];
}

function withStated(options: Candidate[], taxRate: string | null, codes: readonly RateCode[]): Candidate[] {
  const stated = taxRate === null ? [] : codes.filter((c) => Number(c.rate) === Number(taxRate));
  const plain = stated.find((c) => !c.reverseCharge);
  if (stated.length === 0) return codes.length > 0 ? options.filter((o) => codes.some((c) => c.id === o.id)) : options;
  const kept = options.filter((o) => stated.some((c) => c.id === o.id)),
    all = kept.reduce((sum, o) => sum + o.share, 0);
  if (kept.length === 0) return plain ? [{ id: plain.id, share: statedShare, why: () => `${Number(taxRate)}% on the page` }] : [];
  return kept.map((o) => ({
    ...o,
    share: all > 0 ? (o.share / all) * Math.max(all, statedShare) : o.share,
    why: () => `${o.why()}; ${Number(taxRate)}% on the page`,
  }));
}
