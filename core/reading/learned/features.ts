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

interface Spelled {
  names: string[];
  at: number[];
}
/** The same words stand in the same places over and over: each is taken apart once. */
const known = new Map<string, Spelled>();
const most = 50_000;

function spelled(where: string, word: string): Spelled {
  const key = `${where}=${word}`;
  let found = known.get(key);
  if (found) return found;
  const edged = `^${word}$`,
    names = [key];
  for (const n of [3, 4]) for (let i = 0; i + n <= edged.length; i++) names.push(`${where}~${edged.slice(i, i + n)}`);
  found = { names, at: names.map(bucketOf) };
  if (known.size > most) known.clear();
  known.set(key, found);
  return found;
}

const places = new Map<string, number>();
function placeOf(name: string): number {
  let at = places.get(name);
  if (at === undefined) {
    if (places.size > most) places.clear();
    places.set(name, (at = bucketOf(name)));
  }
  return at;
}

const carriedNames = new Map<string, Map<string, { name: string; at: number } | null>>();

/** What speaks for or against something, by name, each as strong as its value. */
export class Features {
  readonly names: string[] = [];
  readonly at: number[] = [];
  readonly values: number[] = [];

  add(name: string, value = 1): void {
    this.names.push(name);
    this.at.push(placeOf(name));
    this.values.push(value);
  }

  /** All that another has. */
  take(other: Features): void {
    for (let i = 0; i < other.at.length; i++) {
      this.names.push(other.names[i]!);
      this.at.push(other.at[i]!);
      this.values.push(other.values[i]!);
    }
  }

  /** What another has, as it is seen from elsewhere: "above its own name". Weighed less. */
  carry(from: string, other: Features, which: (name: string) => boolean, share: number): void {
    let names = carriedNames.get(from);
    if (!names) carriedNames.set(from, (names = new Map()));
    for (let i = 0; i < other.names.length; i++) {
      const name = other.names[i]!;
      let carried = names.get(name);
      if (carried === undefined) {
        if (names.size > most) names.clear();
        const as = `${from} ${name}`;
        names.set(name, (carried = which(name) ? { name: as, at: bucketOf(as) } : null));
      }
      if (!carried) continue;
      this.names.push(carried.name);
      this.at.push(carried.at);
      this.values.push(other.values[i]! * share);
    }
  }

  /** A word, by itself and by its runs of letters: words that are alike weigh alike. */
  word(where: string, word: string, value = 1): void {
    if (!word) return;
    if (/\d/.test(word)) return this.add(`${where}=#`, value);
    const { names, at } = spelled(where, word);
    for (let i = 0; i < at.length; i++) {
      this.names.push(names[i]!);
      this.at.push(at[i]!);
      this.values.push(i === 0 ? value : 0.4 * value);
    }
  }
}

const plainWords = new Map<string, string>();

/** A word without accents, case and signs: as features know it. */
export function plainWord(text: string): string {
  let plain = plainWords.get(text);
  if (plain === undefined) {
    plain = text
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .replace(/[^\p{L}\p{N}#°]/gu, '');
    if (plainWords.size > most) plainWords.clear();
    plainWords.set(text, plain);
  }
  return plain;
}
