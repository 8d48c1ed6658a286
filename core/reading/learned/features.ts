/** How many buckets the names of features are spread over: a power of two. */
export const buckets = 1 << 15;

/** The bucket of a feature's name (FNV-1a). */
function bucketOf(name: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < name.length; i++) {
    h ^= name.charCodeAt(i);
    h = Math.imul(h, 0x01000193);
  }
  return (h ^ (h >>> 15)) & (buckets - 1);
}

/** Something that is seen, by its names and how strong each is: a single one, or a word with its runs of letters. What it says to a model is added up once. */
export class Sign {
  readonly at: number[];
  /** What it says to each model of a panel, by the panel's number. */ readonly said: Float64Array[] = [];

  constructor(
    readonly names: readonly string[],
    readonly strengths: readonly number[],
  ) {
    this.at = names.map(bucketOf);
  }
}

/** Models that are asked about the same things. */
export interface Panel {
  readonly number: number;
  readonly width: number;
  /** What a sign says to each of them. */ hear(sign: Sign): Float64Array;
}

/** The same is seen in the same places over and over: each sign is made once. Bounded, since words come from outside. */
class Known<Key> {
  private readonly signs = new Map<Key, Sign | null>();

  constructor(private readonly most = 50_000) {}

  /** Undefined for one that was not made yet; null for one that is known to be none. */
  get(key: Key): Sign | null | undefined {
    return this.signs.get(key);
  }

  keep<S extends Sign | null>(key: Key, sign: S): S {
    if (this.signs.size >= this.most) this.signs.clear();
    this.signs.set(key, sign);
    return sign;
  }
}
/** One of each kind by a name of the program's own, of which there are few. */
const by = <K>(all: Map<string, Known<K>>, name: string): Known<K> => all.get(name) ?? all.set(name, new Known<K>()).get(name)!;

const single = new Known<string>(),
  numbered = new Map<string, Known<number | string>>(),
  words = new Map<string, Known<string>>(),
  carried = new Map<string, Known<Sign>>();

/** Runs of letters of a word say less than the word. */
const runStrength = 0.4;

function signOf(where: string, word: string): Sign {
  if (/\d/.test(word)) return new Sign([`${where}=#`], [1]);
  const edged = `^${word}$`,
    names = [`${where}=${word}`];
  for (const n of [3, 4]) for (let i = 0; i + n <= edged.length; i++) names.push(`${where}~${edged.slice(i, i + n)}`);
  return new Sign(
    names,
    names.map((_, i) => (i === 0 ? 1 : runStrength)),
  );
}

function carriedSign(from: string, sign: Sign, which: (name: string) => boolean): Sign | null {
  const kept = sign.names.flatMap((name, i) => (which(name) ? [i] : []));
  if (kept.length === 0) return null;
  return new Sign(
    kept.map((i) => `${from} ${sign.names[i]}`),
    kept.map((i) => sign.strengths[i]!),
  );
}

const none: never[] = [];

/**
 * What speaks for or against something, each as strong as its value: by name, or for a panel, to whose models it is added up at once,
 * and the names are not kept.
 */
export class Features {
  readonly signs: Sign[];
  readonly values: number[];
  /** What all of it says to each model of the panel. */ readonly sums: Float64Array | null;

  constructor(readonly panel: Panel | null = null) {
    this.signs = panel ? none : [];
    this.values = panel ? none : [];
    this.sums = panel && new Float64Array(panel.width);
  }

  private put(sign: Sign, value: number): void {
    const { panel, sums } = this;
    if (!panel) {
      this.signs.push(sign);
      this.values.push(value);
      return;
    }
    const said = sign.said[panel.number] ?? panel.hear(sign);
    for (let t = 0; t < said.length; t++) sums![t]! += said[t]! * value;
  }

  add(name: string, value = 1): void {
    this.put(single.get(name) ?? single.keep(name, new Sign([name], [1])), value);
  }

  /** As `add`, for a name that ends with a number or one of few words: found without putting the name together. */
  of(name: string, which: number | string): void {
    const known = by(numbered, name);
    this.put(known.get(which) ?? known.keep(which, new Sign([`${name}${which}`], [1])), 1);
  }

  /** All that another has: one with names, or one for the same panel. */
  take(other: Features): void {
    if (other.sums) {
      if (this.panel !== other.panel) throw new Error('What is added up for one panel says nothing to another.');
      for (let t = 0; t < other.sums.length; t++) this.sums![t]! += other.sums[t]!;
      return;
    }
    for (let i = 0; i < other.signs.length; i++) this.put(other.signs[i]!, other.values[i]!);
  }

  /** What another has, as it is seen from elsewhere: "above its own name". Weighed less. `which` is the same for all of one place. */
  carry(from: string, other: Features, which: (name: string) => boolean, share: number): void {
    const known = by(carried, from);
    for (let i = 0; i < other.signs.length; i++) {
      const own = other.signs[i]!;
      let sign = known.get(own);
      if (sign === undefined) sign = known.keep(own, carriedSign(from, own, which));
      if (sign) this.put(sign, other.values[i]! * share);
    }
  }

  /** A word, by itself and by its runs of letters: words that are alike weigh alike. */
  word(where: string, word: string, value = 1): void {
    if (!word) return;
    const known = by(words, where);
    this.put(known.get(word) ?? known.keep(word, signOf(where, word)), value);
  }

  has(name: string): boolean {
    return this.signs.some((sign) => sign.names.includes(name));
  }

  /** Every name with its bucket and how strong it is. */
  *each(): Generator<{ name: string; at: number; value: number }> {
    for (const [i, sign] of this.signs.entries())
      for (const [k, name] of sign.names.entries()) yield { name, at: sign.at[k]!, value: this.values[i]! * sign.strengths[k]! };
  }
}

const plainWords = new Map<string, string>();
const mostWords = 50_000;

/** A word without accents, case and signs: as features know it. */
export function plainWord(text: string): string {
  let plain = plainWords.get(text);
  if (plain === undefined) {
    plain = text
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .replace(/[^\p{L}\p{N}#°]/gu, '');
    if (plainWords.size >= mostWords) plainWords.clear();
    plainWords.set(text, plain);
  }
  return plain;
}
