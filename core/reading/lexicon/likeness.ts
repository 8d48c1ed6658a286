/**
 * How many letters apart two words are: one changed, left out or added counts one (Levenshtein). Gives up above `most`.
 */
export function lettersApart(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let previous = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    let least = i;
    for (let j = 1; j <= b.length; j++) {
      row[j] = Math.min(row[j - 1]! + 1, previous[j]! + 1, previous[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1));
      least = Math.min(least, row[j]!);
    }
    if (least > most) return most + 1;
    previous = row;
  }
  return previous[b.length]!;
}

/** The one word of a list that ink may have meant: one letter off in a short word, two in a long one; the word itself if it is there or two are as near. */
export function nearestOf(word: string, known: ReadonlySet<string>): string {
  if (known.has(word) || word.length < 5) return word;
  const most = word.length >= 9 ? 2 : 1;
  let best = word,
    least = most + 1;
  for (const other of known) {
    // A plural is another word: "orders" announces a telephone number.
    if (other.length < 5 || word === `${other}s`) continue;
    const apart = lettersApart(word, other, most);
    if (apart < least) {
      least = apart;
      best = other;
    } else if (apart === least && apart <= most) best = word;
  }
  return best;
}

/** All words of a list that are one letter off, short ones too: what ink may have meant where the words beside it agree. */
export const oneLetterOff = (word: string, known: ReadonlySet<string>): string[] =>
  word.length < 3 ? [] : [...known].filter((other) => other.length > 2 && other !== word && lettersApart(word, other, 1) <= 1);
