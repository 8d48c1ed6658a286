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
  /** By number of the model. */ readonly sums: number[] = [];

  constructor(
    readonly names: readonly string[],
    readonly strengths: readonly number[],
  ) {
    this.at = names.map(bucketOf);
  }
}

/** The same is seen in the same places over and over: each sign is made once. Bounded, since words come from outside. */
class Known<Key> {
  private readonly signs = new Map<Key, Sign | null>();

  constructor(private readonly most = 50_000) {}

  get(key: Key, make: (key: Key) => Sign | null): Sign | null {
    let sign = this.signs.get(key);
    if (sign === undefined) {
      if (this.signs.size >= this.most) this.signs.clear();
      this.signs.set(key, (sign = make(key)));
    }
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

/** What speaks for or against something, by name, each as strong as its value. */
export class Features {
  readonly signs: Sign[] = [];
  readonly values: number[] = [];

  private put(sign: Sign, value: number): void {
    this.signs.push(sign);
    this.values.push(value);
  }

  add(name: string, value = 1): void {
    this.put(
      single.get(name, (own) => new Sign([own], [1]))!,
      value,
    );
  }

  /** As `add`, for a name that ends with a number or one of few words: found without putting the name together. */
  of(name: string, which: number | string): void {
    this.put(
      by(numbered, name).get(which, (own) => new Sign([`${name}${own}`], [1]))!,
      1,
    );
  }

  /** All that another has. */
  take(other: Features): void {
    for (let i = 0; i < other.signs.length; i++) this.put(other.signs[i]!, other.values[i]!);
  }

  /** What another has, as it is seen from elsewhere: "above its own name". Weighed less. `which` is the same for all of one place. */
  carry(from: string, other: Features, which: (name: string) => boolean, share: number): void {
    const known = by(carried, from);
    for (let i = 0; i < other.signs.length; i++) {
      const sign = known.get(other.signs[i]!, (own) => carriedSign(from, own, which));
      if (sign) this.put(sign, other.values[i]! * share);
    }
  }

  /** A word, by itself and by its runs of letters: words that are alike weigh alike. */
  word(where: string, word: string, value = 1): void {
    if (word)
      this.put(
        by(words, where).get(word, (own) => signOf(where, own))!,
        value,
      );
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
