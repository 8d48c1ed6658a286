import type { ContextKind, Standing } from './contexts.ts';
import type { Coded, CodingField, History } from './types.ts';

/** A value that a field may have, how likely it is, and what spoke for it most. */
export interface Ranked {
  id: string;
  /** 0 to 1; what is left of 1 is for what was never posted in such a context. */ share: number;
  /** The kind of context that speaks for it. */ kind: ContextKind;
  /** What it says there, counted when it is asked. */ because(): Because;
}
export interface Because {
  kind: ContextKind;
  /** The word or item code that the context is about. */ said: string;
  /** So many of its lines were coded like this, of so many. */ times: number;
  of: number;
  /** When last, ISO 8601. */ last: string;
  /** Whether all these lines are other suppliers'. */ others: boolean;
}

/**
 * How a kind of context counts. `fade`: each line counts so much of the next later one, so that a change of mind shows after a few;
 * `doubt`: how many lines of it outweigh what the more general contexts say; `most`: more lines than that count no more.
 * Set on made-up companies (`bench/coding/company.ts`, seeds 101 to 103, each value in turn), others than those it is measured on.
 */
interface Weighing {
  fade: number;
  doubt: number;
  most: number;
}
export const weighing: Record<ContextKind, Weighing> = {
  company: { fade: 0.9, doubt: 0.5, most: 6 },
  words: { fade: 0.9, doubt: 1, most: 10 },
  supplier: { fade: 0.98, doubt: 2.8, most: 3 },
  season: { fade: 0.85, doubt: 16, most: 3 },
  size: { fade: 0.85, doubt: 16, most: 4 },
  'supplier words': { fade: 0.66, doubt: 2.4, most: 6 },
  description: { fade: 0.64, doubt: 0.7, most: 4 },
  'description and size': { fade: 0.6, doubt: 2.4, most: 2 },
  code: { fade: 0.68, doubt: 0.6, most: 1.5 },
};

/** The context that speaks for a value: the lines posted in it, and how strongly. */
interface Told {
  kind: ContextKind;
  said: string;
  lines: readonly Coded[];
  strength: number;
}
/** Said where they tell more than what they add to. */
const adding: ReadonlySet<ContextKind> = new Set(['season', 'size', 'description and size']);
/** Values beyond these are never offered. */
const mostRanked = 12;

interface Counted {
  /** How much it tells: 1 where all its lines were coded the same, near 0 where each was coded otherwise. */ tells: number;
  lines: readonly Coded[];
  weights: Map<string, number>;
  total: number;
}

function counted(lines: readonly Coded[], field: CodingField, fade: number): Counted {
  const weights = new Map<string, number>();
  let total = 0,
    weight = 1;
  for (const line of lines) {
    const id = line[field];
    if (id !== null) weights.set(id, (weights.get(id) ?? 0) + weight);
    total += weight;
    weight *= fade;
  }
  let same = 0;
  for (const w of weights.values()) same += (w / total) ** 2;
  return { lines, weights, total, tells: same ** 2 };
}

/** What was posted in contexts, counted once for all lines that are looked at together. */
export class Counts {
  private readonly known = new Map<string, Counted>();

  constructor(private readonly history: History) {}

  /** Of a context, or of its lines on one account. */
  of(kind: ContextKind, context: string, field: CodingField, accountId: string | null): Counted {
    const key = `${field} ${accountId} ${context}`;
    let found = this.known.get(key);
    if (!found) {
      const all = this.history.of(context);
      found = counted(accountId === null ? all : all.filter((l) => l.accountId === accountId), field, weighing[kind].fade);
      this.known.set(key, found);
    }
    return found;
  }
}

/**
 * Likely values of a field of a line: from the most general of its contexts to the most particular, each moves the shares towards what
 * was posted in it, the more lines it has the further (interpolation by Dirichlet priors, as language models smooth their counts:
 * MacKay and Peto 1995). `accountId`: lines on that account tell more, for a field that follows from it.
 */
export function rank(field: CodingField, { supplierId, contexts }: Standing, counts: Counts, accountId: string | null = null): Ranked[] {
  const shares = new Map<string, number>(),
    told = new Map<string, Told>();
  for (const { kind, keys, said } of contexts)
    for (const account of accountId === null ? [null] : [null, accountId]) {
      const { doubt, most } = weighing[kind];
      const pooled = new Map<string, number>();
      let all = 0;
      for (const [i, key] of keys.entries()) {
        const own = counts.of(kind, key, field, account);
        if (own.lines.length === 0) continue;
        // A word that stands in everything tells nothing.
        const much = keys.length > 1 ? own.tells : 1;
        all += much * own.total;
        for (const [id, w] of own.weights) {
          pooled.set(id, (pooled.get(id) ?? 0) + much * w);
          // The most particular context says why; of words the one that tells most.
          const strength = (much * w) / own.total,
            before = told.get(id);
          const more =
            !before || (before.kind === kind ? strength > before.strength : !adding.has(kind) || strength > before.strength + 0.1);
          if (more) told.set(id, { kind, said: said[i]!, lines: own.lines, strength });
        }
      }
      if (all === 0) continue;
      const weight = Math.min(all, most),
        rest = doubt / (weight + doubt);
      for (const [id, share] of shares) shares.set(id, share * rest);
      for (const [id, w] of pooled) shares.set(id, (shares.get(id) ?? 0) + (1 - rest) * (w / all));
    }
  return [...shares]
    .sort((a, b) => b[1] - a[1])
    .slice(0, mostRanked)
    .map(([id, share]) => ({ id, share, kind: told.get(id)!.kind, because: () => becauseOf(told.get(id)!, id, field, supplierId) }));
}

function becauseOf({ kind, said, lines }: Told, id: string, field: CodingField, supplierId: string | null): Because {
  const like = lines.filter((l) => l[field] === id);
  return {
    kind,
    said,
    times: like.length,
    of: lines.length,
    last: like.reduce((last, l) => (l.day > last ? l.day : last), like[0]!.day),
    others: lines.every((l) => l.supplierId !== supplierId),
  };
}
