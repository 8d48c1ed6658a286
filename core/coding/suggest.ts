import { codingFields, type DimensionField } from '../bills/index.ts';
import { contextsOf } from './contexts.ts';
import { Counts, rank, type Ranked } from './rank.ts';
import type { Coding, CodingField, History, LineSaid } from './types.ts';
import { whyOf } from './why.ts';

/** A value for a cell, how likely it is right (0 to 1), and one sentence why. */
export interface Option {
  id: string;
  share: number;
  why: string;
  /** Somebody laid it down: nothing that follows from elsewhere comes before it. */ laidDown?: true;
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
 * What lines may be coded with, by this company's posted lines like them and what is usual for their supplier. The cost centre and the
 * dimensions follow from the account, the tax code from it and from the rate that the page states: a stated rate leaves only codes of
 * that rate, and never brings in reverse charge. Lines of one bill are given together: what they have in common is counted once.
 * `dimensions`: those that the company uses.
 */
export function suggest(
  lines: readonly LineToCode[],
  history: History,
  usual: Partial<Coding> | null,
  codes: readonly RateCode[],
  dimensions: readonly DimensionField[] = [],
): Suggestions[] {
  const counts = new Counts(history);
  return lines.map((line) => suggestOne(line, counts, usual, codes, dimensions));
}

/** What goes with a value of a list, where it stands on a line: the usual tax code of an account, the branch of a cost centre. */
export interface With {
  field: CodingField;
  id: string;
}
const withWhy: Partial<Record<CodingField, string>> = { accountId: 'Goes with this account', costCentreId: 'Goes with this cost centre' };

/**
 * Suggestions with what goes with the likeliest account, cost centre and dimensions, as sure as these. A dimension that goes with one of
 * them comes before what was posted with others; a tax code only where nothing else says one, and with the rate that the page states.
 */
export function withFollowing(
  lines: readonly LineToCode[],
  suggestions: readonly Suggestions[],
  going: ReadonlyMap<string, readonly With[]>,
  codes: readonly RateCode[],
): Suggestions[] {
  return suggestions.map((suggested, i) => {
    const now = { ...suggested },
      given = new Set<CodingField>();
    for (const source of codingFields) {
      const [likely] = now[source];
      for (const { field, id } of (likely && going.get(likely.id)) ?? []) {
        // An asset brings its account only where nothing says one.
        if (
          given.has(field) ||
          now[field][0]?.laidDown ||
          (field === 'accountId' && now.accountId.length > 0) ||
          (field === 'taxCodeId' && (now.taxCodeId.length > 0 || !rateFits(id, lines[i]!.taxRate, codes)))
        )
          continue;
        given.add(field);
        const why = field === 'taxCodeId' ? 'Usual for this account' : (withWhy[source] ?? 'Goes with another dimension');
        const share = Math.min(field === 'taxCodeId' ? usualShare : 1, likely!.share);
        now[field] = [{ id, share, why }, ...now[field].filter((o) => o.id !== id).map((o) => ({ ...o, share: o.share * (1 - share) }))];
      }
    }
    return now;
  });
}
/** Whether a tax code may be used, and is of the rate that the page states. */
export function rateFits(id: string, stated: string | null, codes: readonly RateCode[]): boolean {
  const code = codes.find((c) => c.id === id);
  return code !== undefined && (stated === null || Number(stated) === Number(code.rate));
}

/** An option whose sentence is made when it is offered: most are not. */
type Candidate = Omit<Option, 'why'> & { why(): string; /** Set at the supplier, whatever the account. */ set?: true };
const none = Object.fromEntries(codingFields.map((field) => [field, []])) as unknown as Suggestions;
const offered = (candidates: readonly Candidate[]): Option[] =>
  candidates.slice(0, mostOptions).map(({ id, share, why }) => ({ id, share, why: why() }));

function suggestOne(
  line: LineToCode,
  counts: Counts,
  usual: Partial<Coding> | null,
  codes: readonly RateCode[],
  dimensions: readonly DimensionField[],
): Suggestions {
  const standing = contextsOf(line);
  const accounts = withUsual(rank('accountId', standing, counts), usual?.accountId ?? null),
    [account] = accounts;
  const following = (field: CodingField) => withUsual(rank(field, standing, counts, account?.id), usual?.[field] ?? null);
  // What follows from an account is no surer than the account; what is set at the supplier does not follow from it.
  const borne = (field: CodingField) =>
    offered(following(field).map((o) => (o.set ? o : { ...o, share: Math.min(o.share, account?.share ?? 1) })));
  return {
    ...none,
    ...Object.fromEntries(dimensions.map((field) => [field, borne(field)])),
    accountId: offered(accounts),
    costCentreId: borne('costCentreId'),
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
  return [{ id: usual, share: usualShare, why: usualWhy, set: true }, ...rest.map((o) => ({ ...o, share: o.share * (1 - usualShare) }))];
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
